using System.Text;
using System.Text.Json;
using CsCheck;
using Dibujo.Cli;
using Dibujo.Core.Packs;

namespace Dibujo.Core.Tests.Packs;

public sealed class PackTests : IDisposable
{
    private static readonly string DemoPack = Checkout.Path("src", "Dibujo.Server", "Demo", "object-loan.pack.json");
    private readonly string folder = Directory.CreateTempSubdirectory("dibujo-pack-").FullName;

    public void Dispose() => Directory.Delete(folder, recursive: true);

    [Fact]
    public void A_pack_reads_back_as_it_was_written() => Gen.UInt.Sample(seed =>
    {
        var written = JsonSerializer.SerializeToUtf8Bytes(Pack.Of(new Chance(seed).Definition()), PackJson.Default.Pack);
        var (read, problem) = PackFile.Read(written);

        Assert.Null(problem);
        Assert.Equal(written, JsonSerializer.SerializeToUtf8Bytes(read!, PackJson.Default.Pack));
    }, iter: 500);

    [Fact]
    public void No_mutation_of_a_pack_makes_the_reader_throw()
    {
        var pack = File.ReadAllBytes(DemoPack);
        Gen.Select(Gen.Int[0, pack.Length - 1], Gen.Byte, Gen.Int[0, 40]).Sample((at, with, cut) =>
        {
            byte[] mutated = [.. pack[..at], with, .. pack[Math.Min(pack.Length, at + cut)..]];
            var (read, problem) = PackFile.Read(mutated);
            Assert.True(read is null != problem is null);
            if (read is not null)
            {
                Core.Compilation.ProgramCompiler.Compile(read.ToDefinition());
            }
        }, iter: 3000);
    }

    [Fact]
    public void The_command_line_finds_nothing_wrong_with_the_demo()
    {
        var output = new StringWriter();
        Assert.Equal(0, CheckCommand.Run(DemoPack, output));
        Assert.Contains("48 rules, no problems", output.ToString(), StringComparison.Ordinal);
    }

    [Fact]
    public void Evaluate_counts_the_records_of_a_table_in_which_each_case_is_in_force()
    {
        var table = Write("records.csv", "stage,title,crateNeeded\nterms,Lantern,yes\nterms,Kite,no\nterms,Comet,\n");
        var output = new StringWriter();

        Assert.Equal(0, EvaluateTableCommand.Run(DemoPack, table, output));

        Assert.Contains("crate\t1\t2\tCrate measures when there is a crate", output.ToString(), StringComparison.Ordinal);
        Assert.EndsWith("3 records.", output.ToString().TrimEnd(), StringComparison.Ordinal);
    }

    [Fact]
    public void A_table_with_a_stage_that_is_not_there_is_not_evaluated()
    {
        var output = new StringWriter();

        Assert.Equal(1, EvaluateTableCommand.Run(DemoPack, Write("records.csv", "stage,title\nattic,Lantern\n"), output));

        Assert.Contains(":2: Standard has no stage “attic”.", output.ToString(), StringComparison.Ordinal);
    }

    [Theory]
    [InlineData("", "The file is empty")]
    [InlineData("{", "not valid JSON")]
    [InlineData("null", "says null")]
    [InlineData("""{"format":"dibujo-pack","version":1,"recordType":{"key":"a","label":"A","titleField":"a","fields":[null],"forms":[],"workflows":[]},"rules":[]}""", "null stands in the list “fields”")]
    [InlineData("""{"format":"dibujo-pack","version":1,"recordType":{"key":"a","label":"A","titleField":"a","fields":[{"key":"a","label":"A","type":{"max":3}}],"forms":[],"workflows":[]},"rules":[]}""", "#/recordType/fields/0/type: It is not said of which kind")]
    [InlineData("""{"format":"dibujo-pack","version":1,"recordType":7,"rules":[]}""", "#/recordType")]
    public void The_command_line_says_what_is_wrong_with_a_file(string content, string message)
    {
        var output = new StringWriter();
        Assert.Equal(1, CheckCommand.Run(Write("pack.json", content), output));
        Assert.Contains(message, output.ToString(), StringComparison.Ordinal);
        Assert.DoesNotContain("   at ", output.ToString(), StringComparison.Ordinal);
    }

    [Fact]
    public void A_missing_file_is_named_once()
    {
        var output = new StringWriter();
        Assert.Equal(1, CheckCommand.Run(Path.Combine(folder, "nowhere.json"), output));
        Assert.Single(output.ToString().TrimEnd().Split('\n'));
    }

    [Fact]
    public void Evaluate_prints_every_element()
    {
        var record = Write("record.json", """
            {"setting": {"workflow": "standard", "stage": "terms"}, "values": {"title": "Lantern", "crateNeeded": false}, "changes": {"crateNeeded": true}}
            """);
        var output = new StringWriter();

        Assert.Equal(0, EvaluateCommand.Run(DemoPack, record, output));

        using var printed = JsonDocument.Parse(output.ToString());
        var elements = printed.RootElement.GetProperty("elements");
        Assert.Equal(90, elements.EnumerateObject().Count());
        Assert.Equal("toMoveOn", elements.GetProperty("field:crateLength").GetProperty("requirement").GetString());
        Assert.False(elements.GetProperty("section:customs").GetProperty("visible").GetBoolean());
        Assert.True(printed.RootElement.GetProperty("values").GetProperty("crateNeeded").GetBoolean());
    }

    [Theory]
    [InlineData("""{"setting": {"workflow": "standard", "stage": "nowhere"}, "values": {}}""", "/setting/stage")]
    [InlineData("""{"setting": {"workflow": "standard", "stage": "terms"}, "values": {"crateNeeded": "perhaps"}}""", "/values/crateNeeded")]
    [InlineData("""{"setting": {"workflow": "standard", "stage": "terms"}, "values": {}, "changes": {"colour": 1}}""", "/changes/colour")]
    public void Evaluate_says_what_is_wrong_with_a_record(string record, string place)
    {
        var output = new StringWriter();
        Assert.Equal(1, EvaluateCommand.Run(DemoPack, Write("record.json", record), output));
        Assert.Contains(place, output.ToString(), StringComparison.Ordinal);
    }

    private string Write(string name, string content)
    {
        var path = Path.Combine(folder, name);
        File.WriteAllText(path, content, Encoding.UTF8);
        return path;
    }
}
