using System.Collections.Immutable;
using System.Globalization;
using System.Threading;
using CsvHelper;
using CsvHelper.Configuration;
using Dibujo.Core.Notations;
using Dibujo.Core.Records;
using Dibujo.Core.Values;

namespace Dibujo.Core.Csv;

/// <summary>Records as comma-separated values (RFC 4180): a column for each field, a part for each column of a compound one.</summary>
/// <remarks>
/// The first line names the columns by key, or by label where that is unique; <c>id</c>, <c>version</c>, <c>workflow</c> and
/// <c>stage</c> go with a record. What stands under a key is read as it is written here, and where it is not written so, as what stands under a label:
/// as whoever sends the file writes (see <see cref="NotationReading"/>).
/// </remarks>
public static class RecordTable
{
    /// <summary>The column with the record's number; blank for a record that is to be begun.</summary>
    public const string Number = "id";

    /// <summary>The column with the version that the record had, so that a later save is not overwritten unseen.</summary>
    public const string Version = "version";

    /// <summary>A column that files with refused rows have: it is passed over, so that they can be mended and sent again.</summary>
    public const string WhyRefused = "why refused";

    private const string Workflow = "workflow";
    private const string Stage = "stage";
    private const int MostRows = 100_000;
    private const int MostColumns = 2000;

    /// <summary>The columns that go with every record, before those of its fields.</summary>
    private static readonly string[] Own = [Number, Version, Workflow, Stage];

    /// <summary>What people call them.</summary>
    private static readonly (string Label, string Header)[] OwnLabels = [("No.", Number), ("Number", Number), ("Version", Version), ("Workflow", Workflow), ("Stage", Stage)];

    private static readonly CsvConfiguration Format = new(CultureInfo.InvariantCulture)
    {
        MissingFieldFound = null,
        DetectColumnCountChanges = false,
        MaxFieldSize = 200_000,
    };

    /// <summary>Writes the records in the order in which they come, each as soon as it comes.</summary>
    /// <param name="type">The record type.</param>
    /// <param name="rows">The records.</param>
    /// <param name="to">Where they are written.</param>
    /// <param name="writing">For people, as they write, under labels; null for programs, under keys.</param>
    /// <param name="cancellation">Ends it.</param>
    public static async Task WriteAsync(RecordType type, IAsyncEnumerable<RecordRow> rows, TextWriter to, TableReading? writing = null, CancellationToken cancellation = default)
    {
        await using var csv = new CsvWriter(to, Format, leaveOpen: true);
        var columns = writing is null ? type.Fields.SelectMany(Columns).ToList() : [.. type.Fields.Select(field => new RecordColumn(field.Key, field, null, IsByKey: false))];
        foreach (var header in writing is null ? [.. Own, .. columns.Select(c => c.Header)] : HeadersOf(type))
        {
            csv.WriteField(header);
        }

        await csv.NextRecordAsync();
        await foreach (var row in rows.WithCancellation(cancellation))
        {
            csv.WriteField(row.Id?.ToString(CultureInfo.InvariantCulture));
            csv.WriteField(row.Version?.ToString(CultureInfo.InvariantCulture));
            csv.WriteField(writing is null ? row.Workflow : type.FindWorkflow(row.Workflow)?.Label ?? row.Workflow);
            csv.WriteField(writing is null ? row.Stage : type.FindStage(row.Stage)?.Label ?? row.Stage);
            foreach (var column in columns)
            {
                var value = row.Values[column.Field.Key];
                csv.WriteField(writing is null ? column.Print(value) : HarmlessCell.Of(writing.Notation.Write(value, column.Field.Type, writing.Names)));
            }

            await csv.NextRecordAsync();
        }
    }

    /// <summary>What the columns are called for people: those that go with every record, and then one for each field, in the record type's order.</summary>
    public static ImmutableArray<string> HeadersOf(RecordType type) => [.. Own.Select(own => HeaderOf(type, own)), .. type.Fields.Select(field => HeaderOf(type, field))];

    /// <summary>What a field is called for people; its key where its label would be taken for something else.</summary>
    private static string HeaderOf(RecordType type, Field field) => Find(type, field.Label)?.Field == field && Find(type, field.Label)?.Header is not (Number or Version or Workflow or Stage) ? field.Label : field.Key;

    /// <summary>What one of the columns that go with every record is called for people; its key where a field is called so.</summary>
    private static string HeaderOf(RecordType type, string own)
    {
        var label = Array.Find(OwnLabels, known => known.Header == own).Label;
        return Find(type, label)?.Header == own ? label : own;
    }

