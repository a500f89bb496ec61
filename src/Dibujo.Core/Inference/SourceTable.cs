using System.Collections.Immutable;
using System.Globalization;
using CsvHelper;
using Dibujo.Core.Csv;

namespace Dibujo.Core.Inference;

/// <summary>A table of cells as it came: headings, and the rows below them, each as long as the headings.</summary>
public sealed record SourceTable(ImmutableArray<string> Headers, IReadOnlyList<string[]> Rows)
{
    /// <summary>The most rows that are taken at once.</summary>
    public const int MostRows = 100_000;

    /// <summary>The most columns that are taken.</summary>
    public const int MostColumns = 300;

    /// <summary>The most cells that are looked at, blank ones too.</summary>
    private const int MostCells = 8_000_000;

    /// <summary>The most separators in a line: they may stand in a text as well.</summary>
    private const int MostSeparators = 50_000;

    /// <summary>Reads separated values, whatever separates them: a comma, a semicolon, a tab or a bar. Or says why they cannot be read.</summary>
    public static (SourceTable? Table, string? Mistake) Read(ReadOnlySpan<byte> file)
    {
        if (Overlong(file) is { } overlong)
        {
            return (null, string.Create(CultureInfo.InvariantCulture, $"Line {overlong} has more than {MostSeparators:N0} commas, semicolons, tabs or bars. A record type takes at most {MostColumns} columns; divide it."));
        }

        if (SeparatedText.Decode(file) is not { Text: var text })
        {
            return (null, "The file is neither a workbook (.xlsx) nor text. Save it as a workbook or as “CSV UTF-8”.");
        }

        try
        {
            var rows = new List<string[]>();
            var cells = 0;
            foreach (var (line, row) in SeparatedText.Rows(text))
            {
                rows.Add([.. row]);
                cells += row.Length;
                if (cells > MostCells)
                {
                    return (null, string.Create(CultureInfo.InvariantCulture, $"It has more than {MostCells:N0} cells by line {line}, blank ones among them. Divide it, or take out columns in which nothing stands."));
                }

                if (rows.Count > MostRows + 1)
                {
                    return TooLong();
                }
            }

            return Of(rows);
        }
        catch (CsvHelperException mistake)
        {
            return (null, $"The file cannot be read near line {mistake.Context?.Parser?.RawRow ?? 1}. Check its quotation marks.");
        }
    }

    /// <summary>A table of rows of which the first that says anything is the headings. Columns without a heading and without any cell are left out.</summary>
    public static (SourceTable? Table, string? Mistake) Of(IEnumerable<string[]> cells)
    {
        List<string[]> rows = [.. cells.SkipWhile(IsEmpty)];
        if (rows.Count == 0)
        {
            return (null, "There is nothing in it. The first row names the columns, the others are records.");
        }

        if (rows.Count > MostRows + 1)
        {
            return TooLong();
        }

        var columns = Enumerable.Range(0, rows.Max(row => row.Length)).Where(column => rows.Exists(row => column < row.Length && !string.IsNullOrWhiteSpace(row[column]))).ToArray();
        if (columns.Length > MostColumns)
        {
            return (null, $"It has {columns.Length} columns; a record type takes at most {MostColumns}. Divide it.");
        }

        var taken = new HashSet<string>(StringComparer.OrdinalIgnoreCase);
        return (new(
            [.. columns.Select((column, i) => Heading(column < rows[0].Length ? rows[0][column].Trim() : "", i, taken))],
            [.. rows.Skip(1).Where(row => !IsEmpty(row)).Select(row => Array.ConvertAll(columns, column => column < row.Length ? row[column] : ""))]), null);
    }

    /// <summary>The cells of one column, from the top.</summary>
    public IReadOnlyList<string> Column(int at) => [.. Rows.Select(row => row[at])];

    /// <summary>The first line, from 1, with more separators than any table has; null for none.</summary>
    private static int? Overlong(ReadOnlySpan<byte> file)
    {
        var number = 0;
        foreach (var range in file.Split((byte)'\n'))
        {
            number++;
            var line = file[range];
            if (line.Length > MostSeparators && line.Count((byte)',') + line.Count((byte)';') + line.Count((byte)'\t') + line.Count((byte)'|') > MostSeparators)
            {
                return number;
            }
        }

        return null;
    }

    private static bool IsEmpty(string[] row) => Array.TrueForAll(row, string.IsNullOrWhiteSpace);

    private static (SourceTable? Table, string? Mistake) TooLong() =>
        (null, string.Create(CultureInfo.InvariantCulture, $"It has more than {MostRows:N0} rows. Divide it, and take the parts in one after another."));

    /// <summary>A heading unlike those before it.</summary>
    private static string Heading(string text, int at, HashSet<string> taken)
    {
        var start = text.Length == 0 ? string.Create(CultureInfo.InvariantCulture, $"Column {at + 1}") : string.Join(' ', text.Split((char[]?)null, StringSplitOptions.RemoveEmptyEntries));
        start = start[..Math.Min(start.Length, 100)];
        var heading = start;
        for (var number = 2; !taken.Add(heading); number++)
        {
            heading = string.Create(CultureInfo.InvariantCulture, $"{start} {number}");
        }

        return heading;
    }
}
