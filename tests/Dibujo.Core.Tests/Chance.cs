using System.Globalization;
using Dibujo.Core.Compilation;
using Dibujo.Core.Conditions;
using Dibujo.Core.Evaluation;
using Dibujo.Core.Forms;
using Dibujo.Core.Records;
using Dibujo.Core.Rules;
using Dibujo.Core.Values;

namespace Dibujo.Core.Tests;

/// <summary>Random definitions, records and edits, small enough that rules meet each other often. The same seed, the same world.</summary>
internal sealed class Chance(uint seed)
{
    private static readonly Setting[] Settings =
    [
        new("long", "first"), new("long", "middle") { Roles = ["keeper"] }, new("long", "last"), new("brief", "first") { Roles = ["keeper"] },
    ];

    private readonly Random random = new((int)seed);

    internal Definition Definition()
    {
        var fields = Enumerable.Range(0, 7).Select(i => new Field(Name("f", i), $"Field {i}", Type(i), Rest: Rest())).ToArray();
        var type = new RecordType("thing", "Thing", "f3", [.. fields],
            [
                new("main", "Main",
                [
                    new("t0", "Tab 0", [new("s0", "Section 0", ["f0", "f1"]), new("s1", "Section 1", ["f2", "f3"], Rest())]),
                    new("t1", "Tab 1", [new("s2", "Section 2", ["f4", "f5", "f6"])]),
                ]),
            ],
            [
                new("long", "Long", [new("first", "First"), new("middle", "Middle"), new("last", "Last")],
                    [new("on", "On", "first", "middle"), new("end", "End", "middle", "last") { Roles = ["keeper"] }]),
                new("brief", "Brief", [new("first", "First"), new("last", "Last")], [new("on", "On", "first", "last")]),
            ])
        {
            Roles = [new("keeper", "Keeper"), new("guest", "Guest")],
        };
        return new(type, [.. Enumerable.Range(0, random.Next(1, 8)).Select(i => Rule(type, i))]);
    }

    internal static RuleProgram Compile(Definition definition)
    {
        var (program, problems) = RuleProgram.Compile(definition);
        Assert.Empty(problems);
        return program!;
    }

    internal Setting Setting() => Pick(Settings);

    internal RecordValues Record(RecordType type) => type.Fields.Aggregate(
        RecordValues.Empty, (record, field) => random.Next(3) == 0 ? record : record.With(field.Key, Value(field.Type)));

    internal List<KeyValuePair<string, Value>> Edits(RecordType type, int most = 6) =>
        [.. Enumerable.Range(0, random.Next(1, most + 1)).Select(_ => Pick(type.Fields.ToArray())).Select(f => KeyValuePair.Create(f.Key, Value(f.Type)))];

    internal void Shuffle<T>(List<T> list) => random.Shuffle(System.Runtime.InteropServices.CollectionsMarshal.AsSpan(list));

    private static FieldType Type(int i) => (i % 4) switch
    {
        0 => new YesNoType(),
        1 => new ChoiceType([new("a", "A"), new("b", "B"), new("c", "C")]),
        2 => new NumberType(),
        _ => new TextType(),
    };

    private static string Name(string prefix, int i) => prefix + i.ToString(CultureInfo.InvariantCulture);

    private T Pick<T>(params T[] from) => from[random.Next(from.Length)];

    private Rest? Rest() => random.Next(6) == 0
        ? new(Pick(Enum.GetValues<Visibility>()), Pick(Enum.GetValues<Requirement>()), Pick(Enum.GetValues<Access>()))
        : null;

    private Value Value(FieldType type) => random.Next(4) == 0 ? Values.Value.Blank : type switch
    {
        YesNoType => new YesNo(random.Next(2) == 0),
        ChoiceType => new Choice(Pick("a", "b", "c")),
        NumberType => new Number(random.Next(3)),
        _ => new Text(Pick("x", "y", "xy")),
    };

    private Rule Rule(RecordType type, int i)
    {
        var cases = Enumerable.Range(0, random.Next(1, 3)).Select(_ => new Case([.. Effects()], Condition(type, 0))).ToList();
        if (random.Next(5) == 0)
        {
            cases.Add(new([.. Effects()]));
        }

        return new(Name("r", i), $"Rule {i}", [.. cases], On: random.Next(10) != 0);
    }

    private IEnumerable<Effect> Effects() => Enumerable.Range(0, random.Next(1, 3)).Select(_ => Effect()).DistinctBy(e => (Facets.Of(e), e.Targets[0]));

    private Effect Effect()
    {
        var target = random.Next(4) switch
        {
            0 => Element.Section(Name("s", random.Next(3))),
            1 when random.Next(3) == 0 => Element.Tab(Name("t", random.Next(2))),
            _ => Element.Field(Name("f", random.Next(7))),
        };
        return random.Next(8) switch
        {
            0 => new Show([target]),
            1 or 2 => new Hide([target]),
            3 => new Hide([target], HiddenValue.Clear),
            4 => new Require([target], Pick(Requirement.ToMoveOn, Requirement.ToSave)),
            5 => new MakeOptional([target]),
            6 => new Core.Rules.Lock([target]),
            _ => new Unlock([target]),
        };
    }

    private Condition Condition(RecordType type, int depth) => random.Next(depth == 2 ? 5 : 7) switch
    {
        5 or 6 => new Group(Pick(Enum.GetValues<Quantifier>()),
            [.. Enumerable.Range(0, random.Next(1, 4)).Select(_ => Condition(type, depth + 1))]),
        0 when random.Next(3) == 0 => Clause(new StageSubject(), FittingTests.Stages, () => new Text(Pick("first", "middle", "last"))),
        1 when random.Next(3) == 0 => Clause(new RoleSubject(), FittingTests.Roles, () => new Text(Pick("keeper", "guest"))),
        _ => FieldClause(type, Pick(type.Fields.ToArray())),
    };

    private Clause FieldClause(RecordType type, Field field)
    {
        var twin = type.Fields.Last(f => f.Type.GetType() == field.Type.GetType());
        var clause = Clause(new FieldSubject(field.Key), FittingTests.Of(field.Type), Filled);
        return clause.Test.Shape() == TestShape.One && random.Next(5) == 0
            ? clause with { Comparands = [new FieldComparand(twin.Key)] }
            : clause;

        Value Filled()
        {
            Value value;
            do
            {
                value = Value(field.Type);
            }
            while (value.IsBlank);
            return value;
        }
    }

    private Clause Clause(Subject subject, IEnumerable<Test> tests, Func<Value> value)
    {
        var test = Pick(tests.ToArray());
        var count = test.Shape() switch { TestShape.Alone => 0, TestShape.One => 1, TestShape.Range => 2, _ => random.Next(1, 3) };
        return new(subject, test) { Comparands = [.. Enumerable.Range(0, count).Select(_ => new Literal(value()))] };
    }
}
