using System.Globalization;
using System.Text.Json;
using System.Text.Json.Nodes;
using CsCheck;
using Dibujo.Core.Expressions;

namespace Dibujo.Core.Tests.Expressions;

/// <summary>The subset of FEEL beside feelin, an interpreter that nobody here wrote.</summary>
public class FeelTests
{
    private const int Expressions = 5000;

    private static readonly Dictionary<string, FeelValue> Context = new(StringComparer.Ordinal)
    {
        ["n"] = new FeelNumber(3),
        ["m"] = new FeelNumber(-1.5m),
        ["t"] = new FeelText("Oak frame"),
        ["b"] = FeelValue.True,
        ["blank"] = FeelValue.Null,
        ["l"] = new FeelList([new FeelNumber(1), new FeelNumber(3)]),
    };

    [Fact]
    public async Task Random_expressions_give_what_the_independent_interpreter_gives()
    {
        var random = new Random(31);
        var expressions = Enumerable.Range(0, Expressions).Select(_ => new RandomExpression(random).Any(3)).ToList();
        var context = new JsonObject { ["n"] = 3, ["m"] = -1.5, ["t"] = "Oak frame", ["b"] = true, ["blank"] = null, ["l"] = new JsonArray(1, 3) };
        var lines = expressions.Select(e => new JsonObject { ["expression"] = e, ["context"] = context.DeepClone() }.ToJsonString());

        var judged = await Node.Run(["Expressions", "judge.mjs"], lines, Checkout.Path("src", "web"));

        Assert.Equal(Expressions, judged.Length);
        var wrong = expressions.Zip(judged).Where(pair => !Agree(Plain(Evaluate(pair.First)), JsonNode.Parse(pair.Second)))
            .Select(pair => $"{pair.First}: {Plain(Evaluate(pair.First))?.ToJsonString() ?? "null"}, not {pair.Second}").ToList();
        Assert.True(wrong.Count == 0, $"{wrong.Count} differ:\n{string.Join('\n', wrong.Take(25))}");
    }

    [Theory]
    [InlineData("1 +", 3, "ends where")]
    [InlineData("1 + \"a\"", 2, "cannot stand around")]
    [InlineData("foo(1)", 0, "no function “foo”")]
    [InlineData("n + colour", 4, "nothing called “colour”")]
    [InlineData("\"open", 0, "no end")]
    [InlineData("contains(n, \"a\")", 9, "where text is needed")]
    [InlineData("if n then 1 else 2", 3, "where true or false is needed")]
    [InlineData("12345678901234567890123456789012", 0, "too large")]
    [InlineData("@\"someday\"", 0, "no date")]
    [InlineData("round up(1)", 0, "does not take 1")]
    [InlineData("n = t", 2, "cannot be compared")]
    public void A_mistake_is_named_with_its_place_and_mend(string text, int place, string what)
    {
        var (expression, problem) = Expression.Parse(text);
        expression?.Check(name => Context.TryGetValue(name, out var value) ? value is FeelNumber ? FeelType.Number : FeelType.Text : null, p => problem ??= p);

        Assert.Equal(place, problem!.Place);
        Assert.Contains(what, problem.What, StringComparison.Ordinal);
        Assert.NotEmpty(problem.Mend);
    }

    [Theory]
    [InlineData("years and months duration(date(\"2011-12-22\"), date(\"2013-08-24\"))", "P1Y8M")]
    [InlineData("(date(\"2026-03-01\") - date(\"2026-02-01\")).days", "28")]
    [InlineData("0.1 + 0.2", "0.3")]
    [InlineData("string join([\"a\", null, \"b\"], \", \")", "a, b")]
    [InlineData("string(2 between 3 and 1)", "false")]
    [InlineData("string(3 in (> 2) and true)", "true")]
    [InlineData("10 ** 40", null)]
    [InlineData("string(1 / 3)", "0.3333333333333333333333333333")]
    public void Where_the_other_differs_or_is_binary_the_standard_counts(string text, string? result) =>
        Assert.Equal(result, BuiltIn.Print(Evaluate(text)));

