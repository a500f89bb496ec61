using Dibujo.Core.Operands;
using Dibujo.Core.Programs;

namespace Dibujo.Core.Compilation;

/// <summary>The dispatch of each slot, as it was last made: made anew only where the slot's clauses are others.</summary>
internal sealed class DispatchPool(ClausePool clauses)
{
    private readonly Dictionary<int, (int[] Clauses, Dispatch? Dispatch, int[] Taken)> known = [];

    /// <summary>What decides those clauses at once, null where nothing does, and the ones it takes over, in its order.</summary>
    /// <param name="slot">At which they look.</param>
    /// <param name="fixedClauses">All that compare the slot with literals.</param>
    internal (Dispatch? Dispatch, int[] Taken) Of(int slot, ReadOnlySpan<int> fixedClauses)
    {
        if (known.TryGetValue(slot, out var found) && fixedClauses.SequenceEqual(found.Clauses))
        {
            return (found.Dispatch, found.Taken);
        }

        var codes = new List<FixedClause>(fixedClauses.Length);
        foreach (var clause in fixedClauses)
        {
            var comparands = clauses.ComparandsOf(clause);
            var literals = new Operand[comparands.Length];
            for (var i = 0; i < literals.Length; i++)
            {
                literals[i] = clauses.Literal(~comparands[i]);
            }

            codes.Add(new(clause, clauses.OpOf(clause), literals));
        }

        var made = Dispatch.Of(codes);
        known[slot] = (fixedClauses.ToArray(), made?.Dispatch, made?.Clauses ?? []);
        return (made?.Dispatch, made?.Clauses ?? []);
    }
}
