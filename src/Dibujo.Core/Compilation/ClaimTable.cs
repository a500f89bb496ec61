using Dibujo.Core.Forms;
using Dibujo.Core.Rules;

namespace Dibujo.Core.Compilation;

/// <summary>What one case of one variant says of one facet of one element.</summary>
/// <param name="Variant">The variant of a rule, by number.</param>
/// <param name="Case">The case that must be in force, counted within the rule.</param>
/// <param name="Says">
/// What it says: a <see cref="HidingCode"/>, an <see cref="Access"/>, or an index into the tables of <see cref="EffectTable"/>.
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
    private readonly Dictionary<int, List<ClaimCode>> gathered = [];

    internal ClaimCode[] Claims { get; private set; } = [];

    /// <summary>Where the claims on each element and facet begin; the next entry is where they end.</summary>
    internal int[] Starts { get; private set; } = [];

    /// <summary>The cell on which each claim is.</summary>
    internal int[] CellOf { get; private set; } = [];


    /// <summary>The (element × facet) cells on which each variant has a claim.</summary>
    internal int[][] CellsOfVariant { get; private set; } = [];

    internal static int Cell(int element, Facet facet) => (element * Facets.Count) + (int)facet;

    /// <summary>Adds a claim below those already there.</summary>
    internal void Add(int element, Facet facet, ClaimCode claim)
    {
        var cell = Cell(element, facet);
        if (!gathered.TryGetValue(cell, out var list))
        {
            gathered[cell] = list = [];
        }

        list.Add(claim);
    }

    /// <summary>The claims gathered so far on one facet of one element.</summary>
    internal IReadOnlyList<ClaimCode> On(int element, Facet facet) =>
        gathered.TryGetValue(Cell(element, facet), out var list) ? list : [];

    /// <summary>Puts other claims in place of those on one facet of one element.</summary>
    internal void Replace(int element, Facet facet, IEnumerable<ClaimCode> claims) =>
        gathered[Cell(element, facet)] = [.. claims];

    internal void Freeze(int elementCount, int readingCount)
    {
        var cells = elementCount * Facets.Count;
        Starts = new int[cells + 1];
        var all = new List<ClaimCode>();
        var cellsOf = new List<int>[readingCount];
        for (var i = 0; i < readingCount; i++)
        {
            cellsOf[i] = [];
        }

        for (var cell = 0; cell < cells; cell++)
        {
            Starts[cell] = all.Count;
            foreach (var claim in gathered.GetValueOrDefault(cell, []))
            {
                all.Add(claim);
                if (cellsOf[claim.Variant] is var list && (list.Count == 0 || list[^1] != cell))
                {
                    list.Add(cell);
                }
            }
        }

        Starts[cells] = all.Count;
        Claims = [.. all];
        CellOf = [.. Enumerable.Range(0, cells).SelectMany(cell => Enumerable.Repeat(cell, Starts[cell + 1] - Starts[cell]))];
        CellsOfVariant = [.. cellsOf.Select(c => c.ToArray())];
    }
}
