using System.Text.Json;
using System.Text.Json.Nodes;
using Dibujo.Core.Evaluation;
using Dibujo.Core.Json;
using Dibujo.Core.Rules;

namespace Dibujo.Core.Tests.Evaluation;

/// <summary>The WebAssembly build, run by Node, beside this build: the same random sessions, state by state. DIBUJO_WORLDS sets how many.</summary>
public class BrowserBuildTests
{
    private static readonly int Worlds = Tries.Of("DIBUJO_WORLDS", 150);

    [Fact]
    public async Task The_browser_build_answers_as_the_server_build_does()
    {
        var expected = new List<string>();
        var lines = new List<string>();
        for (var seed = 1U; seed <= Worlds; seed++)
        {
            var (line, states) = Play(new Chance(seed));
            lines.Add(line);
            expected.Add(states);
        }

        var actual = await Node.Run(["Evaluation", "drive.mjs"], lines, Checkout.Path("artifacts", "engine"));

        Assert.Equal(Worlds, actual.Length);
        // The two write characters beyond ASCII each in their own way.
        Assert.All(expected.Zip(actual.Select(line => JsonNode.Parse(line)!)), pair =>
        {
            Assert.True(JsonNode.DeepEquals(JsonNode.Parse(pair.First), pair.Second["seen"]), $"{pair.First}\n{pair.Second["seen"]}");
            // And whoever types faster than the engine answers sees the same in the end.
            Assert.Empty(pair.Second["fast"]!.AsArray());
        });
    }

    private static (string Line, string States) Play(Chance chance)
    {
        var definition = chance.Definition();
        var saved = chance.Record();
        var setting = chance.Setting();
        var session = new Session(Chance.Compile(definition), saved, setting, chance);
        var steps = new JsonArray();
        var seen = new JsonArray { Seen(session, definition) };
        foreach (var (field, value) in chance.Edits())
        {
            session.Change(field, value);
            var number = definition.RecordType.Fields.Index().First(f => f.Item.Key == field).Index;
            steps.Add(new JsonObject { ["field"] = number, ["value"] = JsonSerializer.SerializeToNode(value, CoreJson.Default.Value) });
            seen.Add((JsonNode)Seen(session, definition));
        }

        var other = chance.Setting();
        session.Enter(other);
        steps.Add(new JsonObject { ["setting"] = JsonSerializer.SerializeToNode(other, CoreJson.Default.Setting) });
        seen.Add((JsonNode)Seen(session, definition));
        var line = new JsonObject
        {
            ["definition"] = JsonSerializer.SerializeToNode(definition, CoreJson.Default.Definition),
            ["values"] = JsonSerializer.SerializeToNode(saved.ByField, CoreJson.Default.IReadOnlyDictionaryStringValue),
            ["setting"] = JsonSerializer.SerializeToNode(setting, CoreJson.Default.Setting),
            ["linked"] = new JsonArray([.. Enumerable.Range(0, 3).Select(number =>
                JsonSerializer.SerializeToNode(chance.Find("other", number)!.ByField, CoreJson.Default.IReadOnlyDictionaryStringValue))]),
            ["steps"] = steps,
        };
        return (line.ToJsonString(), seen.ToJsonString());
    }

    private static JsonArray Seen(Session session, Definition definition) =>
    [
        .. Enumerable.Range(0, session.Program.ElementCount).Select(i => (JsonNode)session.StateOf(i).Bits),
        .. definition.RecordType.Fields.Select(f => JsonSerializer.SerializeToNode(session[f.Key], CoreJson.Default.Value)),
    ];
}
