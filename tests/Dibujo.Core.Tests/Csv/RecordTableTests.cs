using System.Text;
using CsCheck;
using Dibujo.Core.Csv;
using Dibujo.Core.Notations;
using Dibujo.Core.Values;
using static Dibujo.Core.Tests.Small;

namespace Dibujo.Core.Tests.Csv;

public class RecordTableTests
{
    [Fact]
    public void Records_read_back_as_they_were_written() => Gen.UInt.Sample(seed =>
    {
        var chance = new Chance(seed) { HasOddLabels = true };
        var type = chance.Definition().RecordType;
        var records = Enumerable.Range(1, 4).Select(i => new RecordRow(i, 1, "long", "first", chance.Record())).ToList();

        var (rows, mistake) = RecordTable.Read(type, Written(type, [.. records]));

        Assert.Null(mistake);
        Assert.Equal(records.Count, rows.Length);
        foreach (var (record, row) in records.Zip(rows))
        {
            Assert.Empty(row.Mistakes);
            Assert.Equal(record.Id, row.Id);
            Assert.All(type.Fields, f => Assert.Equal(
                record.Values[f.Key], row.Values.TryGetValue(f.Key, out var value) && !value.IsBlank ? value : Value.Blank));
        }
    }, iter: 500);

    [Fact]
    public void Columns_may_be_named_by_label_and_choices_too()
    {
        var (rows, mistake) = RecordTable.Read(Loan, "Title,Crate needed,MATERIAL,grossWeight\n\"Lantern, \"\"gilt\"\"\",Yes,work on paper,\"1,200.5\"\n");

        Assert.Null(mistake);
        var row = Assert.Single(rows);
        Assert.Empty(row.Mistakes);
        Assert.Equal(new Text("Lantern, \"gilt\""), row.Values["title"]);
        Assert.Equal(new Choice("paper"), row.Values["material"]);
        Assert.Equal(new Number(1200.5m), row.Values["grossWeight"]);
    }

    [Theory]
    [InlineData("", "no line")]
    [InlineData("title,colour\na,b", "no field “colour”")]
    public void A_wrong_file_is_told_why(string text, string message) =>
        Assert.Contains(message, RecordTable.Read(Loan, text).Mistake, StringComparison.Ordinal);

    [Fact]
    public void A_cell_that_does_not_fit_is_told_with_its_row()
    {
        var (rows, _) = RecordTable.Read(Loan, "id,title,grossWeight\n,a,heavy\nx,b,3");

        Assert.Contains("Gross weight cannot hold “heavy”", rows[0].Mistakes[0], StringComparison.Ordinal);
        Assert.Contains("not the number of a record", rows[1].Mistakes[0], StringComparison.Ordinal);
    }

    [Fact]
    public void A_file_is_read_in_the_encoding_in_which_it_is_and_a_guess_is_told()
    {
        const string text = "title;grossWeight\nCafé “Vell” Łódź;3\n";

        foreach (var (bytes, encoding) in new (byte[], string?)[]
        {
            (Encoding.UTF8.GetBytes(text), null),
            ([.. Encoding.UTF8.GetPreamble(), .. Encoding.UTF8.GetBytes(text)], null),
            ([.. Encoding.Unicode.GetPreamble(), .. Encoding.Unicode.GetBytes(text)], null),
            ([.. Encoding.BigEndianUnicode.GetPreamble(), .. Encoding.BigEndianUnicode.GetBytes(text)], null),
            (Encoding.Unicode.GetBytes(text.Replace("Ł", "L", StringComparison.Ordinal).Replace("“", "", StringComparison.Ordinal).Replace("”", "", StringComparison.Ordinal).Replace("ź", "z", StringComparison.Ordinal)), "UTF-16"),
            ([.. "title;grossWeight\nCaf"u8, 0xE9, .. " "u8, 0x93, .. "Vell"u8, 0x94, .. ";3\n"u8], "Windows-1252"),
        })
        {
            var table = RecordTable.Read(Loan, bytes);

            Assert.Null(table.Mistake);
            Assert.Equal(encoding, table.Encoding);
            Assert.StartsWith("Café", table.Rows[0].Values["title"].Plain, StringComparison.Ordinal);
        }

        Assert.Contains("no text", RecordTable.Read(Loan, (byte[])[1, 2, 0, 4, 0xFF]).Mistake, StringComparison.Ordinal);
    }

