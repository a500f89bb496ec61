using System.Buffers.Binary;
using System.Globalization;
using System.IO.Compression;
using System.Xml;
using System.Xml.Linq;
using Dibujo.Core.Inference;

namespace Dibujo.Server.Tables;

/// <summary>
/// How far a sheet goes, found by going through the file once without keeping any of it: whatever a workbook claims, nothing is read that
/// does not fit into memory. What stands too far away, or is too long, is named with its sheet and cell.
/// </summary>
/// <param name="Sheets">The names of all sheets, in their order.</param>
/// <param name="Sheet">The name of the one that is read.</param>
/// <param name="Columns">How many columns there are up to the last with a value in it.</param>
/// <param name="Rows">How many rows there are up to the last with a value in it.</param>
internal sealed record WorkbookBounds(IReadOnlyList<string> Sheets, string Sheet, int Columns, int Rows)
{
    /// <summary>Beyond what a record type takes, so that some columns may stand apart.</summary>
    private const int MostColumns = 4 * SourceTable.MostColumns;

    /// <summary>Bytes of a text: a spreadsheet's own limit is 32,767 characters.</summary>
    private const int LongestText = 200_000;

    /// <summary>Bytes of the file's table of contents.</summary>
    private const int LargestContents = 1024 * 1024;

    /// <summary>Bytes, unpacked, of each part that is not a sheet or the texts of all of them.</summary>
    private const long LargestPart = 16 * 1024 * 1024;

    /// <summary>Bytes of the texts of all sheets, unpacked.</summary>
    private const long LargestTexts = 64 * 1024 * 1024;

    /// <summary>Bytes of all sheets together, unpacked.</summary>
    private const long LargestSheets = 256 * 1024 * 1024;

    /// <summary>Bytes of a part that is too large in which it is still looked for what makes it so.</summary>
    private const long Glance = 32 * 1024 * 1024;

    /// <summary>Looks at a sheet.</summary>
    /// <param name="file">The workbook.</param>
    /// <param name="sheet">Name of the sheet; null for the first.</param>
    /// <returns>How far it goes; or why it is not read, as a sentence.</returns>
    /// <exception cref="InvalidDataException">It is no workbook.</exception>
    internal static (WorkbookBounds? Bounds, string? Mistake) Of(byte[] file, string? sheet)
    {
        DemandContents(file);
        using var archive = new ZipArchive(new MemoryStream(file), ZipArchiveMode.Read);
        var parts = Part(archive, "xl/_rels/workbook.xml.rels").Descendants().Where(e => e.Name.LocalName == "Relationship")
            .ToDictionary(e => (string)e.Attribute("Id")!, e => Path((string)e.Attribute("Target")!), StringComparer.Ordinal);
        var sheets = Part(archive, "xl/workbook.xml").Descendants().Where(e => e.Name.LocalName == "sheet")
            .Select(e => (Name: (string)e.Attribute("name")!, Part: parts[(string)e.Attributes().First(a => a.Name.LocalName == "id" && a.Name.NamespaceName.Length > 0)!])).ToList();
        var chosen = sheet is null ? sheets[0] : sheets.Find(one => one.Name == sheet) is { Name: not null } found ? found : sheets[0];
        var data = archive.GetEntry(chosen.Part) ?? throw new InvalidDataException("A sheet is missing.");
        var texts = archive.Entries.FirstOrDefault(entry => entry.FullName.EndsWith("/sharedStrings.xml", StringComparison.OrdinalIgnoreCase));
        if (archive.Entries.FirstOrDefault(entry => entry.Length > LargestPart && entry != texts && IsRead(entry) && sheets.TrueForAll(one => one.Part != entry.FullName)) is { } part)
        {
            return (null, $"Its part {part.FullName} unpacks to {Size(part.Length)}. Copy what you need into a new workbook, and try that.");
        }

        var longText = texts is null ? null : LongText(texts);
        var (bounds, mistake) = Look(data, chosen.Name, longText, sheets.ConvertAll(one => one.Name));
        if (mistake is not null)
        {
            return (null, mistake);
        }

        if (longText is not null || texts?.Length > LargestTexts)
        {
            return (null, $"The texts in its cells unpack to {Size(texts!.Length)}{(longText is null ? "" : ", and one of them is far longer than a spreadsheet takes")}. Divide the workbook.");
        }

        var all = sheets.Select(one => archive.GetEntry(one.Part)?.Length ?? 0).Sum();
        return all > LargestSheets ? (null, $"Its sheets unpack to {Size(all)}. Copy the one that you need into a new workbook, and try that.") : (bounds, null);
    }

