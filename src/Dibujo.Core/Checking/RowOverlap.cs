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
            for (var upper = 0; upper < lower; upper++)
            {
                if (Overlap(columns, upper, lower, witnesses))
                {
                    yield return (upper, lower, string.Join(", ", columns.Select((column, i) => $"{labels.Of(table.Drivers[i])} {column.Display(witnesses[i]!)}")));
                }
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