    [Theory]
    [InlineData("en-US")]
    [InlineData("en-GB")]
    [InlineData("de-DE")]
    [InlineData("es-ES")]
    [InlineData("fr-CH")]
    [InlineData("ja-JP")]
    public void What_is_written_for_people_is_read_back_as_it_was(string language) => Gen.UInt.Sample(
        seed =>
        {
            var chance = new Chance(seed) { HasOddLabels = true };
            var type = chance.Definition().RecordType;
            var writing = new TableReading(Notation.Of(language), NoNames.Instance, new(2026, 12, 1));
            var records = Enumerable.Range(1, 4).Select(i => new RecordRow(i, 1, "long", "first", chance.Record())).ToList();
            using var text = new StringWriter();
            RecordTable.WriteAsync(type, records.ToAsyncEnumerable(), text, writing).GetAwaiter().GetResult();

            var (rows, mistake) = RecordTable.Read(type, text.ToString(), writing);

            Assert.Null(mistake);
            foreach (var (record, row) in records.Zip(rows))
            {
                Assert.Empty(row.Mistakes);
                Assert.Equal((record.Id, record.Workflow, record.Stage), (row.Id, row.Workflow, row.Stage));
                Assert.All(type.Fields, f => Assert.Equal(
                    record.Values[f.Key], row.Values.TryGetValue(f.Key, out var value) && !value.IsBlank ? value : Value.Blank));
            }
        },
        iter: 100);

    [Fact]
    public void A_file_that_is_too_long_is_refused_and_not_cut_off()
    {
        var (rows, mistake) = RecordTable.Read(Loan, "title\n" + string.Concat(Enumerable.Repeat("Lantern\n", 100_001)));

        Assert.Empty(rows);
        Assert.Contains("more than 100,000 rows", mistake, StringComparison.Ordinal);
    }

    [Theory]
    [InlineData("=1+1")]
    [InlineData("'=1+1")]
    [InlineData("-")]
    [InlineData("'-5")]
    [InlineData("+49 30")]
    [InlineData("''")]
    public void Text_that_looks_like_a_formula_reads_back_as_it_was(string text)
    {
        var written = Written(Loan, [new(1, 1, "standard", "enquiry", Record(("title", text)))]);

        Assert.Equal(new Text(text), RecordTable.Read(Loan, written).Rows[0].Values["title"]);
    }

    [Theory]
    [InlineData("title,grossWeight\nLantern,1,5", "3 cells, but there are 2 columns")]
    [InlineData("title,grossWeight\nLantern", "1 cells, but there are 2 columns")]
    public void A_row_with_cells_too_many_or_too_few_is_refused(string text, string message) =>
        Assert.Contains(message, Assert.Single(RecordTable.Read(Loan, text).Rows[0].Mistakes), StringComparison.Ordinal);

    [Theory]
    [InlineData("title,grossWeight,grossWeight\na,1,2", "Two columns are of “grossWeight”")]
    [InlineData("title,Title\na,b", "Two columns are of “title”")]
    [InlineData("title,grossWeight\n\"Lantern,1\nMeadow,2\n", "cannot be read")]
    public void A_file_in_which_something_would_be_lost_is_refused(string text, string message) =>
        Assert.Contains(message, RecordTable.Read(Loan, text).Mistake, StringComparison.Ordinal);

    [Theory]
    [InlineData("1,200.5", true)]
    [InlineData("1200.5", true)]
    [InlineData("1,5", true)]
    [InlineData("12,34,567", false)]
    [InlineData("0.12345678901234567890123456789", false)]
    [InlineData("12345678901234567890123456789", false)]
    public void A_number_is_read_as_it_is_written_or_not_at_all(string cell, bool isRead) =>
        Assert.Equal(isRead, RecordTable.Read(Loan, $"title,grossWeight\nLantern,\"{cell}\"").Rows[0].Mistakes.IsEmpty);

    [Theory]
    [InlineData("=HYPERLINK(1)")]
    [InlineData(" =HYPERLINK(1)")]
    [InlineData("\u00A0=HYPERLINK(1)")]
    [InlineData("\t=HYPERLINK(1)")]
    [InlineData("\uFEFF=HYPERLINK(1)")]
    [InlineData(" \u200B\u2003+1")]
    [InlineData("\uFF1DHYPERLINK(1)")]
    [InlineData("  @SUM(1)")]
    [InlineData("'-1+1")]
    public void What_a_spreadsheet_would_run_is_written_harmless_and_read_back_as_it_was(string title)
    {
        Assert.Equal("'" + title, HarmlessCell.Of(title));
        Assert.Equal(title, HarmlessCell.Read(HarmlessCell.Of(title)));
        Assert.Contains("'" + title, Written(Loan, [new(1, 1, "standard", "enquiry", Record(("title", title)))]), StringComparison.Ordinal);
    }

    [Theory]
    [InlineData("-12.5")]
    [InlineData("A kite = a kite")]
    [InlineData("")]
    [InlineData("  ")]
    public void What_it_would_not_run_stays_as_it_is(string cell) => Assert.Equal(cell, HarmlessCell.Of(cell));

    private static string Written(Core.Records.RecordType type, RecordRow[] rows)
    {
        using var text = new StringWriter();
        RecordTable.WriteAsync(type, rows.ToAsyncEnumerable(), text).GetAwaiter().GetResult();
        return text.ToString();
    }
}
