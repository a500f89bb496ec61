using System.Collections.Immutable;
using Dibujo.Core.Csv;
using Dibujo.Core.Forms;
using Dibujo.Core.Records;
using Dibujo.Core.Rules;
using Dibujo.Core.Values;

namespace Dibujo.Core.Inference;

/// <summary>A record type and its records out of a table.</summary>
public static class TakenTable
{
    private const int InSection = 12;
    private const int OnTab = 36;

    /// <summary>The record type: a field for each column, in their order, on one form that is cut into sections and tabs where it is long.</summary>
    /// <param name="key">Its key.</param>
    /// <param name="label">What people call one such record.</param>
    /// <param name="columns">The columns that are taken, at least one.</param>
    /// <param name="title">Key of the field by which records are called.</param>
    public static Definition Definition(string key, string label, ImmutableArray<TakenColumn> columns, string title)
    {
        var begun = Rules.Definition.Begun(key, label);
        return begun with
        {
            RecordType = begun.RecordType with
            {
                TitleField = title,
                Fields = [.. columns.Select(column => new Field(column.Key, column.Label, column.Type))],
                Forms = [new("form", label, [.. columns.Chunk(OnTab).Select((part, i) => Tab(part, i, columns.Length > OnTab))])],
            },
        };
    }

    /// <summary>The rows as records to be begun, each with what in it does not fit. An empty cell says nothing.</summary>
    public static ImmutableArray<ReadRow> Rows(SourceTable table, ImmutableArray<TakenColumn> columns, ICellLookup lookup)
    {
        var readers = columns.Select(column => new CellReader(column.Type, column.Format, lookup)).ToArray();
        return [.. table.Rows.Select((row, line) =>
        {
            var values = ImmutableDictionary.CreateBuilder<string, Value>(StringComparer.Ordinal);
            var mistakes = ImmutableArray.CreateBuilder<string>();
            foreach (var (reader, column) in readers.Zip(columns))
            {
                var cell = row[column.Column];
                var value = reader.Read(cell);
                if (value is null)
                {
                    mistakes.Add($"{column.Label} cannot hold “{Excerpt.Of(cell.Trim())}”. Give {column.Type.Noun}.");
                }
                else if (!value.IsBlank)
                {
                    values[column.Key] = value;
                }
            }

            return new ReadRow(line + 2, null, null, null, null, values.ToImmutable(), mistakes.ToImmutable()) { Cells = [.. row] };
        })];
    }

    private static Tab Tab(TakenColumn[] columns, int at, bool isOneOfSeveral) => new(
        $"tab{at + 1}", isOneOfSeveral ? Span(columns) : "Main",
        [.. columns.Chunk(InSection).Select((part, i) => new Section($"section{(at * OnTab / InSection) + i + 1}", columns.Length > InSection ? Span(part) : "Details", [.. part.Select(column => column.Key)]))]);

    private static string Span(TakenColumn[] columns) => columns.Length == 1 ? columns[0].Label : $"{columns[0].Label} to {columns[^1].Label}";
}
