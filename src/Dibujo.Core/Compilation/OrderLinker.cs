using System.Collections.Immutable;
using Dibujo.Core.Programs;
using Dibujo.Core.Rules;

namespace Dibujo.Core.Compilation;

/// <summary>Finds the order in which the values of fields are settled, and the cycles in it.</summary>
internal sealed class OrderLinker(
    Layout layout, ImmutableArray<CompiledRule?> rules, VariantTable variants, GroupTable groups, ClaimTable claims, EffectTable effects)
{
    private const int WordBits = 64;

    private readonly int words = (layout.FieldCount + WordBits - 1) / WordBits;

    internal ValueOrder Link()
    {
        var components = StronglyConnected.Components(Dependencies());
        var cycles = new Cycle[components.Count];
        var cycleOfField = new int[layout.FieldCount];
        var cycleOfVariant = new int[variants.Count];
        Array.Fill(cycleOfVariant, -1);
        var underVariant = new Adjacency.Pairs(variants.Count);
        var ofClause = new Adjacency.Pairs(groups.First);
        for (var i = 0; i < cycles.Length; i++)
        {
            var members = components[i];
            foreach (var member in members)
            {
                cycleOfField[member] = i;
            }

            if (members.Length == 1)
            {
                cycles[i] = new(members, []);
                continue;
            }

            int[] over = [.. members.SelectMany(Deciding).Distinct().Order()];
            int[] within = [.. over.Where(variant => variants.FieldsOf(variant).Any(members.Contains)).OrderBy(variants.RankOf).ThenBy(v => v)];
            cycles[i] = new(members, within);
            foreach (var variant in over)
            {
                underVariant.Add(variant, i);
            }

            foreach (var variant in within)
            {
                cycleOfVariant[variant] = i;
            }

            foreach (var clause in within.SelectMany(variants.ConditionsOf).SelectMany(groups.ClausesUnder).Distinct())
            {
                ofClause.Add(clause, i);
            }
        }

        return new()
        {
            Cycles = cycles,
            IsGivenValues = [.. cycles.Select(cycle => Array.Exists(cycle.Fields, IsGivenValues))],
            CycleOfField = cycleOfField,
            CycleOfVariant = cycleOfVariant,
            CyclesOfClause = ofClause.ToAdjacency(),
            CyclesUnderVariant = underVariant.ToAdjacency(),
        };
    }

    /// <summary>For each field, the fields on whose live values its own may depend, ascending.</summary>
    private int[][] Dependencies()
    {
        var mentioned = MentionedByElement();
        var dependencies = new int[layout.FieldCount][];
        var all = new ulong[words];
        for (var field = 0; field < dependencies.Length; field++)
        {
            Array.Clear(all);
            foreach (var element in layout.Reach[field])
            {
                Join(all, mentioned, element);
            }

            foreach (var (part, _) in layout.PartsOfField[field])
            {
                Join(all, mentioned, part);
            }

            foreach (var source in effects.Sources[field])
            {
                all[source / WordBits] |= 1UL << (source % WordBits);
            }

            // What it looks at of itself is its saved value, which depends on nothing.
            all[field / WordBits] &= ~(1UL << (field % WordBits));
            dependencies[field] = Numbers(all);
        }

        return dependencies;
    }

    /// <summary>For each element a bit for each field at which some claim on its visibility, access or value looks.</summary>
    private ulong[] MentionedByElement()
    {
        var bits = new ulong[layout.Count * words];
        foreach (var rule in rules)
        {
            foreach (var claim in rule?.Claims ?? [])
            {
                if (claim.Facet is Facet.Visibility or Facet.Access or Facet.Value)
                {
                    foreach (var field in rule!.Mentioned)
                    {
                        bits[(claim.Element * words) + (field / WordBits)] |= 1UL << (field % WordBits);
                    }
                }
            }
        }

        foreach (var (_, shadow, container) in layout.Shadows)
        {
            Array.Copy(bits, container * words, bits, shadow * words, words);
        }

        return bits;
    }

    private void Join(ulong[] all, ulong[] bits, int element)
    {
        for (var word = 0; word < words; word++)
        {
            all[word] |= bits[(element * words) + word];
        }
    }

    private static int[] Numbers(ulong[] bits)
    {
        var numbers = new List<int>();
        for (var word = 0; word < bits.Length; word++)
        {
            for (var left = bits[word]; left != 0; left &= left - 1)
            {
                numbers.Add((word * WordBits) + System.Numerics.BitOperations.TrailingZeroCount(left));
            }
        }

        return [.. numbers];
    }

    /// <summary>The variants whose claims decide over the field's own value.</summary>
    private IEnumerable<int> Deciding(int field) =>
        from element in ElementsOver(field)
        from facet in RuleCompiler.ValueFacets
        from claim in claims.On(element, facet)
        select claim.Variant;

    /// <summary>Whether some claim sets, calculates or clears the field's value or a part of it, or does so while hiding it.</summary>
    private bool IsGivenValues(int field)
    {
        if (claims.On(field, Facet.Value).Count > 0)
        {
            return true;
        }

        foreach (var element in ElementsOver(field))
        {
            foreach (var claim in claims.On(element, Facet.Visibility))
            {
                if (claim.Says > (int)HidingCode.Hidden)
                {
                    return true;
                }
            }
        }

        return false;
    }

    private IEnumerable<int> ElementsOver(int field) => layout.Reach.Of(field).Concat(layout.PartsOfField[field].Select(p => p.Element));
}