    [Fact]
    public void No_text_makes_the_parser_throw_or_an_expression_fail() => Gen.Select(Gen.UInt, Gen.Char, Gen.Int[0, 60]).Sample((seed, with, at) =>
    {
        var text = new RandomExpression(new Random((int)seed)).Any(3);
        var place = at % text.Length;
        var (expression, problem) = Expression.Parse(text[..place] + with + text[Math.Min(text.Length, place + (int)(seed % 3))..]);
        Assert.True(expression is null != problem is null);
        expression?.Check(_ => FeelType.Any, _ => { });
        expression?.Evaluate(_ => FeelValue.Null);
    }, iter: 20_000);

    [Theory]
    [InlineData("(")]
    [InlineData("[")]
    [InlineData("-")]
    [InlineData("if ")]
    [InlineData("abs(")]
    [InlineData("1+")]
    [InlineData("a.")]
    public void Depth_and_length_are_bounded(string piece) =>
        Assert.NotNull(Expression.Parse(string.Concat(Enumerable.Repeat(piece, 3000 / piece.Length)) + "1").Problem);

    private static FeelValue Evaluate(string text)
    {
        var (expression, problem) = Expression.Parse(text);
        Assert.True(problem is null, $"{text}: {problem?.What}");
        return expression!.Evaluate(name => Context.GetValueOrDefault(name, FeelValue.Null));
    }

    private static JsonNode? Plain(FeelValue value) => value switch
    {
        FeelNumber n => JsonValue.Create(n.Amount),
        FeelText t => JsonValue.Create(t.Content),
        FeelBoolean b => JsonValue.Create(b.Holds),
        FeelList list => new JsonArray([.. list.Items.Select(Plain)]),
        FeelDate => new JsonObject { ["FeelDate"] = BuiltIn.Print(value) },
        FeelDateTime => new JsonObject { ["FeelDateTime"] = BuiltIn.Print(value) },
        FeelDaysDuration or FeelMonthsDuration => new JsonObject { ["FeelDuration"] = BuiltIn.Print(value) },
        _ => null,
    };

    /// <summary>Numbers of the other are binary, so they agree to twelve digits.</summary>
    private static bool Agree(JsonNode? ours, JsonNode? theirs) => (ours, theirs) switch
    {
        (JsonArray a, JsonArray b) => a.Count == b.Count && a.Zip(b).All(pair => Agree(pair.First, pair.Second)),
        (JsonValue a, JsonValue b) when a.GetValueKind() == JsonValueKind.Number && b.GetValueKind() == JsonValueKind.Number =>
            Math.Abs((double)a.GetValue<decimal>() - b.GetValue<double>()) <= 1e-12 * Math.Max(1, Math.Abs(b.GetValue<double>())),
        _ => JsonNode.DeepEquals(ours, theirs),
    };

    /// <summary>Expressions of each type, with a wrong one now and then.</summary>
    private sealed class RandomExpression(Random random)
    {
        internal string Any(int depth) => random.Next(6) switch
        {
            0 => Text(depth),
            1 or 2 => Truth(depth),
            3 => Day(depth),
            4 => List(depth),
            _ => Number(depth),
        };

        private string Number(int depth) => random.Next(depth <= 0 ? 4 : 19) switch
        {
            0 => "n",
            1 => "m",
            2 => (random.Next(-8, 9) / 4m).ToString(CultureInfo.InvariantCulture),
            3 => random.Next(20) == 0 ? "blank" : random.Next(1, 9).ToString(CultureInfo.InvariantCulture),
            4 => $"({Number(depth - 1)} + {Number(depth - 1)})",
            5 => $"{Number(depth - 1)} - {Number(depth - 1)}",
            6 => $"{Number(depth - 1)} * {Number(depth - 1)}",
            7 => $"{Number(0)} / {Number(0)}",
            8 => $"{random.Next(-4, 5)} ** {random.Next(0, 4)}",
            9 => $"abs({Number(depth - 1)})",
            10 => $"floor({Number(0)}) + ceiling({Number(0)})",
            11 => $"{Pick("decimal", "round half up", "round up", "round down")}({Number(0)}, {random.Next(3)})",
            12 => $"modulo({random.Next(-20, 21)}, {random.Next(-5, 6)})",
            13 => $"(if {Truth(depth - 1)} then {Number(depth - 1)} else {Number(depth - 1)})",
            14 => $"{Pick("min", "max", "sum", "mean")}([{Number(0)}, {Number(0)}, {Number(0)}])",
            15 => $"count({List(depth - 1)})",
            16 => $"string length({Text(depth - 1)})",
            17 => $"({Day(0)}).{Pick("year", "month", "day", "weekday")}",
            _ => $"-{Number(0)}",
        };

