using System.Collections.Immutable;
using System.Globalization;
using CsvHelper;
using CsvHelper.Configuration;
using Dibujo.Core.Records;
using Dibujo.Core.Values;

namespace Dibujo.Core.Exchange;

/// <summary>Records as comma-separated values (RFC 4180): a column for each field, a part for each column of a compound one.</summary>
/// <remarks>
/// The first line names the columns by key, or by label where that is unique; <c>id</c>, <c>workflow</c> and <c>stage</c>
/// go with a record. Choices stand by key or label, several with semicolons between, yes and no in words.
/// </remarks>
public static class RecordTable
{
    /// <summary>The column with the record's number; blank for a record that is to be begun.</summary>
    public const string Number = "id";

    private const int MostRows = 100_000;
    private const int MostColumns = 2000;

    private static readonly CsvConfiguration Format = new(CultureInfo.InvariantCulture)
    {
        BadDataFound = null,
        MissingFieldFound = null,
        DetectColumnCountChanges = false,
        MaxFieldSize = 200_000,
    };

    /// <summary>The records as text, in the order in which they come.</summary>
    public static string Write(RecordType type, IEnumerable<RecordRow> rows)
    {
        using var text = new StringWriter(CultureInfo.InvariantCulture);
        using (var csv = new CsvWriter(text, Format))
        {
            var columns = type.Fields.SelectMany(Columns).ToList();
            foreach (var header in (string[])[Number, "workflow", "stage", .. columns.Select(c => c.Header)])
            {
                csv.WriteField(header);
            }

            csv.NextRecord();
            foreach (var row in rows)
            {
                csv.WriteField(row.Id?.ToString(CultureInfo.InvariantCulture));
                csv.WriteField(row.Workflow);
                csv.WriteField(row.Stage);
                foreach (var column in columns)
                {
                    csv.WriteField(Harmless(column.Print(row.Values[column.Field.Key])));
                }

                csv.NextRecord();
            }
        }

        return text.ToString();
    }

    /// <summary>The rows of a text, each with what in it cannot be read; or what keeps the whole from being read.</summary>
    public static (ImmutableArray<ReadRow> Rows, string? Mistake) Read(RecordType type, string text)
    {
        try
        {
            using var csv = new CsvParser(new StringReader(text), Format);
            if (!csv.Read() || csv.Record is not { Length: > 0 and <= MostColumns } headers)
            {
                return ([], "The file has no line that names its columns. Begin it with the keys of fields.");
            }

            var columns = headers.Select(header => Find(type, header.Trim().TrimStart('\uFEFF'))).ToList();
            if (columns.FindIndex(c => c is null) is >= 0 and var unknown)
            {
                return ([], $"There is no field “{Checking.ProblemList.Shorten(headers[unknown])}”. Name columns by the keys or labels of fields.");
            }

            var rows = ImmutableArray.CreateBuilder<ReadRow>();
            while (rows.Count < MostRows && csv.Read())
            {
                if (csv.Record!.Any(cell => !string.IsNullOrWhiteSpace(cell)))
                {
                    rows.Add(ReadRowOf(csv.RawRow, columns!, csv.Record!));
                }
            }

            return (rows.ToImmutable(), null);
        }
        catch (CsvHelperException mistake)
        {
            return ([], $"The file cannot be read as comma-separated values near line {mistake.Context?.Parser?.RawRow ?? 1}. Check its quotation marks.");
        }
    }

    private static ReadRow ReadRowOf(int line, List<Column> columns, string[] cells)
    {
        var values = ImmutableDictionary.CreateBuilder<string, Value>(StringComparer.Ordinal);
        var mistakes = ImmutableArray.CreateBuilder<string>();
        int? id = null;
        string? workflow = null;
        string? stage = null;
        foreach (var (column, cell) in columns.Zip(cells))
        {
            switch (column.Header)
            {
                case Number:
                    id = int.TryParse(cell, NumberStyles.None, CultureInfo.InvariantCulture, out var number) ? number : null;
                    if (id is null && !string.IsNullOrWhiteSpace(cell))
                    {
                        mistakes.Add($"“{Checking.ProblemList.Shorten(cell)}” is not the number of a record.");
                    }

                    break;
                case "workflow":
                    workflow = string.IsNullOrWhiteSpace(cell) ? null : cell.Trim();
                    break;
                case "stage":
                    stage = string.IsNullOrWhiteSpace(cell) ? null : cell.Trim();
                    break;
                default:
                    if (column.Parse(cell, values.GetValueOrDefault(column.Field.Key) ?? Value.Blank) is { } value)
                    {
                        values[column.Field.Key] = value;
                    }
                    else
                    {
                        mistakes.Add($"{column.Field.Label} cannot hold “{Checking.ProblemList.Shorten(cell)}”. Give {column.Field.Type.Noun}.");
                    }

                    break;
            }
        }

        return new(line, id, workflow, stage, values.ToImmutable(), mistakes.ToImmutable());
    }

