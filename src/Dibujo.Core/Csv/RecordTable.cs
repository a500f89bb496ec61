using System.Collections.Immutable;
using System.Globalization;
using System.Text;
using System.Threading;
using CsvHelper;
using CsvHelper.Configuration;
using Dibujo.Core.Records;
using Dibujo.Core.Values;

namespace Dibujo.Core.Csv;

/// <summary>Records as comma-separated values (RFC 4180): a column for each field, a part for each column of a compound one.</summary>
/// <remarks>
/// The first line names the columns by key, or by label where that is unique; <c>id</c>, <c>version</c>, <c>workflow</c> and
/// <c>stage</c> go with a record. Choices stand by key or label, several with semicolons between, yes and no in words.
/// </remarks>
public static class RecordTable
{
    /// <summary>The column with the record's number; blank for a record that is to be begun.</summary>
    public const string Number = "id";

    /// <summary>The column with the version that the record had, so that a later save is not overwritten unseen.</summary>
    public const string Version = "version";

    /// <summary>A column that files with refused rows have: it is passed over, so that they can be mended and sent again.</summary>
    public const string WhyRefused = "why refused";

    private const int MostRows = 100_000;
    private const int MostColumns = 2000;

    /// <summary>The columns that go with every record, before those of its fields.</summary>
    private static readonly string[] Own = [Number, Version, "workflow", "stage"];

    private static readonly UTF8Encoding StrictUtf8 = new(encoderShouldEmitUTF8Identifier: false, throwOnInvalidBytes: true);

    private static readonly CsvConfiguration Format = new(CultureInfo.InvariantCulture)
    {
        MissingFieldFound = null,
        DetectColumnCountChanges = false,
        MaxFieldSize = 200_000,
    };

    /// <summary>Writes the records in the order in which they come, each as soon as it comes.</summary>
    public static async Task WriteAsync(RecordType type, IAsyncEnumerable<RecordRow> rows, TextWriter to, CancellationToken cancellation = default)
    {
        await using var csv = new CsvWriter(to, Format, leaveOpen: true);
        var columns = type.Fields.SelectMany(Columns).ToList();
        foreach (var header in (string[])[.. Own, .. columns.Select(c => c.Header)])
        {
            csv.WriteField(header);
        }

        await csv.NextRecordAsync();
        await foreach (var row in rows.WithCancellation(cancellation))
        {
            csv.WriteField(row.Id?.ToString(CultureInfo.InvariantCulture));
            csv.WriteField(row.Version?.ToString(CultureInfo.InvariantCulture));
            csv.WriteField(row.Workflow);
            csv.WriteField(row.Stage);
            foreach (var column in columns)
            {
                csv.WriteField(column.Print(row.Values[column.Field.Key]));
            }

            await csv.NextRecordAsync();
        }
    }

    /// <summary>The same of a file, which must be UTF-8: what is not would come in as other letters.</summary>
    public static (ImmutableArray<ReadRow> Rows, string? Mistake) Read(RecordType type, ReadOnlySpan<byte> file)
    {
        try
        {
            return Read(type, StrictUtf8.GetString(file));
        }
        catch (DecoderFallbackException mistake)
        {
            var line = file[..Math.Clamp(mistake.Index, 0, file.Length)].Count((byte)'\n') + 1;
            return ([], $"The file is not UTF-8: line {line} has a letter in another encoding. Save it as “CSV UTF-8”.");
        }
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
                return ([], $"There is no field “{Excerpt.Of(headers[unknown])}”. Name columns by the keys or labels of fields.");
            }

            if (columns.GroupBy(c => c!.Header).FirstOrDefault(same => same.Count() > 1) is { Key: var twice })
            {
                return ([], $"Two columns are of “{twice}”. Take one of them out: only one could count.");
            }

            var rows = ImmutableArray.CreateBuilder<ReadRow>();
            while (csv.Read())
            {
                if (rows.Count == MostRows)
                {
                    return ([], string.Create(CultureInfo.InvariantCulture, $"The file has more than {MostRows:N0} rows. Divide it, and name the columns in each part."));
                }

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

    private static ReadRow ReadRowOf(int line, List<RecordColumn> columns, string[] cells)
    {
        var values = ImmutableDictionary.CreateBuilder<string, Value>(StringComparer.Ordinal);
        var mistakes = ImmutableArray.CreateBuilder<string>();
        if (cells.Length != columns.Count)
        {
            mistakes.Add($"The row has {cells.Length} cells, but there are {columns.Count} columns. A cell with a comma or a quotation mark in it stands in quotation marks.");
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
                    id = int.TryParse(cell, NumberStyles.None, CultureInfo.InvariantCulture, out var number) ? number : null;
                    if (id is null && !string.IsNullOrWhiteSpace(cell))
                    {
                        mistakes.Add($"“{Excerpt.Of(cell)}” is not the number of a record.");
                    }

                    break;
                case Version:
                    version = int.TryParse(cell, NumberStyles.None, CultureInfo.InvariantCulture, out var counted) ? counted : null;
                    if (version is null && !string.IsNullOrWhiteSpace(cell))
                    {
                        mistakes.Add($"“{Excerpt.Of(cell)}” is not the version of a record.");
                    }

                    break;
                case WhyRefused:
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
                        mistakes.Add($"{column.Field.Label} cannot hold “{Excerpt.Of(cell)}”. Give {column.Field.Type.Noun}.");
                    }

                    break;
            }
        }

        return new(line, id, version, workflow, stage, values.ToImmutable(), mistakes.ToImmutable());
    }

    private static IEnumerable<RecordColumn> Columns(Field field) => field.Type is CompoundType compound
        ? compound.Parts.Select(part => new RecordColumn($"{field.Key}.{part.Key}", field, part.Key))
        : [new RecordColumn(field.Key, field, null)];

    private static RecordColumn? Find(RecordType type, string header)
    {
        if (Own.Contains(header, StringComparer.Ordinal) || header == WhyRefused)
        {
            return new(header, type.Fields[0], null);
        }

        var columns = type.Fields.SelectMany(Columns).ToList();
        return columns.Find(c => c.Header == header)
            ?? (columns.FindAll(c => c.Part is null && string.Equals(c.Field.Label, header, StringComparison.OrdinalIgnoreCase)) is [var only] ? only : null);
    }
}

/// <summary>A record as a row of a table.</summary>
public sealed record RecordRow(int? Id, int? Version, string Workflow, string Stage, RecordValues Values);