        private string Text(int depth) => random.Next(depth <= 0 ? 2 : 9) switch
        {
            0 => "t",
            1 => Pick("\"oak\"", "\"Öl auf Holz\"", "\"\"", "\"a b\"", "\"x\\\"y\""),
            2 => $"({Text(depth - 1)} + {Text(depth - 1)})",
            3 => $"{Pick("upper case", "lower case")}({Text(depth - 1)})",
            4 => $"substring({Text(depth - 1)}, {Pick("1", "2", "-1", "4")})",
            5 => $"substring({Text(depth - 1)}, {Pick("1", "2", "-1")}, {random.Next(1, 4)})",
            6 => $"{Pick("substring before", "substring after")}({Text(depth - 1)}, {Pick("\"a\"", "\" \"")})",
            7 => $"string({Pick("n", "m", "true", "date(\"2026-11-24\")", "duration(\"P1DT2H\")")})",
            _ => $"string join([{Text(0)}, {Text(0)}], \"-\")",
        };

        private string Truth(int depth) => random.Next(depth <= 0 ? 3 : 14) switch
        {
            0 => "b",
            1 => Pick("true", "false"),
            2 => random.Next(4) == 0 ? "null" : "false",
            3 => $"({Truth(depth - 1)} and {Truth(depth - 1)})",
            4 => $"({Truth(depth - 1)} or {Truth(depth - 1)})",
            5 => $"not({Truth(depth - 1)})",
            6 or 7 => $"{Number(0)} {Pick("<", "<=", ">", ">=", "=", "!=")} {Number(0)}",
            // Deviations of the other, see docs/rule-language.md: it turns "between" with exchanged ends around, and "in" within "and".
            8 => $"{Number(0)} between {random.Next(-3, 1)} and {random.Next(1, 4)}",
            9 when depth == 3 => $"{Number(0)} in {Pick("[1..3]", "(1..3)", "[1..3)", "(1, 2, 3)", "(> 2)", "(<= 1, 3)")}",
            10 => $"{Pick("contains", "starts with", "ends with")}({Text(depth - 1)}, {Pick("\"a\"", "\"O\"", "\"\"")})",
            11 => $"{Day(depth - 1)} {Pick("<", ">=", "=")} {Day(0)}",
            12 => $"list contains({List(depth - 1)}, {Number(0)})",
            _ => $"{Text(0)} {Pick("=", "!=", "<")} {Text(0)}",
        };

        private string Day(int depth) => random.Next(depth <= 0 ? 1 : 4) switch
        {
            1 => $"({Day(depth - 1)} + duration(\"{Pick("P1D", "P1M", "-P30D", "P1Y2M")}\"))",
            2 => $"({Day(depth - 1)} - duration(\"{Pick("P10D", "P3M")}\"))",
            3 => $"date({random.Next(2024, 2027)}, {random.Next(1, 13)}, {random.Next(1, 29)})",
            _ => $"date(\"{Pick("2026-01-31", "2024-02-29", "2026-11-24")}\")",
        };

        private string List(int depth) => random.Next(depth <= 0 ? 2 : 5) switch
        {
            0 => "l",
            1 => $"[{Number(0)}, {Number(0)}]",
            2 => $"append({List(depth - 1)}, {Number(0)})",
            3 => $"concatenate({List(depth - 1)}, {List(0)})",
            _ => $"reverse({List(depth - 1)})",
        };

        private string Pick(params string[] from) => from[random.Next(from.Length)];
    }
}
