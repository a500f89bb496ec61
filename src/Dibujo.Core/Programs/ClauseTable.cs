using Dibujo.Core.Operands;

namespace Dibujo.Core.Programs;

/// <summary>
/// The distinct clauses of a program, those of one dispatch together, then the ones that are decided one by one. However
/// many rules share a clause, it is here once.
/// </summary>
internal sealed class ClauseTable
{
    internal required ClauseCode[] Codes { get; init; }

    /// <summary>Slots, or the complement of an index into <see cref="Literals"/>.</summary>
    internal required int[] Comparands { get; init; }

    internal required Operand[] Literals { get; init; }

    /// <summary>For each slot, what decides the clauses that compare it with fixed comparands; null where there are none.</summary>
    internal required Dispatch?[] Dispatches { get; init; }

    /// <summary>For each slot, the number of the first of its dispatch's clauses; the others follow it.</summary>
    internal required int[] FirstOfDispatch { get; init; }

    /// <summary>How many clauses one dispatch decides at most.</summary>
    internal required int MostDecidedAtOnce { get; init; }

    /// <summary>Every clause from this one on is decided by itself.</summary>
    internal required int FirstSingle { get; init; }

    /// <summary>For each slot, the clauses decided by themselves that look at it, as subject or as comparand.</summary>
    internal required Adjacency SinglesOfSlot { get; init; }

    /// <summary>The stages that clauses name by number.</summary>
    internal required string[] Stages { get; init; }

    /// <summary>Every slot that the clause looks at.</summary>
    internal IEnumerable<int> SlotsOf(int clause)
    {
        var code = Codes[clause];
        yield return code.Slot;
        for (var i = 0; i < code.ComparandCount; i++)
        {
            var comparand = Comparands[code.ComparandStart + i];
            if (comparand >= 0)
            {
                yield return comparand;
            }
        }
    }

    /// <summary>For each stage that clauses name, by its number: where it stands in the workflow, or -1.</summary>
    internal int[] StagePositions(Workflows.Workflow workflow) => [.. Stages.Select(workflow.Position)];
}
