using Dibujo.Core.Conditions;
using Dibujo.Core.Records;
using Dibujo.Core.Rules;
using Dibujo.Core.Sentences;
using Dibujo.Core.Values;

namespace Dibujo.Core.Checking;

/// <summary>Finds rows of a decision table that can match the same record, with values for which they do.</summary>
/// <remarks>Two rows overlap if on every driver some value passes both cells; see <see cref="TableColumn"/>.</remarks>
internal static class RowOverlap
{
    /// <summary>Pairs of rows, from the top; the example names a value for every driver.</summary>
    internal static IEnumerable<(int Upper, int Lower, string Example)> Of(DecisionTable table, RecordType type)
    {
        var subjects = new SubjectTypes(type);
        var labels = new Labels(type);
        var columns = table.Drivers.Select((driver, i) => new TableColumn(driver, subjects.Of(driver)!, [.. table.Rows.Select(r => r.If[i])], type)).ToArray();
        var witnesses = new Value?[columns.Length];
        for (var lower = 1; lower < table.Rows.Length; lower++)
        {
            foreach (var upper in Partners(columns, lower))
            {
                if (Overlap(columns, upper, lower, witnesses))
                {
                    yield return (upper, lower, string.Join(", ", columns.Select((column, i) => $"{labels.Of(table.Drivers[i])} {column.Display(witnesses[i]!)}")));
                }
            }
        }
    }

    /// <summary>The rows above that may overlap with one: most fall out by a few operations on bits.</summary>
    private static IEnumerable<int> Partners(TableColumn[] columns, int lower)
    {
        var partners = new ulong[(lower / 64) + 1];
        Array.Fill(partners, ulong.MaxValue);
        foreach (var column in columns)
        {
            column.Narrow(lower, partners);
        }

        for (var upper = 0; upper < lower; upper++)
        {
            if ((partners[upper / 64] >> upper % 64 & 1) != 0)
            {
                yield return upper;
            }
        }
    }

    private static bool Overlap(TableColumn[] columns, int upper, int lower, Value?[] witnesses)
    {
        for (var i = 0; i < columns.Length; i++)
        {
            witnesses[i] = columns[i].Witness(upper, lower);
            if (witnesses[i] is null)
            {
                return false;
            }
        }

        return true;
    }
}
