using System.Text;
using System.Text.Json.Nodes;
using Dibujo.Cli;

namespace Dibujo.Core.Tests.Commands;

/// <summary>What the command line says and with which exit code it ends.</summary>
public sealed class CommandTests : IDisposable
{
    private static readonly string Loans = Checkout.Path("src", "Dibujo.Server", "Demo", "object-loan.pack.json");
    private readonly string folder = Directory.CreateTempSubdirectory("dibujo-cli-").FullName;
    private readonly StringWriter output = new();
    private readonly StringWriter rest = new();

    public void Dispose()
    {
        output.Dispose();
        rest.Dispose();
        Directory.Delete(folder, recursive: true);
    }

    [Fact]
    public void Explain_says_why_in_sentences_and_as_data()
    {
        var record = Write("record.json", """{"setting": {"workflow": "standard", "stage": "terms"}, "values": {"title": "Lantern", "insuredValue": 60000}}""");

        Assert.Equal(0, ExplainCommand.Run(Loans, record, "field:valuer", asJson: false, output));
        Assert.Contains("Required to move on by rule 9, “Second valuation from 50,000 on”: because Insured value is at least EUR 50,000", output.ToString(), StringComparison.Ordinal);

        using var data = new StringWriter();
        Assert.Equal(0, ExplainCommand.Run(Loans, record, "field:valuer", asJson: true, data));
        var clauses = JsonNode.Parse(data.ToString())!["facets"]!.AsArray().Single(f => f!["facet"]!.GetValue<string>() == "requirement")!["winner"]!["clauses"]!.AsArray();
        Assert.Equal(["EUR 60,000", "Terms"], clauses.Select(c => c!["present"]!.GetValue<string>()));
    }

    [Theory]
    [InlineData("""{"setting": {"workflow": "standard", "stage": "terms", "roles": ["pilot"]}, "values": {}}""", "#/setting/roles: There is no role “pilot”")]
    [InlineData("""{"setting": {"workflow": "standard", "stage": "terms", "move": "dispatch"}, "values": {}}""", "#/setting/move: The stage Terms has no move “dispatch”")]
    [InlineData("""{"setting": {"workflow": "standard", "stage": "attic"}, "values": {}}""", "#/setting/stage: Standard has no stage “attic”")]
    [InlineData("""{"setting": {"workflow": "standard", "stage": "terms"}, "form": "attic", "values": {}}""", "#/form: There is no form “attic”")]
    [InlineData("""{"setting": {"workflow": "standard", "stage": "terms", "now": "2026-11-25T01:00:00+05:00"}, "values": {}}""", "#/setting/now: A moment is by the site's clock")]
    [InlineData("""{"setting": {"workflow": "standard", "stage": "terms", "now": "2026-11-25T01:00:00Z"}, "values": {}}""", "Leave the zone out")]
    [InlineData("""{"setting": {"workflow": "standard", "stage": "terms"}, "values": {"fee": 1, "fee": 2}}""", "#/values/fee: “fee” stands here twice")]
    [InlineData("""{"setting": {"workflow": "standard", "stage": "terms"}, "values": {"borrowerContact": {"given": "a", "given": "b"}}}""", "The part “given” stands here twice")]
    [InlineData("""{"setting": {"workflow": "standard", "stage": "terms"}, "values": {"fee": 0.12345678901234567890123456789}}""", "too exact; at most 28 digits")]
    [InlineData("""{"setting": {"workflow": "standard", "stage": "terms"}, "values": {"fee": 1e-30}}""", "too exact; at most 28 digits")]
    public void A_record_file_that_would_be_read_otherwise_than_meant_is_refused(string file, string message)
    {
        Assert.Equal(1, EvaluateCommand.Run(Loans, Write("record.json", file), output));

        Assert.Contains(message, output.ToString(), StringComparison.Ordinal);
    }

