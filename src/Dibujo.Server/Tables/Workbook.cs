using System.Collections.Immutable;
using System.Globalization;
using System.Text;
using Dibujo.Core.Inference;
using Dibujo.Core.Notations;
using ExcelDataReader;

namespace Dibujo.Server.Tables;

/// <summary>A file with a table in it: a workbook (Office Open XML), or separated values.</summary>
internal static class Workbook
{
    /// <summary>The library asks for an encoding of older formats before it knows which format it is to read.</summary>
    static Workbook() => Encoding.RegisterProvider(CodePagesEncodingProvider.Instance);

    /// <summary>Names of the sheets; none for a file that is no workbook.</summary>
    /// <param name="file">The file.</param>
    /// <param name="sheet">Name of the sheet; null for the first.</param>
    /// <param name="notation">How whoever reads on reads numbers: those of a workbook are written so, as its owner sees them there.</param>
    internal static (SourceTable? Table, ImmutableArray<string> Sheets, string? Mistake) Read(byte[] file, string? sheet, Notation? notation = null)
    {
        if (!file.AsSpan().StartsWith("PK"u8))
        {
            var (read, why) = SourceTable.Read(file);
            return (read, [], why);
        }

        try
        {
            var (bounds, mistake) = WorkbookBounds.Of(file, sheet);
            if (bounds is null)
            {
                return (null, [], mistake);
            }

            using var reader = ExcelReaderFactory.CreateOpenXmlReader(new MemoryStream(file));
            while (reader.Name != bounds.Sheet && reader.NextResult())
            {
                // To the sheet that is read.
            }

            var (table, why) = SourceTable.Of(Rows(reader, bounds, (notation ?? Notation.Plain).Marks.Point));
            return (table, [.. bounds.Sheets], why);
        }
        catch (Exception mistake) when (mistake is not OutOfMemoryException)
        {
            return (null, [], "The workbook cannot be read. Open it, save it as .xlsx once more, and try that.");
        }
    }

    /// <summary>The rows of the sheet at which the reader is, from the top, read as they are asked for, as far as something stands in them.</summary>
    private static IEnumerable<string[]> Rows(IExcelDataReader reader, WorkbookBounds bounds, char point)
    {
        for (var row = 0; row < bounds.Rows && reader.Read(); row++)
        {
            var cells = new string[Math.Min(reader.FieldCount, bounds.Columns)];
            for (var i = 0; i < cells.Length; i++)
            {
                cells[i] = Cell(reader.GetValue(i), point);
            }

            yield return cells;
        }
    }

    /// <summary>A cell as text: a day that says the same wherever it is read, a number with that point and nothing between its thousands.</summary>
    private static string Cell(object? value, char point) => value switch
    {
        null => "",
        DateTime { TimeOfDay.Ticks: 0 } day => day.ToString("yyyy-MM-dd", CultureInfo.InvariantCulture),
        DateTime moment => moment.ToString("yyyy-MM-dd HH:mm:ss", CultureInfo.InvariantCulture),
        bool answer => answer ? "yes" : "no",
        // As many digits as a spreadsheet shows: 0.1 + 0.2 is 0.3 there.
        double number => (number.ToString("G15", CultureInfo.InvariantCulture) is var text && text.Contains('E', StringComparison.Ordinal) && Math.Abs(number) < 1e15
            ? ((decimal)number).ToString(CultureInfo.InvariantCulture) : text).Replace('.', point),
        IFormattable other => other.ToString(null, CultureInfo.InvariantCulture),
        _ => value.ToString() ?? "",
    };
}