    /// <summary>The rows of a file of separated values; see <see cref="SeparatedText"/>.</summary>
    /// <param name="type">The record type.</param>
    /// <param name="file">The file.</param>
    /// <param name="reading">How whoever sends it writes, and what is called how.</param>
    public static RowsRead Read(RecordType type, ReadOnlySpan<byte> file, TableReading? reading = null)
    {
        if (SeparatedText.Decode(file) is not { } decoded)
        {
            return RowsRead.No("The file is no text and no workbook. Save it as “CSV UTF-8”, or as a workbook (.xlsx).");
        }

        try
        {
            return Read(type, SeparatedText.Rows(decoded.Text), reading) with { Encoding = decoded.IsGuessed ? decoded.Encoding : null };
        }
        catch (CsvHelperException mistake)
        {
            return RowsRead.No($"The file cannot be read as separated values near line {mistake.Context?.Parser?.RawRow ?? 1}. Check its quotation marks.");
        }
    }

    /// <summary>The rows of a text.</summary>
    public static RowsRead Read(RecordType type, string text, TableReading? reading = null) => Read(type, System.Text.Encoding.UTF8.GetBytes(text), reading);

    /// <summary>The rows of a table whose first row names the columns, each with what in it cannot be read; or what keeps the whole from being read.</summary>
    public static RowsRead Read(RecordType type, IEnumerable<(int Line, string[] Cells)> table, TableReading? reading = null)
    {
        List<RecordColumn>? columns = null;
        string[] headers = [];
        var rows = ImmutableArray.CreateBuilder<ReadRow>();
        foreach (var (line, cells) in table)
        {
            if (columns is null)
            {
                if (cells.Length > MostColumns)
                {
                    return RowsRead.No($"The file has more than {MostColumns} columns. Leave out those that are of no field.");
                }

                if (!Array.Exists(cells, cell => !string.IsNullOrWhiteSpace(cell)))
                {
                    continue;
                }

                (columns, var mistake) = ColumnsOf(type, cells);
                headers = cells;
                if (columns is null)
                {
                    return RowsRead.No(mistake!);
                }
            }
            else if (rows.Count == MostRows)
            {
                return RowsRead.No(string.Create(CultureInfo.InvariantCulture, $"The file has more than {MostRows:N0} rows. Divide it, and name the columns in each part."));
            }
            else if (Array.Exists(cells, cell => !string.IsNullOrWhiteSpace(cell)))
            {
                rows.Add(ReadRowOf(type, line, columns, cells, reading ?? TableReading.Plain));
            }
        }

        return columns is null ? RowsRead.No("The file has no line that names its columns. Begin it with the keys or labels of fields.") : new(rows.ToImmutable(), null) { Headers = [.. headers] };
    }

    private static (List<RecordColumn>? Columns, string? Mistake) ColumnsOf(RecordType type, string[] headers)
    {
        // Columns without a name are of nothing.
        var last = Array.FindLastIndex(headers, header => !string.IsNullOrWhiteSpace(header));
        List<RecordColumn?> columns = [.. headers.Take(last + 1).Select(header => Find(type, header.Trim().TrimStart('\uFEFF')))];
        return columns.FindIndex(c => c is null) is >= 0 and var unknown ? (null, $"There is no field “{Excerpt.Of(headers[unknown])}”. Name columns by the keys or labels of fields.")
            : columns.GroupBy(c => (c!.Header is Number or Version or Workflow or Stage or WhyRefused ? c.Header : $"{c.Field.Key} {c.Part}")).FirstOrDefault(same => same.Count() > 1) is { } twice
                ? (null, $"Two columns are of “{twice.First()!.Header}”. Take one of them out: only one could count.")
            : ([.. columns.OfType<RecordColumn>()], null);
    }

