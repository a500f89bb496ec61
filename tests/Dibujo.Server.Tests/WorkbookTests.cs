using System.Diagnostics;
using System.IO.Compression;
using System.Text;
using Dibujo.Server.Tables;

namespace Dibujo.Server.Tests;

/// <summary>Workbooks are read within bounds, whatever they claim: what is refused is named with sheet and cell, soon and without taking memory.</summary>
public class WorkbookTests
{
    private const string Rows = """<row r="1"><c r="A1" t="inlineStr"><is><t>Name</t></is></c><c r="B1" t="inlineStr"><is><t>Number</t></is></c></row><row r="2"><c r="A2" t="inlineStr"><is><t>Kite</t></is></c><c r="B2"><v>7</v></c></row>""";

    public static TheoryData<string, string, string> Refused => new()
    {
        { "a cell in the last column", Rows + """<row r="3"><c r="XFD3"><v>1</v></c></row>""", "XFD3" },
        { "a cell in the last row", Rows + """<row r="1048576"><c r="A1048576"><v>1</v></c></row>""", "A1048576" },
        { "a long text", Rows + $"""<row r="3"><c r="B3" t="inlineStr"><is><t>{new string('x', 300_000)}</t></is></c></row>""", "B3" },
        { "a long text in another row, without references", $"""<row><c t="inlineStr"><is><t>Name</t></is></c></row><row><c><v>1</v></c><c t="inlineStr"><is><t>{new string('x', 300_000)}</t></is></c></row>""", "B2" },
    };

    [Theory]
    [MemberData(nameof(Refused))]
    public void What_is_too_far_or_too_long_is_named(string what, string rows, string cell)
    {
        var (table, _, mistake) = Workbook.Read(Made(rows), null);

        Assert.True(table is null && mistake?.Contains(cell, StringComparison.Ordinal) == true && mistake.Contains("“Loans”", StringComparison.Ordinal), $"{what}: {mistake}");
    }

    [Fact]
    public void A_long_text_that_cells_share_is_named_by_a_cell_that_has_it()
    {
        var texts = $"""<sst xmlns="http://schemas.openxmlformats.org/spreadsheetml/2006/main"><si><t>Name</t></si><si><t>{new string('x', 400_000)}</t></si></sst>""";

        var (_, _, mistake) = Workbook.Read(Made("""<row r="1"><c r="A1" t="s"><v>0</v></c></row><row r="2"><c r="A2" t="s"><v>1</v></c></row>""", texts), null);

        Assert.Contains("A2", mistake, StringComparison.Ordinal);
    }

    [Fact]
    public void Cells_in_which_nothing_stands_are_no_matter_however_far_they_are()
    {
        var (table, sheets, mistake) = Workbook.Read(Made(Rows + """<row r="3"><c r="A3" t="inlineStr"><is><t>Drum</t></is></c><c r="XFD3" s="0"/></row><row r="1048576"><c r="XFD1048576" s="0"/></row>"""), null);

        Assert.Null(mistake);
        Assert.Equal(["Loans"], [.. sheets]);
        Assert.Equal(["Name", "Number"], [.. table!.Headers]);
        Assert.Equal([["Kite", "7"], ["Drum", ""]], table.Rows);
    }

    [Theory]
    [InlineData("texts")]
    [InlineData("sheet")]
    [InlineData("one text")]
    public void What_unpacks_to_gigabytes_takes_neither_time_nor_memory(string where)
    {
        // A gigabyte of the same packs into a megabyte.
        const long Size = 1024L * 1024 * 1024;
        var file = where switch
        {
            "texts" => Made(Rows, null, ("xl/sharedStrings.xml", "<si><t>x</t></si>", Size)),
            "sheet" => Made(null, null, ("xl/worksheets/sheet1.xml", """<row><c><v>1</v></c><c><v>2</v></c></row>""", Size)),
            _ => Made(null, null, ("xl/worksheets/sheet1.xml", "x", Size)),
        };
        var (before, clock) = (GC.GetAllocatedBytesForCurrentThread(), Stopwatch.StartNew());

        var (table, _, mistake) = Workbook.Read(file, null);

        Assert.Null(table);
        Assert.NotNull(mistake);
        Assert.InRange(GC.GetAllocatedBytesForCurrentThread() - before, 0, 200_000_000);
        Assert.InRange(clock.Elapsed, TimeSpan.Zero, TimeSpan.FromSeconds(30));
    }

