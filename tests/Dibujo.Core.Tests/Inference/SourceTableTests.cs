using System.Text;
using Dibujo.Core.Checking;
using Dibujo.Core.Inference;
using Dibujo.Core.Records;
using Dibujo.Core.Values;

namespace Dibujo.Core.Tests.Inference;

/// <summary>Tables as they are saved or pasted.</summary>
public class SourceTableTests
{
    [Theory]
    [InlineData("a,b\n1,2\n")]
    [InlineData("\uFEFFa;b\r\n1;2\r\n\r\n")]
    [InlineData("a\tb\n1\t2")]
    [InlineData("\n,,\na,b,\n1,2,\n,,\n")]
    public void Whatever_separates_the_cells_they_are_the_same(string text)
    {
        var (table, mistake) = Read(text);

        Assert.Null(mistake);
        Assert.Equal(["a", "b"], table!.Headers.ToArray());
        Assert.Equal(["1", "2"], Assert.Single(table.Rows));
    }

    [Fact]
    public void Headings_are_unlike_each_other_and_never_empty()
    {
        var (table, _) = Read("Name,,Name,  name \nx,y,z,w\n");

        Assert.Equal(["Name", "Column 2", "Name 2", "name 3"], table!.Headers.ToArray());
    }

    [Fact]
    public void A_file_that_is_no_table_is_refused_in_words()
    {
        Assert.Contains("nothing in it", Read("\n\n").Mistake, StringComparison.Ordinal);
        Assert.Contains("UTF-8", SourceTable.Read([0x41, 0x00, 0x01, 0x42, 0xFC]).Mistake, StringComparison.Ordinal);
        Assert.Equal("A\u00FCB", Assert.Single(SourceTable.Read([0x41, 0xFC, 0x42, (byte)'\n', 0x43]).Table!.Headers));
    }

    [Fact]
    public void A_record_type_made_of_it_can_be_published_and_its_rows_are_records_with_what_does_not_fit()
    {
        var (table, _) = Read("Title;Weight\n" + string.Join('\n', Enumerable.Range(1, 20).Select(i => $"Crate {i};{i} kg")) + "\nLast;heavy");
        var keys = new HashSet<string>(StringComparer.Ordinal);
        var inference = new ColumnInference(new Nobody());
        TakenColumn[] columns = [.. table!.Headers.Select((header, i) => inference.Of(header, PlainKey.For(header, keys), table.Column(i)))
            .Select((guess, i) => new TakenColumn(i, guess.Label, guess.Key, guess.Type, guess.Format))];

        var definition = TakenTable.Definition("crate", "Crate", [.. columns], "title");
        var rows = TakenTable.Rows(table, [.. columns], new Nobody());

        Assert.Empty(DefinitionCheck.OfRecordType(definition.RecordType));
        Assert.Equal(new NumberType(0, Unit: "kg"), definition.RecordType.Find("weight")!.Type);
        Assert.Equal(new Number(1), rows[0].Values["weight"]);
        Assert.Equal((22, "Weight cannot hold “heavy”. Give a number."), (rows[^1].Line, Assert.Single(rows[^1].Mistakes)));
    }

    [Fact]
    public void Long_tables_are_cut_into_sections_and_tabs()
    {
        TakenColumn[] columns = [.. Enumerable.Range(1, 60).Select(i => new TakenColumn(i - 1, $"Column {i}", $"c{i}", new TextType(), new()))];
        var type = TakenTable.Definition("wide", "Wide", [.. columns], "c1").RecordType;

        Assert.Empty(DefinitionCheck.OfRecordType(type));
        Assert.Equal(2, type.Forms[0].Tabs.Length);
        Assert.Equal(60, type.Forms[0].Fields().Count());
    }

    private static (SourceTable? Table, string? Mistake) Read(string text) => SourceTable.Read(Encoding.UTF8.GetBytes(text));

    private sealed class Nobody : ICellLookup
    {
        public IReadOnlyList<string> RecordTypes => [];

        public string? RecordTypeCalled(string heading) => null;

        public string? TitleOf(string recordType, int number) => null;

        public string? NameOf(string userName) => null;

        public IReadOnlyList<int> RecordsCalled(string recordType, string title) => [];

        public IReadOnlyList<string> PeopleCalled(string name) => [];
    }
}
