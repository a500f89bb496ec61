using System.Text.Json;
using System.Text.Json.Nodes;
using Dibujo.Core.Evaluation;
using Dibujo.Core.Forms;
using Dibujo.Core.Json;
using Dibujo.Core.Packs;
using Dibujo.Core.Schemas;
using Dibujo.Core.Values;
using static Dibujo.Core.Tests.Small;

namespace Dibujo.Core.Tests.Schemas;

/// <summary>Schemas beside ajv, a validator that nobody here wrote.</summary>
public class SchemaTests
{
    private const int Worlds = 250;
    private const int RecordsEach = 8;

    [Fact]
    public async Task What_the_exported_schema_says_is_required_is_what_the_engine_asks_for()
    {
        var lines = new List<string>();
        var expected = new List<List<string>>();
        var said = 0;
        for (var seed = 1U; seed <= Worlds; seed++)
        {
            var chance = new Chance(seed);
            var program = Chance.Compile(chance.Definition());
            var setting = chance.Setting() with { Move = null, IsNew = false };
            var export = SchemaExport.Of(program, setting);
            said += export.Schema["allOf"]?.AsArray().Count ?? 0;
            var records = Enumerable.Range(0, RecordsEach).Select(_ => chance.Record()).ToList();
            lines.Add(new JsonObject { ["schema"] = export.Schema, ["records"] = new JsonArray([.. records.Select(Node)]) }.ToJsonString());
            expected.AddRange(records.Select(record => Missing(new Session(program, record, setting), export)));
        }

        var judged = await Core.Tests.Node.Run(["Schemas", "judge.mjs"], lines, Checkout.Path("src", "web"));

        var found = judged.SelectMany(line => JsonNode.Parse(line)!.AsArray().Select(r => r!.AsArray().Select(f => f!.GetValue<string>()).ToList())).ToList();
        Assert.Equal(expected.Count, found.Count);
        Assert.All(expected.Zip(found), pair => Assert.Equal(pair.First, pair.Second));
        Assert.True(said > Worlds / 10, $"{said}: more worlds ought to have something to say.");
    }

    [Fact]
    public async Task The_demo_packs_and_random_packs_keep_to_the_published_schema_of_packs()
    {
        var schema = JsonNode.Parse(await File.ReadAllTextAsync(Checkout.Path("docs", "pack.schema.json")))!;
        var demo = Directory.GetFiles(Checkout.Path("src", "Dibujo.Server", "Demo"), "*.pack.json").Select(path => JsonNode.Parse(File.ReadAllText(path))!);
        var random = Enumerable.Range(1, 60).Select(seed => JsonNode.Parse(PackFile.Write(Pack.Of(new Chance((uint)seed) { HasOddLabels = true }.Definition())))!);
        var wrong = JsonNode.Parse("""{"format":"dibujo-pack","version":1,"recordType":{"key":7}}""")!;
        var line = new JsonObject { ["schema"] = schema, ["records"] = new JsonArray([wrong, .. demo, .. random]) }.ToJsonString();

        var judged = await Core.Tests.Node.Run(["Schemas", "judge.mjs"], [line], Checkout.Path("src", "web"));

        var found = JsonNode.Parse(judged[0])!.AsArray();
        Assert.NotEmpty(found[0]!.AsArray());
        Assert.All(found.Skip(1), mistakes => Assert.Equal("[]", mistakes!.ToJsonString()));
    }

    [Fact]
    public void What_a_schema_cannot_say_is_listed_with_the_reason()
    {
        var export = SchemaExport.Of(
            Under(
                While(Field("title", Core.Conditions.Test.Contains, "Harbour"), RequireToSave("remarks")),
                While(Stage(Core.Conditions.Test.Is, "terms"), RequireToSave("certificate"))).Compiled(),
            AtEnquiry);

        Assert.Equal(["Whether Remarks is required: Title compares without regard to case."], export.Unsaid.AsEnumerable());
        Assert.Null(export.Schema["allOf"]);
    }

    private static JsonNode Node(RecordValues record) => JsonSerializer.SerializeToNode(record.ByField, CoreJson.Default.IReadOnlyDictionaryStringValue)!;

    private static List<string> Missing(Session session, SchemaExport export) =>
        [.. session.Missing().Where(m => m.Level == Requirement.ToSave).Select(m => m.Field)
            .Where(key => !export.Unsaid.Any(u => u.StartsWith($"Whether {session.Program.Definition.RecordType.Find(key)!.Label} is", StringComparison.Ordinal)))
            .Order(StringComparer.Ordinal)];
}
