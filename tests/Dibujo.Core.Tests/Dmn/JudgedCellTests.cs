using System.Globalization;
using System.Text.Json.Nodes;
using System.Xml.Linq;
using Dibujo.Core.Conditions;
using Dibujo.Core.Dmn;
using Dibujo.Core.Evaluation;
using Dibujo.Core.Forms;
using Dibujo.Core.Rules;
using Dibujo.Core.Values;

namespace Dibujo.Core.Tests.Dmn;

/// <summary>What goes out in tables holds for the same records wherever it is judged.</summary>
public class JudgedCellTests
{
    private static readonly XNamespace Namespace = DmnWriter.Dmn;

    [Fact]
    public async Task An_independent_interpreter_decides_every_cell_alike()
    {
        var cells = Enumerable.Range(0, Tries.Of("DIBUJO_CELLS", 600)).SelectMany(seed => Cells((uint)seed)).ToList();
        Assert.True(cells.Count > 1000, $"{cells.Count} cells");
        Assert.Contains(cells, cell => cell.Holds);

        var judged = await Node.Run(["Dmn", "judge.mjs"], cells.Select(cell => cell.Line), Checkout.Path("src", "web"));

        var wrong = cells.Zip(judged).Where(pair => pair.First.Holds != (pair.Second == "true")).Select(pair => $"{pair.First.Holds}: {pair.First.Line}").ToList();
        Assert.True(wrong.Count == 0, $"{wrong.Count} of {cells.Count} differ:\n{string.Join('\n', wrong.DistinctBy(w => w[..40]).Take(25))}");
    }

    /// <summary>Every cell of the tables of a random world, as it goes out, for a random record, and whether it holds here.</summary>
    private static IEnumerable<(string Line, bool Holds)> Cells(uint seed)
    {
        var chance = new Chance(seed) { HasLooseText = true };
        var definition = chance.Definition() with { Rules = [] };
        definition = definition with { Rules = [.. Enumerable.Range(0, 4).Select(i => new Rule($"t{i.ToString(CultureInfo.InvariantCulture)}", "Table", Table: chance.Table()))] };
        var (document, _) = DmnWriter.Write(definition);
        var (record, setting) = (chance.Record(), chance.Setting());
        foreach (var decision in document.Descendants(Namespace + "decision"))
        {
            var table = definition.Rules.First(rule => rule.Key == decision.Attribute("id")!.Value).Table!;
            var written = decision.Descendants(Namespace + "rule").Select(row => row.Elements(Namespace + "inputEntry").Select(cell => cell.Value).ToList()).ToList();
            var tests = table.Rows.SelectMany((row, i) => row.If.Select((cell, j) => (Cell: cell, Driver: table.Drivers[j], Text: written[i][j]))).Where(test => test.Cell.Test is not null).ToList();
            var program = Chance.Compile(definition with { Rules = [.. tests.Select(RuleOf)] });
            var session = new Session(program, record, setting, chance);
            for (var i = 0; i < tests.Count; i++)
            {
                var context = Context(session, tests[i].Text);
                context["?"] = Json(session.ValueIn(program.Slots.Of(tests[i].Driver, -1)));
                var cell = tests[i].Text.Replace("today()", $"@\"{setting.Now:yyyy-MM-dd}\"", StringComparison.Ordinal);
                yield return (new JsonObject { ["cell"] = cell, ["context"] = context }.ToJsonString(), session.CaseInForce(i) == 0);
            }
        }
    }

    private static Rule RuleOf((Cell Cell, Subject Driver, string Text) test, int number) => new(
        $"c{number.ToString(CultureInfo.InvariantCulture)}", "Cell")
    {
        Cases = [new([new Require([Element.Record], Requirement.ToMoveOn)], new Clause(test.Driver, test.Cell.Test!.Value) { Comparands = test.Cell.Comparands })],
    };

    private static JsonObject Context(Session session, string text)
    {
        var context = new JsonObject();
        foreach (var field in session.Program.Definition.RecordType.Fields)
        {
            var value = session[field.Key];
            context[field.Key] = text.Contains($"{field.Key}.g", StringComparison.Ordinal) && value is Link ? Linked(session, field.Key) : Json(value);
        }

        context["setting"] = new JsonObject(DmnWriter.Settings.Where(s => s.Name.StartsWith("setting.", StringComparison.Ordinal))
            .Select(s => KeyValuePair.Create(s.Name["setting.".Length..], Json(session.ValueIn(session.Program.Slots.Of(s.Subject, -1))))));
        return context;
    }

    private static JsonObject Linked(Session session, string link) => new(
        session.Program.Definition.RecordType.FieldsOf("other")!.Value.Select(field =>
            KeyValuePair.Create(field.Key, Json(new Chance(0).Find("other", ((Link)session[link]).Record)?[field.Key] ?? Value.Blank))));

    private static JsonNode? Json(Value value) => value switch
    {
        { IsBlank: true } => null,
        Number number => JsonValue.Create(number.Amount),
        Link link => JsonValue.Create(link.Record),
        YesNo answer => JsonValue.Create(answer.IsYes),
        Date date => new JsonObject { ["@date"] = date.Plain },
        Moment moment => new JsonObject { ["@moment"] = moment.Plain },
        Choices choices => new JsonArray([.. choices.Keys.Select(key => (JsonNode)key)]),
        Compound compound => new JsonObject(compound.Parts.Select(part => KeyValuePair.Create(part.Key, (JsonNode?)part.Value))),
        _ => JsonValue.Create(value.Plain),
    };
}
