using System.Collections.Immutable;
using System.Numerics;
using Dibujo.Core.Checking;
using Dibujo.Core.Conditions;
using Dibujo.Core.Records;
using Dibujo.Core.Rules;
using Dibujo.Core.Sentences;

namespace Dibujo.Core.Analysis;

/// <summary>Which rows of a decision table are reached, and what no row covers.</summary>
/// <param name="Unreached">Places of rows that are in force for no record: rows above them take everything that they match.</param>
/// <param name="Overlaps">Rows that take a part of what a row below matches, and leave it a part.</param>
/// <param name="Gaps">Values for which no row is there, at most <see cref="MostGaps"/>, each as "Kind of work Lighting, Room blank".</param>
/// <remarks>
/// Found by trying one value of each kind for every driver, where a kind is told by the rows whose cells it passes. Nothing
/// is found where a cell compares with what is not fixed, where the table has a problem, or where there are too many kinds.
/// Gaps of what is left blank are not told: there the resting states hold, as in every form that is just begun.
/// </remarks>
public sealed record TableReach(ImmutableArray<int> Unreached, ImmutableArray<RowPair> Overlaps, ImmutableArray<string> Gaps)
{
    /// <summary>How many gaps are told at most.</summary>
    public const int MostGaps = 6;

    private const int MostTried = 200_000;
    private static readonly TableReach Unknown = new([], [], []);

    /// <summary>What is found in a table.</summary>
    public static TableReach Of(DecisionTable table, RecordType type)
    {
        var subjects = new SubjectTypes(type);
        var types = table.Drivers.Select(subjects.Of).ToArray();
        if (table.Rows.IsEmpty || types.Any(t => t is null) || table.Rows.Any(row => row.If.Length != table.Drivers.Length) || HasUnfinished(table))
        {
            return Unknown;
        }

        var columns = types.Select((driver, i) => new TableColumn(table.Drivers[i], driver!, [.. table.Rows.Select(r => r.If[i])], type)).ToArray();
        var kinds = columns.Select(column => column.Kinds().ToArray()).ToArray();
        return columns.Any(column => !column.IsDecided) || kinds.Aggregate(1L, (product, of) => product * of.Length) > MostTried
            ? Unknown
            : Try(table, [.. table.Drivers.Select(new Labels(type).Of)], kinds);
    }

    private static bool HasUnfinished(DecisionTable table) => table.Rows.SelectMany(row => row.If)
        .Any(cell => cell.Test is { } test && test.Shape() != TestShape.Alone && cell.Comparands.IsEmpty);

    private static TableReach Try(DecisionTable table, string[] labels, (string Example, bool IsBlank, ulong[] Rows)[][] kinds)
    {
        var rows = table.Rows.Length;
        var (matched, first) = (new int[rows], new int[rows]);
        var shared = new Dictionary<RowPair, int>();
        var gaps = new List<string>();
        var at = new int[kinds.Length];
        do
        {
            var bits = new ulong[(rows + 63) / 64];
            Array.Fill(bits, ulong.MaxValue);
            foreach (var (i, kind) in at.Index())
            {
                for (var word = 0; word < bits.Length; word++)
                {
                    bits[word] &= kinds[i][kind].Rows[word];
                }
            }

            var matching = Places(bits).ToArray();
            if (matching.Length == 0 && gaps.Count < MostGaps && !at.Index().Any(k => kinds[k.Index][k.Item].IsBlank))
            {
                gaps.Add(string.Join(", ", at.Index().Select(k => $"{labels[k.Index]} {kinds[k.Index][k.Item].Example}")));
            }

            foreach (var (i, row) in matching.Index())
            {
                matched[row]++;
                first[row] += i == 0 ? 1 : 0;
                foreach (var upper in matching.Take(i))
                {
                    var pair = new RowPair(upper, row);
                    shared[pair] = shared.GetValueOrDefault(pair) + 1;
                }
            }
        }
        while (Next(at, kinds));

        return new(
            [.. Enumerable.Range(0, rows).Where(row => first[row] == 0)],
            [.. shared.Where(pair => pair.Value < matched[pair.Key.Upper] && pair.Value < matched[pair.Key.Lower] && first[pair.Key.Lower] > 0
                && !table.Rows[pair.Key.Upper].Then.SequenceEqual(table.Rows[pair.Key.Lower].Then)).Select(pair => pair.Key).OrderBy(pair => (pair.Lower, pair.Upper))],
            [.. gaps]);
    }

    private static bool Next<T>(int[] at, T[][] kinds)
    {
        for (var i = at.Length - 1; i >= 0; i--)
        {
            if (++at[i] < kinds[i].Length)
            {
                return true;
            }

            at[i] = 0;
        }

        return false;
    }

    private static IEnumerable<int> Places(ulong[] bits)
    {
        for (var word = 0; word < bits.Length; word++)
        {
            for (var left = bits[word]; left != 0; left &= left - 1)
            {
                yield return (64 * word) + BitOperations.TrailingZeroCount(left);
            }
        }
    }
}

/// <summary>Two rows of a table, by their places from 0.</summary>
public readonly record struct RowPair(int Upper, int Lower);