    [Fact]
    public void A_new_record_is_evaluated_with_its_defaults_where_nothing_else_is_given()
    {
        const string Setting = """ "setting": {"workflow": "standard", "stage": "enquiry", "isNew": true, "person": "ina"} """;
        Assert.Equal(0, EvaluateCommand.Run(Loans, Write("begun.json", $$$"""{{{{Setting}}}, "values": {"title": "Lantern"}}"""), output));
        Assert.Equal(0, EvaluateCommand.Run(Loans, Write("emptied.json", $$$"""{{{{Setting}}}, "values": {"title": "Lantern", "requestedBy": null}}"""), rest));

        Assert.Equal("ina", JsonNode.Parse(output.ToString())!["values"]!["requestedBy"]!.GetValue<string>());
        Assert.Null(JsonNode.Parse(rest.ToString())!["values"]!["requestedBy"]);
    }

    [Fact]
    public void Explain_names_the_ways_to_name_an_element()
    {
        var record = Write("record.json", """{"setting": {"workflow": "standard", "stage": "terms"}, "values": {}}""");

        Assert.Equal(1, ExplainCommand.Run(Loans, record, "field:vault", asJson: false, output));
        Assert.Contains("field:KEY, part:FIELD.PART", output.ToString(), StringComparison.Ordinal);
    }

    [Fact]
    public void Evaluate_follows_links_to_the_records_that_are_given()
    {
        var record = Write("record.json", """
            {"setting": {"workflow": "standard", "stage": "assessment"}, "values": {"title": "Tide tables"}, "changes": {"object": 7},
             "linked": [{"recordType": "collection-object", "number": 7, "values": {"insuredValue": 80000, "material": "paper"}}]}
            """);

        Assert.Equal(0, EvaluateCommand.Run(Loans, record, output));

        var values = JsonNode.Parse(output.ToString())!["values"]!;
        Assert.Equal((80000, "paper"), (values["insuredValue"]!.GetValue<int>(), values["material"]!.GetValue<string>()));
    }

    [Fact]
    public void A_given_record_that_fits_nothing_is_told_with_its_place()
    {
        var record = Write("record.json", """
            {"setting": {"workflow": "standard", "stage": "terms"}, "values": {},
             "linked": [{"recordType": "barge", "number": 1, "values": {}}, {"recordType": "collection-object", "number": 2, "values": {"insuredValue": "much", "mast": 3}}]}
            """);

        Assert.Equal(1, EvaluateCommand.Run(Loans, record, output));
        Assert.Equal(
            ["#/linked/0: There is no record type “barge” to which links lead. Name one that does.",
             "#/linked/1: Insured value of collection-object 2 cannot hold this. Give an amount of money.",
             "#/linked/1: collection-object 2 has no field “mast”. Leave it out."],
            output.ToString().Split('\n', StringSplitOptions.RemoveEmptyEntries).Select(line => line[line.IndexOf('#', StringComparison.Ordinal)..].Trim()));
    }

    [Fact]
    public void A_record_file_without_a_moment_is_of_today()
    {
        var record = Write("record.json", """{"setting": {"workflow": "standard", "stage": "terms"}, "values": {"lastConservation": "2001-01-01"}}""");

        Assert.Equal(0, EvaluateCommand.Run(Loans, record, output));
        Assert.Contains("The last conservation was more than 15 years ago.", output.ToString(), StringComparison.Ordinal);
    }

    [Theory]
    [InlineData("sentences", null, "15. Return only after display: While Stage is before On display, hide section Return")]
    [InlineData("dmn", null, "<decisionTable")]
    [InlineData("schema", "terms", "\"refusalReason\"")]
    public void Export_prints_other_forms_of_a_pack(string form, string? stage, string content)
    {
        Assert.Equal(0, ExportCommand.Run(Loans, form, stage, output, rest));
        Assert.Contains(content, output.ToString(), StringComparison.Ordinal);
    }

