using System.Globalization;
using Dibujo.Core.Conditions;
using Dibujo.Core.Forms;
using Dibujo.Core.Records;
using Dibujo.Core.Rules;
using Dibujo.Core.Values;

namespace Dibujo.Benchmarks;

/// <summary>A form of 300 fields with any number of rules of three clauses each, the same at every run.</summary>
internal static class LargeForm
{
    internal const int FieldCount = 300;

    internal static readonly Setting Setting = new("only", "first");

    internal static Definition With(int ruleCount)
    {
        var random = new Random(300);
        var type = new RecordType("large", "Large form", "f0",
            [.. Enumerable.Range(0, FieldCount).Select(i => new Field(Name(i), $"Field {i}", Type(i)))],
            [new("main", "Main", [.. Enumerable.Range(0, 10).Select(Tab)])],
            [new("only", "Only", [new("first", "First"), new("second", "Second")], [])]);
        return new(type, [.. Enumerable.Range(0, ruleCount).Select(i => Rule(random, i))]);
    }

    internal static RecordValues Record() => Record(new Random(1));

    internal static RecordValues Record(Random random) =>
        new(Enumerable.Range(0, FieldCount).Select(i => KeyValuePair.Create(Name(i), Value(random, i))));

    internal static string Name(int i) => "f" + i.ToString(CultureInfo.InvariantCulture);

    internal static Value Value(Random random, int i) => Type(i) switch
    {
        YesNoType => new YesNo(random.Next(2) == 0),
        NumberType => new Number(random.Next(100)),
        ChoiceType => new Choice(Name(random.Next(5))),
        _ => new Text($"text {random.Next(50)}"),
    };

    private static FieldType Type(int i) => (i % 4) switch
    {
        0 => new YesNoType(),
        1 => new NumberType(),
        2 => new ChoiceType([.. Enumerable.Range(0, 5).Select(o => new Option(Name(o), $"Option {o}"))]),
        _ => new TextType(),
    };

    private static Tab Tab(int t) => new($"t{t}", $"Tab {t}",
        [.. Enumerable.Range(0, 5).Select(s => new Section($"s{t}_{s}", $"Section {s}", [.. Enumerable.Range((t * 30) + (s * 6), 6).Select(Name)]))]);

    /// <summary>Drivers lie before what they drive, as on most forms, so that there are chains and no cycles.</summary>
    private static Rule Rule(Random random, int i)
    {
        var target = random.Next(30, FieldCount);
        var clauses = Enumerable.Range(0, 3).Select(_ => (Condition)Clause(random, random.Next(0, target))).ToArray();
        Effect effect = random.Next(4) switch
        {
            0 => new Hide([Element.Field(Name(target))]),
            1 => new Show([Element.Field(Name(target))]),
            2 => new Core.Rules.Lock([Element.Field(Name(target))]),
            _ => new Require([Element.Field(Name(target))]),
        };
        var quantifier = random.Next(2) == 0 ? Quantifier.AllOf : Quantifier.AnyOf;
        return new($"r{i}", $"Rule {i}") { Cases = [new([effect], new Group(quantifier, [.. clauses]))] };
    }

    private static Clause Clause(Random random, int field)
    {
        var test = Type(field) switch
        {
            NumberType => Test.AtLeast,
            TextType => Test.Contains,
            _ => Test.Is,
        };
        return new(new FieldSubject(Name(field)), test) { Comparands = [new Literal(Value(random, field))] };
    }
}
