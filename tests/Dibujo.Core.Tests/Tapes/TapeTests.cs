using System.Text.Json;
using System.Text.Json.Nodes;
using CsCheck;
using Dibujo.Core.Json;
using Dibujo.Core.Packs;
using Dibujo.Core.Rules;
using Dibujo.Core.Tapes;

namespace Dibujo.Core.Tests.Tapes;

public class TapeTests
{
    [Fact]
    public void A_definition_from_a_tape_is_the_one_that_JSON_says() => Gen.UInt.Sample(seed =>
    {
        var definition = new Chance(seed) { HasOddLabels = true }.Definition();

        Assert.Equal(Json(definition), Json(Read(definition)));
    }, iter: 1000);

    [Theory]
    [InlineData("object-loan")]
    [InlineData("collection-object")]
    [InlineData("gallery-works")]
    public void The_demo_is_read_whole(string pack)
    {
        var file = File.ReadAllBytes(Checkout.Path("src", "Dibujo.Server", "Demo", $"{pack}.pack.json"));
        var definition = PackFile.Read(file).Pack!.ToDefinition() with { Examples = [] };

        // As the file says it, which leaves out what goes without saying.
        var node = JsonNode.Parse(file)!;

        Assert.Equal(Json(definition), Json(RuleTape.Definition(TapeWriter.Read(node))));
    }

    [Fact]
    public void A_record_and_its_setting_are_read_too() => Gen.UInt.Sample(seed =>
    {
        var chance = new Chance(seed);
        _ = chance.Definition();
        var (record, setting) = (chance.Record(), chance.Setting());
        var values = JsonSerializer.SerializeToNode(record.ByField, CoreJson.Default.IReadOnlyDictionaryStringValue);

        Assert.Equal(
            JsonSerializer.Serialize(record.ByField, CoreJson.Default.IReadOnlyDictionaryStringValue),
            JsonSerializer.Serialize(ValueTape.Record(TapeWriter.Read(values)).ByField, CoreJson.Default.IReadOnlyDictionaryStringValue));
        Assert.Equal(
            JsonSerializer.Serialize(setting, CoreJson.Default.Setting),
            JsonSerializer.Serialize(RecordTypeTape.Setting(TapeWriter.Read(JsonSerializer.SerializeToNode(setting, CoreJson.Default.Setting))), CoreJson.Default.Setting));
    }, iter: 500);

    [Theory]
    [InlineData("[1, 2]")]
    [InlineData("\"hide\"")]
    [InlineData("{\"key\": 7, \"name\": \"x\"}")]
    [InlineData("{\"key\": \"r\", \"name\": \"R\", \"cases\": [{\"effects\": [{\"kind\": \"explode\"}]}]}")]
    public void What_is_no_rule_is_refused(string json) =>
        Assert.ThrowsAny<FormatException>(() => RuleTape.Rule(TapeWriter.Read(JsonNode.Parse(json))));

    private static Definition Read(Definition definition) => RuleTape.Definition(TapeWriter.Read(JsonSerializer.SerializeToNode(definition, CoreJson.Default.Definition)));

    private static string Json(Definition definition) => JsonSerializer.Serialize(definition, CoreJson.Default.Definition);
}
