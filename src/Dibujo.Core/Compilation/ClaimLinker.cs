using System.Collections.Immutable;
using Dibujo.Core.Programs;
using Dibujo.Core.Rules;

namespace Dibujo.Core.Compilation;

/// <summary>Sorts the claims of all rules by element and facet, and gives shadows what is said of the containers that they shadow.</summary>
internal static class ClaimLinker
{
    private static readonly Facet[] OfContainers = [Facet.Visibility, Facet.Access, Facet.Requirement];

    /// <summary>The claims of all rules.</summary>
    /// <param name="rules">By rank; null for one that is left out.</param>
    /// <param name="firstVariants">For each rule the number of its first variant.</param>
    /// <param name="said">What a claim of the rule of that rank says in the program.</param>
    /// <param name="variants">The variants.</param>
    /// <param name="layout">The elements with shadows.</param>
    internal static ClaimTable Link(
        ImmutableArray<CompiledRule?> rules, int[] firstVariants, Func<int, CompiledClaim, int> said, VariantTable variants, Layout layout)
    {
        var starts = Count(rules, layout);
        var next = starts.AsSpan(0, starts.Length - 1).ToArray();
        var claims = new ClaimCode[starts[^1]];
        for (var rank = 0; rank < rules.Length; rank++)
        {
            foreach (var claim in rules[rank]?.Claims ?? [])
            {
                claims[next[ClaimTable.Cell(claim.Element, claim.Facet)]++] = new(firstVariants[rank] + claim.Variant, claim.Case, said(rank, claim));
            }
        }

        foreach (var (field, shadow, container) in layout.Shadows)
        {
            foreach (var facet in OfContainers)
            {
                var cell = ClaimTable.Cell(container, facet);
                for (var i = starts[cell]; i < starts[cell + 1]; i++)
                {
                    claims[next[ClaimTable.Cell(shadow, facet)]++] = facet == Facet.Requirement ? claims[i] : SeenFrom(field, claims[i]);
                }
            }
        }

        return new(claims, starts, variants.Count);

        ClaimCode SeenFrom(int field, ClaimCode claim)
        {
            var rank = variants.RankOf(claim.Variant);
            return rules[rank]!.Own.TryGetValue((claim.Variant - firstVariants[rank], field), out var own)
                ? claim with { Variant = firstVariants[rank] + own }
                : claim;
        }
    }

    /// <summary>Where the claims on each cell begin.</summary>
    private static int[] Count(ImmutableArray<CompiledRule?> rules, Layout layout)
    {
        var starts = new int[(layout.Count * Facets.Count) + 1];
        foreach (var rule in rules)
        {
            foreach (var claim in rule?.Claims ?? [])
            {
                starts[ClaimTable.Cell(claim.Element, claim.Facet) + 1]++;
            }
        }

        foreach (var (_, shadow, container) in layout.Shadows)
        {
            foreach (var facet in OfContainers)
            {
                starts[ClaimTable.Cell(shadow, facet) + 1] = starts[ClaimTable.Cell(container, facet) + 1];
            }
        }

        for (var cell = 1; cell < starts.Length; cell++)
        {
            starts[cell] += starts[cell - 1];
        }

        return starts;
    }
}