    /// <summary>A spreadsheet would take text that begins so for a formula.</summary>
    private static string Harmless(string cell) =>
        cell.Length > 0 && cell[0] is '=' or '+' or '@' or '\t' or '\r' || (cell.Length > 1 && cell[0] == '-' && !decimal.TryParse(cell, CultureInfo.InvariantCulture, out _))
            ? "'" + cell : cell;

    private static IEnumerable<Column> Columns(Field field) => field.Type is CompoundType compound
        ? compound.Parts.Select(part => new Column($"{field.Key}.{part.Key}", field, part.Key))
        : [new Column(field.Key, field, null)];

    private static Column? Find(RecordType type, string header)
    {
        if (header is Number or "workflow" or "stage")
        {
            return new(header, type.Fields[0], null);
        }

        var columns = type.Fields.SelectMany(Columns).ToList();
        return columns.Find(c => c.Header == header)
            ?? (columns.FindAll(c => c.Part is null && string.Equals(c.Field.Label, header, StringComparison.OrdinalIgnoreCase)) is [var only] ? only : null);
    }

    private sealed record Column(string Header, Field Field, string? Part)
    {
        internal string Print(Value value) => (value, Part) switch
        {
            (Compound compound, { } part) => compound[part].Plain,
            (_, { }) => "",
            _ => value.Plain,
        };

        /// <summary>The value of the whole field after this cell was read; null where the cell cannot be read.</summary>
        internal Value? Parse(string cell, Value before)
        {
            // What was written harmless is read back as it was.
            var text = cell.Length > 1 && cell[0] == '\'' && cell[1] is '=' or '+' or '@' or '-' or '\t' or '\r' ? cell[1..] : cell;
            if (Part is not null)
            {
                return (before as Compound ?? Compound.Empty).With(Part, new Text(text));
            }

            var trimmed = text.Trim();
            return trimmed.Length == 0 ? Value.Blank : Field.Type switch
            {
                YesNoType => trimmed.ToUpperInvariant() switch
                {
                    "YES" or "TRUE" or "1" => new YesNo(true),
                    "NO" or "FALSE" or "0" => new YesNo(false),
                    _ => null,
                },
                NumberType or MoneyType or LinkType => decimal.TryParse(trimmed, NumberStyles.Number, CultureInfo.InvariantCulture, out var number)
                    ? Field.Type.Fit(new Number(number)) : null,
                ChoicesType several => Fit(several, [.. trimmed.Split(';', StringSplitOptions.TrimEntries | StringSplitOptions.RemoveEmptyEntries).Select(item => Key(several.Options, item))]),
                ChoiceType choice => choice.Fit(new Text(Key(choice.Options, trimmed))),
                _ => Field.Type.Fit(new Text(text)),
            };
        }

        private static Value? Fit(ChoicesType type, ImmutableArray<string> keys) => type.Fit(new Choices([.. keys.Distinct(StringComparer.Ordinal)]));

        private static string Key(ImmutableArray<Option> options, string item) => options.Any(o => o.Key == item)
            ? item
            : options.FirstOrDefault(o => string.Equals(o.Label, item, StringComparison.OrdinalIgnoreCase))?.Key ?? item;
    }
}

/// <summary>A record as a row of a table.</summary>
public sealed record RecordRow(int? Id, string Workflow, string Stage, RecordValues Values);

/// <summary>A row as it was read.</summary>
/// <param name="Line">The line of the file on which it begins, from 1.</param>
/// <param name="Id">The record's number; null for a record to be begun.</param>
/// <param name="Workflow">Key of the workflow, where the file names it.</param>
/// <param name="Stage">Key of the stage, where the file names it; a record that is imported comes to a stage by moves all the same.</param>
/// <param name="Values">The values of all columns that are there.</param>
/// <param name="Mistakes">What in it cannot be read, each as a sentence.</param>
public sealed record ReadRow(
    int Line, int? Id, string? Workflow, string? Stage, ImmutableDictionary<string, Value> Values, ImmutableArray<string> Mistakes);

/// <summary>What came of importing records.</summary>
public sealed record ImportReport(int Imported, int Refused, ImmutableArray<RowReport> Rows)
{
    /// <summary>Counts the rows.</summary>
    public static ImportReport Of(IEnumerable<RowReport> rows)
    {
        ImmutableArray<RowReport> all = [.. rows];
        return new(all.Count(r => r.Reasons.IsEmpty), all.Count(r => !r.Reasons.IsEmpty), all);
    }
}

/// <summary>What came of one row: the record it became, or all reasons why not.</summary>
public sealed record RowReport(int Line, int? Record, ImmutableArray<string> Reasons);
