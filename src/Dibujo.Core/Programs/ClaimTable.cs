using Dibujo.Core.Rules;

namespace Dibujo.Core.Programs;

/// <summary>What one case of one variant says of one facet of one element.</summary>
/// <param name="Variant">The variant of a rule, by number.</param>
/// <param name="Case">The case that must be in force, counted within the rule.</param>
/// <param name="Says">
/// What it says: a <see cref="HidingCode"/>, an <see cref="Forms.Access"/>, or an index into the tables of <see cref="EffectTable"/>.
/// </param>
internal readonly record struct ClaimCode(int Variant, int Case, int Says);

/// <summary>What a claim on visibility says.</summary>
internal enum HidingCode
{
    Shown,
    Hidden,
    HiddenAndCleared,
    HiddenAndReset,
}

/// <summary>All claims by element and facet, highest rule first, with the index from variants to what they claim.</summary>
internal sealed class ClaimTable
{
    /// <summary>Lays out the index.</summary>
    /// <param name="claims">Those on each cell together.</param>
    /// <param name="starts">Where those on each (element × facet) cell begin; the last entry is how many there are.</param>
    /// <param name="variantCount">How many variants there are.</param>
    internal ClaimTable(ClaimCode[] claims, int[] starts, int variantCount)
    {
        (Claims, Starts) = (claims, starts);
        CellOf = new int[claims.Length];
        var cells = new Adjacency.Pairs(variantCount);
        var last = new int[variantCount];
        for (var cell = 0; cell + 1 < starts.Length; cell++)
        {
            for (var claim = starts[cell]; claim < starts[cell + 1]; claim++)
            {
                CellOf[claim] = cell;
                var variant = claims[claim].Variant;
                if (last[variant] != cell + 1)
                {
                    last[variant] = cell + 1;
                    cells.Add(variant, cell);
                }
            }
        }

        CellsOfVariant = cells.ToAdjacency();
    }

    internal ClaimCode[] Claims { get; }

    /// <summary>Where the claims on each element and facet begin; the next entry is where they end.</summary>
    internal int[] Starts { get; }

    /// <summary>The cell on which each claim is.</summary>
    internal int[] CellOf { get; }

    /// <summary>The (element × facet) cells on which each variant has a claim.</summary>
    internal Adjacency CellsOfVariant { get; }

    internal static int Cell(int element, Facet facet) => (element * Facets.Count) + (int)facet;

    /// <summary>The claims on one facet of one element.</summary>
    internal ArraySegment<ClaimCode> On(int element, Facet facet)
    {
        var cell = Cell(element, facet);
        return new(Claims, Starts[cell], Starts[cell + 1] - Starts[cell]);
    }
}