    [Fact]
    public void A_table_of_contents_that_is_longer_than_any_workbooks_is_not_read()
    {
        using var to = new MemoryStream();
        using (var archive = new ZipArchive(to, ZipArchiveMode.Create, leaveOpen: true))
        {
            for (var i = 0; i < 40_000; i++)
            {
                archive.CreateEntry($"xl/worksheets/sheet{i}.xml");
            }
        }

        var (table, _, mistake) = Workbook.Read(to.ToArray(), null);

        Assert.Null(table);
        Assert.Contains("cannot be read", mistake, StringComparison.Ordinal);
    }

    [Theory]
    [InlineData(",")]
    [InlineData("\t")]
    public void Separated_values_are_bounded_as_well(string separator)
    {
        var line = string.Concat(Enumerable.Repeat(separator, 60_000));

        var (table, _, mistake) = Workbook.Read(Encoding.UTF8.GetBytes($"Name{separator}Number\n{line}\n"), null);

        Assert.Null(table);
        Assert.Contains("Line 2", mistake, StringComparison.Ordinal);
    }

    private static byte[] Made(string? rows, string? texts = null, (string Part, string Piece, long Size)? large = null)
    {
        using var to = new MemoryStream();
        using (var archive = new ZipArchive(to, ZipArchiveMode.Create, leaveOpen: true))
        {
            Add("[Content_Types].xml", """<Types xmlns="http://schemas.openxmlformats.org/package/2006/content-types"><Default Extension="xml" ContentType="application/xml"/><Default Extension="rels" ContentType="application/vnd.openxmlformats-package.relationships+xml"/><Override PartName="/xl/workbook.xml" ContentType="application/vnd.openxmlformats-officedocument.spreadsheetml.sheet.main+xml"/><Override PartName="/xl/worksheets/sheet1.xml" ContentType="application/vnd.openxmlformats-officedocument.spreadsheetml.worksheet+xml"/></Types>""");
            Add("_rels/.rels", """<Relationships xmlns="http://schemas.openxmlformats.org/package/2006/relationships"><Relationship Id="rId1" Type="http://schemas.openxmlformats.org/officeDocument/2006/relationships/officeDocument" Target="xl/workbook.xml"/></Relationships>""");
            Add("xl/workbook.xml", """<workbook xmlns="http://schemas.openxmlformats.org/spreadsheetml/2006/main" xmlns:r="http://schemas.openxmlformats.org/officeDocument/2006/relationships"><sheets><sheet name="Loans" sheetId="1" r:id="rId1"/></sheets></workbook>""");
            Add("xl/_rels/workbook.xml.rels", """<Relationships xmlns="http://schemas.openxmlformats.org/package/2006/relationships"><Relationship Id="rId1" Type="http://schemas.openxmlformats.org/officeDocument/2006/relationships/worksheet" Target="worksheets/sheet1.xml"/><Relationship Id="rId2" Type="http://schemas.openxmlformats.org/officeDocument/2006/relationships/sharedStrings" Target="sharedStrings.xml"/></Relationships>""");
            if (rows is not null)
            {
                Add("xl/worksheets/sheet1.xml", $"""<worksheet xmlns="http://schemas.openxmlformats.org/spreadsheetml/2006/main"><sheetData>{rows}</sheetData></worksheet>""");
            }

            if (texts is not null)
            {
                Add("xl/sharedStrings.xml", texts);
            }

            if (large is var (part, piece, size))
            {
                using var stream = archive.CreateEntry(part, CompressionLevel.Fastest).Open();
                var many = Encoding.UTF8.GetBytes(string.Concat(Enumerable.Repeat(piece, 100_000)));
                stream.Write(part.Contains("sheet1", StringComparison.Ordinal) ? """<worksheet xmlns="http://schemas.openxmlformats.org/spreadsheetml/2006/main"><sheetData>"""u8 : "<sst>"u8);
                stream.Write(piece == "x" ? """<row><c r="A1" t="inlineStr"><is><t>"""u8 : ""u8);
                for (long written = 0; written < size; written += many.Length)
                {
                    stream.Write(many);
                }
            }

            void Add(string name, string text)
            {
                using var stream = archive.CreateEntry(name).Open();
                stream.Write(Encoding.UTF8.GetBytes(text));
            }
        }

        return to.ToArray();
    }
}