    [Theory]
    [InlineData("poems", null, "sentences, dmn, schema")]
    [InlineData("schema", "attic", "enquiry, assessment, terms")]
    public void Export_names_what_there_is(string form, string? stage, string names)
    {
        Assert.NotEqual(0, ExportCommand.Run(Loans, form, stage, output, rest));
        Assert.Contains(names, rest.ToString(), StringComparison.Ordinal);
    }

    [Fact]
    public void Test_says_which_example_fails_and_how()
    {
        var pack = Changed(pack => pack["examples"]![0]!["expect"]![0]!["visible"] = !pack["examples"]![0]!["expect"]![0]!["visible"]!.GetValue<bool>());

        Assert.Equal(1, TestCommand.Run(pack, output));
        Assert.Contains("Fails: ", output.ToString(), StringComparison.Ordinal);
        Assert.Contains("10 of 11 examples hold.", output.ToString(), StringComparison.Ordinal);
    }

    [Fact]
    public void Import_shows_each_difference_as_sentences_and_writes_only_when_told_to()
    {
        var result = Path.Combine(folder, "result.json");
        var incoming = Changed(pack =>
        {
            pack["rules"]!.AsArray().RemoveAt(0);
            pack["rules"]![0]!["on"] = false;
        });

        Assert.Equal(0, ImportCommand.Run(Loans, incoming, null, output));
        Assert.False(File.Exists(result));
        Assert.Contains("Purpose in own words", output.ToString(), StringComparison.Ordinal);

        Assert.Equal(0, ImportCommand.Run(Loans, incoming, result, output));
        Assert.Equal(0, ImportCommand.Run(result, incoming, null, rest));
        Assert.Contains("0 differences, 0 problems.", rest.ToString(), StringComparison.Ordinal);
    }

    [Fact]
    public void Import_does_not_write_what_cannot_apply()
    {
        var result = Path.Combine(folder, "result.json");
        var incoming = Changed(pack => pack["rules"]![0]!["cases"]![0]!["effects"]![0]!["targets"]![0]!["key"] = "vault");

        Assert.Equal(1, ImportCommand.Run(Loans, incoming, result, output));
        Assert.Contains("vault", output.ToString(), StringComparison.Ordinal);
        Assert.False(File.Exists(result));
    }

    [Theory]
    [InlineData("title,colour\nLantern,red\n", "colour")]
    [InlineData("title,startDate\nLantern,soon\n", ":2: Start date cannot hold “soon”")]
    [InlineData("title\n", "0 rows could be imported")]
    [InlineData("title,borrower,requestedOn\nLantern,Oststrand Gallery,\n", "1 rows could be imported, 0 not.")]
    [InlineData("title,workflow\nLantern,winding\n", ":2: There is no workflow “winding”")]
    public void Import_says_of_records_what_the_rules_would(string csv, string says)
    {
        ImportCommand.Run(Loans, Write("records.csv", csv), null, output);

        Assert.Contains(says, output.ToString(), StringComparison.Ordinal);
    }

    [Fact]
    public void Import_reads_tables_of_another_tool_only_where_they_fit()
    {
        var dmn = Write("tables.dmn", "<definitions xmlns=\"https://www.omg.org/spec/DMN/20191111/MODEL/\"><decision id=\"d\" name=\"D\"/></definitions>");

        ImportCommand.Run(Loans, dmn, null, output);

        Assert.NotEmpty(output.ToString());
        Assert.DoesNotContain("   at ", output.ToString(), StringComparison.Ordinal);
    }

    private string Changed(Action<JsonNode> change)
    {
        var pack = JsonNode.Parse(File.ReadAllText(Loans))!;
        change(pack);
        return Write("incoming.json", pack.ToJsonString());
    }

    private string Write(string name, string content)
    {
        var path = Path.Combine(folder, name);
        File.WriteAllText(path, content, Encoding.UTF8);
        return path;
    }
}