    private static ReadRow ReadRowOf(RecordType type, int line, List<RecordColumn> columns, string[] cells, TableReading reading)
    {
        var values = ImmutableDictionary.CreateBuilder<string, Value>(StringComparer.Ordinal);
        var mistakes = ImmutableArray.CreateBuilder<string>();
        // What is blank beyond the columns is what spreadsheets do.
        if (cells.Length < columns.Count || cells.Skip(columns.Count).Any(cell => !string.IsNullOrWhiteSpace(cell)))
        {
            mistakes.Add($"The row has {cells.Length} cells, but there are {columns.Count} columns. A cell in which stands what parts them stands in quotation marks.");
        }

        int? id = null;
        int? version = null;
        string? workflow = null;
        string? stage = null;
        foreach (var (column, cell) in columns.Zip(cells))
        {
            switch (column.Header)
            {
                case Number:
                    id = Whole(cell, "the number of a record");
                    break;
                case Version:
                    version = Whole(cell, "the version of a record");
                    break;
                case WhyRefused:
                    break;
                case Workflow:
                    workflow = Called(type.Workflows.Select(one => (one.Key, one.Label)), cell);
                    break;
                case Stage:
                    stage = Called(type.Workflows.SelectMany(one => one.Stages).Select(one => (one.Key, one.Label)), cell);
                    break;
                default:
                    switch (column.Read(cell, values.GetValueOrDefault(column.Field.Key) ?? Value.Blank, reading.Notation, reading.Names, reading.Today))
                    {
                        case Reading.Of { Value: var value }:
                            values[column.Field.Key] = value;
                            break;
                        case Reading.Open open:
                            mistakes.Add($"{column.Field.Label}: {open.Question(Excerpt.Of(cell.Trim()))}");
                            break;
                        default:
                            mistakes.Add($"{column.Field.Label} cannot hold “{Excerpt.Of(cell)}”. Give {column.Field.Type.Noun}.");
                            break;
                    }

                    break;
            }
        }

        return new(line, id, version, workflow, stage, values.ToImmutable(), mistakes.ToImmutable()) { Cells = [.. cells] };

        int? Whole(string cell, string what)
        {
            int? found = int.TryParse(cell.Trim(), NumberStyles.None, CultureInfo.InvariantCulture, out var number) ? number : null;
            if (found is null && !string.IsNullOrWhiteSpace(cell))
            {
                mistakes.Add($"“{Excerpt.Of(cell)}” is not {what}.");
            }

            return found;
        }
    }

    /// <summary>Writes rows as they came, each with why it was refused, to be mended and sent again.</summary>
    public static async Task WriteRefusedAsync(IReadOnlyList<string> headers, IEnumerable<(IReadOnlyList<string> Cells, IEnumerable<string> Reasons)> rows, TextWriter to)
    {
        await using var csv = new CsvWriter(to, Format, leaveOpen: true);
        var why = headers.ToList().FindIndex(header => header.Trim() == WhyRefused);
        Write(headers, WhyRefused);
        foreach (var (cells, reasons) in rows)
        {
            Write(cells, string.Join(' ', reasons));
        }

        await csv.FlushAsync();

        void Write(IReadOnlyList<string> cells, string last)
        {
            for (var at = 0; at < headers.Count; at++)
            {
                if (at != why)
                {
                    csv.WriteField(at < cells.Count ? cells[at] : "");
                }
            }

            csv.WriteField(last);
            csv.NextRecord();
        }
    }

    private static IEnumerable<RecordColumn> Columns(Field field) => field.Type is CompoundType compound
        ? compound.Parts.Select(part => new RecordColumn($"{field.Key}.{part.Key}", field, part.Key))
        : [new RecordColumn(field.Key, field, null)];

    /// <summary>The key of what is called so, by key or label; what nothing is called stays as it is; null for a blank.</summary>
    private static string? Called(IEnumerable<(string Key, string Label)> known, string cell)
    {
        var name = cell.Trim();
        var all = known.ToList();
        return name.Length == 0 ? null
            : all.Exists(one => one.Key == name) ? name
            : all.Find(one => FoldedText.Of(one.Label) == FoldedText.Of(name)).Key ?? name;
    }

    /// <summary>The column that is called so: by a key, or by a label that only one field has.</summary>
    private static RecordColumn? Find(RecordType type, string header)
    {
        if (Own.Contains(header, StringComparer.Ordinal) || header == WhyRefused)
        {
            return new(header, type.Fields[0], null);
        }

        if (type.Fields.SelectMany(Columns).FirstOrDefault(c => c.Header == header) is { } byKey)
        {
            return byKey;
        }

        var fields = type.Fields.Where(field => FoldedText.Of(field.Label) == FoldedText.Of(header)).ToList();
        return type.Find(header) is { } whole ? new(header, whole, null)
            : fields is [var only] ? new(header, only, null, IsByKey: false)
            : fields.Count == 0 && Array.Find(OwnLabels, own => string.Equals(own.Label, header, StringComparison.OrdinalIgnoreCase)) is { Header: { } known } ? new(known, type.Fields[0], null)
            : null;
    }
}

/// <summary>A record as a row of a table.</summary>
public sealed record RecordRow(int? Id, int? Version, string Workflow, string Stage, RecordValues Values);
