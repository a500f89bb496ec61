using CsCheck;
using Dibujo.Core.Exchange;
using Dibujo.Core.Values;
using static Dibujo.Core.Tests.Small;

namespace Dibujo.Core.Tests.Exchange;

public class RecordTableTests
{
    [Fact]
    public void Records_read_back_as_they_were_written() => Gen.UInt.Sample(seed =>
    {
        var chance = new Chance(seed) { HasOddLabels = true };
        var type = chance.Definition().RecordType;
        var records = Enumerable.Range(1, 4).Select(i => new RecordRow(i, "long", "first", chance.Record())).ToList();

        var (rows, mistake) = RecordTable.Read(type, RecordTable.Write(type, records));

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
    public void What_a_spreadsheet_would_run_is_written_harmless() =>
        Assert.Contains("'=HYPERLINK", RecordTable.Write(Loan, [new(1, "standard", "enquiry", Record(("title", "=HYPERLINK(1)")))]), StringComparison.Ordinal);
}
