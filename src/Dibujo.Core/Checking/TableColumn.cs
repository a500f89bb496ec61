using System.Collections.Immutable;
using System.Numerics;
using Dibujo.Core.Conditions;
using Dibujo.Core.Records;
using Dibujo.Core.Rules;
using Dibujo.Core.Values;

namespace Dibujo.Core.Checking;

/// <summary>One driver of a decision table with its cells and, for each of them, the values that pass.</summary>
/// <remarks>
/// Whether a value passes two cells is decided on the values at which a cell's answer can change (<see cref="BoundaryValues"/>).
/// A comparand that is not fixed could be any value: such cells are taken to overlap with nothing that they name differently.
/// </remarks>
internal sealed class TableColumn
{
    private readonly FieldType type;
    private readonly ImmutableArray<Cell> cells;
    private readonly FixedTest?[] tests;
    private readonly Candidate[] candidates;

    /// <summary>For each cell a bit for each candidate that passes it.</summary>
    private readonly ulong[][] passing;

    /// <summary>For each candidate a bit for each row whose cell it passes.</summary>
    private readonly ulong[][] rowsPassed;

    /// <summary>Rows of which the candidates alone do not tell with what they overlap.</summary>
    private readonly ulong[] undecided;

    internal TableColumn(Subject driver, FieldType type, ImmutableArray<Cell> cells, RecordType recordType)
    {
        this.type = type;
        this.cells = cells;
        tests = [.. cells.Select(cell => IsFixed(cell) && cell.Test is { } test ? new FixedTest(driver, type, test, cell.Comparands) : null)];
        var looksAtChange = cells.Any(cell => cell.Test is Test.Changed or Test.Unchanged);
        candidates = driver is StageSubject
            ? [.. recordType.Workflows.SelectMany(workflow => workflow.Stages.Select(stage => new Candidate(new Choice(stage.Key), workflow)))]
            : [.. BoundaryValues.Of(driver, type, [.. tests.OfType<FixedTest>().SelectMany(t => t.Comparands)])
                .SelectMany(value => (Candidate[])(looksAtChange ? [new(value), new(value, HasChanged: true)] : [new(value)]))];
        passing = [.. tests.Select(Passing)];
        rowsPassed = [.. candidates.Index().Select(candidate => Rows(row => (passing[row][candidate.Index / 64] >> candidate.Index % 64 & 1) != 0))];
        undecided = Rows(row => !IsFixed(cells[row]) || (tests[row] is { } test && BoundaryValues.Between(test, test).Any()));
    }

    /// <summary>Takes the rows out that surely pass no value together with this one.</summary>
    internal void Narrow(int row, Span<ulong> partners)
    {
        if ((undecided[row / 64] >> row % 64 & 1) != 0)
        {
            return;
        }

        var shared = undecided.AsSpan().ToArray();
        for (var candidate = 0; candidate < candidates.Length; candidate++)
        {
            if ((passing[row][candidate / 64] >> candidate % 64 & 1) == 0)
            {
                continue;
            }

            for (var i = 0; i < shared.Length; i++)
            {
                shared[i] |= rowsPassed[candidate][i];
            }
        }

        for (var i = 0; i < partners.Length; i++)
        {
            partners[i] &= shared[i];
        }
    }

    private ulong[] Rows(Func<int, bool> has)
    {
        var bits = new ulong[(cells.Length + 63) / 64];
        for (var row = 0; row < cells.Length; row++)
        {
            bits[row / 64] |= has(row) ? 1UL << (row % 64) : 0;
        }

        return bits;
    }

    internal string Display(Value value) => value switch
    {
        { IsBlank: true } => "blank",
        Choices roles when type is ChoiceType one => string.Join(" and ", roles.Keys.Select(key => one.Display(new Choice(key)))),
        _ => type.Display(value),
    };

    /// <summary>A value that passes the cells of both rows; null if there is none.</summary>
    internal Value? Witness(int upper, int lower)
    {
        if (!IsFixed(cells[upper]) || !IsFixed(cells[lower]))
        {
            // Not decidable here: the same test on the same comparand surely overlaps, others are given the benefit.
            return cells[upper].Test is null || cells[lower].Test is null || cells[upper].Equals(cells[lower]) ? candidates[0].Value : null;
        }

        for (var i = 0; i < passing[upper].Length; i++)
        {
            if ((passing[upper][i] & passing[lower][i]) is not 0 and var both)
            {
                return candidates[(64 * i) + BitOperations.TrailingZeroCount(both)].Value;
            }
        }

        return tests[upper] is { } one && tests[lower] is { } other
            ? BoundaryValues.Between(one, other).Select(value => new Candidate(value)).FirstOrDefault(c => one.Holds(c) && other.Holds(c))?.Value
            : null;
    }

    /// <summary>Whether the values below are all that matter: no cell names what is not fixed, or searches in texts.</summary>
    internal bool IsDecided => undecided.All(bits => bits == 0);

    /// <summary>Values that pass the cells of different rows, one of each kind, with a bit for each row; those that can be named first.</summary>
    internal IEnumerable<(string Example, bool IsBlank, ulong[] Rows)> Kinds() => candidates.Zip(rowsPassed)
        .OrderBy(kind => kind.First.Value.IsBlank)
        .DistinctBy(kind => string.Join(' ', kind.Second))
        .Select(kind => (Display(kind.First.Value), kind.First.Value.IsBlank, kind.Second));

    private static bool IsFixed(Cell cell) => cell.Comparands.All(c => c is Literal);

    private ulong[] Passing(FixedTest? test)
    {
        var bits = new ulong[(candidates.Length + 63) / 64];
        foreach (var (i, candidate) in candidates.Index())
        {
            if (test?.Holds(candidate) != false)
            {
                bits[i / 64] |= 1UL << (i % 64);
            }
        }

        return bits;
    }
}