    /// <summary>Goes through the sheet, no further than to what it is refused for.</summary>
    private static (WorkbookBounds? Bounds, string? Mistake) Look(ZipArchiveEntry data, string name, int? longText, List<string> sheets)
    {
        using var stream = data.Open();
        var scanner = new MarkupScanner(stream, data.Length > LargestSheets ? Glance : LargestSheets);
        var (row, column, rows, columns, isShared) = (0, 0, 0, 0, false);
        while (scanner.Next())
        {
            switch (scanner.Name)
            {
                case "row":
                    (row, column) = (Number(scanner.Attribute("r")) ?? row + 1, 0);
                    break;
                case "c":
                    column++;
                    if (scanner.Attribute("r") is { } cell)
                    {
                        var letters = cell.AsSpan().TrimEnd("0123456789");
                        column = letters.Length is > 0 and <= 3 ? ColumnOf(letters) : column;
                        row = Number(cell.AsSpan(letters.Length)) ?? row;
                    }

                    isShared = scanner.Attribute("t") == "s";
                    break;
                case "/v" or "/t" when scanner.TextLength > 0:
                    if (scanner.TextLength > LongestText || (isShared && longText is not null && Number(scanner.Text) == longText))
                    {
                        return (null, $"In the sheet “{name}” the cell {Cell(column, row)} holds a text that is far longer than a spreadsheet takes. Shorten it, and try again.");
                    }

                    (columns, rows) = (Math.Max(columns, column), Math.Max(rows, row));
                    if (column > MostColumns)
                    {
                        return (null, $"In the sheet “{name}” something stands in the cell {Cell(column, row)}. A record type takes at most {SourceTable.MostColumns} columns: delete what stands to the right of the table, and try again.");
                    }

                    if (row > SourceTable.MostRows + 1)
                    {
                        return (null, string.Create(CultureInfo.InvariantCulture, $"In the sheet “{name}” something stands in the cell {Cell(column, row)}. At most {SourceTable.MostRows:N0} rows are taken at once: delete what stands below the table, or divide it."));
                    }

                    break;
            }
        }

        return scanner.TextLength > LongestText
            ? (null, $"In the sheet “{name}” the cell {Cell(column, row)} holds a text that is far longer than a spreadsheet takes. Shorten it, and try again.")
            : scanner.IsCut ? (null, $"The sheet “{name}” unpacks to {Size(data.Length)}, beyond the cell {Cell(column, row)}. Divide it, and try again.")
            : (new(sheets, name, columns, rows), null);
    }

    /// <summary>The place, among the texts that cells share, of the first that is too long; null for none.</summary>
    private static int? LongText(ZipArchiveEntry texts)
    {
        using var stream = texts.Open();
        var scanner = new MarkupScanner(stream, texts.Length > LargestTexts ? Glance : LargestTexts);
        var item = -1;
        while (scanner.Next())
        {
            item += scanner.Name == "si" ? 1 : 0;
            if (scanner.TextLength > LongestText)
            {
                return item;
            }
        }

        return scanner.TextLength > LongestText ? item : null;
    }

    /// <summary>Whoever opens the file reads its whole table of contents first, whatever it says of its length.</summary>
    private static void DemandContents(byte[] file)
    {
        var end = file.AsSpan().LastIndexOf("PK\x05\x06"u8);
        if (end < 0 || end + 22 > file.Length || BinaryPrimitives.ReadUInt32LittleEndian(file.AsSpan(end + 16)) is var from && (from > end || end - from > LargestContents))
        {
            throw new InvalidDataException("The table of contents is missing, or longer than a workbook's.");
        }
    }

    /// <summary>Whether the part is one that is read at all: pictures and what macros there are stay packed.</summary>
    private static bool IsRead(ZipArchiveEntry entry) =>
        entry.FullName.EndsWith(".xml", StringComparison.OrdinalIgnoreCase) || entry.FullName.EndsWith(".rels", StringComparison.OrdinalIgnoreCase);

    private static XDocument Part(ZipArchive archive, string name)
    {
        if (archive.GetEntry(name) is not { Length: <= LargestContents } entry)
        {
            throw new InvalidDataException($"{name} is missing, or larger than a workbook's.");
        }

        using var stream = entry.Open();
        using var reader = XmlReader.Create(stream, new() { DtdProcessing = DtdProcessing.Prohibit, XmlResolver = null });
        return XDocument.Load(reader);
    }

    private static string Path(string target) => target.StartsWith('/') ? target[1..] : $"xl/{target}";

    private static int? Number(ReadOnlySpan<char> text) => int.TryParse(text, NumberStyles.None, CultureInfo.InvariantCulture, out var number) ? number : null;

    private static int ColumnOf(ReadOnlySpan<char> letters)
    {
        var column = 0;
        foreach (var letter in letters)
        {
            column = (column * 26) + (char.ToUpperInvariant(letter) - 'A' + 1);
        }

        return column;
    }

    private static string Cell(int column, int row)
    {
        var letters = "";
        for (; column > 0; column = (column - 1) / 26)
        {
            letters = (char)('A' + ((column - 1) % 26)) + letters;
        }

        return string.Create(CultureInfo.InvariantCulture, $"{letters}{row}");
    }

    private static string Size(long bytes) => string.Create(CultureInfo.InvariantCulture, $"{bytes / 1_048_576.0:N0} MB");
}
