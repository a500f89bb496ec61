using System.Collections.Immutable;
using System.Globalization;
using Dibujo.Core.Compilation;
using Dibujo.Core.Conditions;
using Dibujo.Core.Forms;
using Dibujo.Core.Programs;
using Dibujo.Core.Records;
using Dibujo.Core.Rules;
using Dibujo.Core.Values;

namespace Dibujo.Core.Tests;

/// <summary>Random definitions, records and edits, small enough that rules meet each other often. The same seed, the same world.</summary>
internal sealed class Chance(uint seed) : IRecordLookup
{
    internal static readonly DateTime Now = new(2026, 11, 24, 9, 30, 0);

    private static readonly Setting[] Settings =
    [
        new("long", "first", Person: "ada", Now: Now), new("long", "middle", Now: Now) { Roles = ["keeper"] },
        new("long", "last", Channel: Channel.Import, Now: Now), new("brief", "first", IsNew: true, Person: "bo", Now: Now) { Roles = ["keeper", "guest"] },
        new("long", "first", Move: "on", Person: "bo", Channel: Channel.List, Now: Now.AddDays(1)),
    ];

    private static readonly ImmutableArray<Option> Abc = [new("a", "A"), new("b", "B"), new("c", "C")];

    private readonly Random random = new((int)seed);
    private RecordType type = null!;

    /// <summary>Labels by which sentences are tested: with spaces, quotation marks, other alphabets, and like each other.</summary>
    internal bool HasOddLabels { get; init; }

    /// <summary>Whether rules act on parts of fields too.</summary>
    internal bool HasPartEffects { get; init; } = true;

    /// <summary>Whether rules alter values.</summary>
    internal bool HasValueEffects { get; init; } = true;

    /// <summary>Whether texts have capitals and space around them.</summary>
    internal bool HasLooseText { get; init; }

    public RecordValues? Find(string recordType, int number) => recordType == "other" && number < 3
        ? RecordValues.Empty.With("g0", new Number(number)).With("g1", new Choice(number == 1 ? "a" : "b")).With("g2", new Link(1))
        : null;

    public bool HasPerson(string userName) => true;

    internal Definition Definition()
    {
        var fields = Enumerable.Range(0, 13).Select(Field).ToArray();
        type = new RecordType("thing", "Thing", "f3", [.. fields],
            [
                new("main", "Main",
                [
                    new("t0", Label("Tab 0"), [new("s0", Label("Section 0"), ["f0", "f1", "f7"]), new("s1", Label("Section 1"), ["f2", "f3", "f8"], Rest())]),
                    new("t1", Label("Tab 1"), [new("s2", Label("Section 2"), ["f4", "f5", "f6", "f9", "f10", "f11", "f12"])]),
                ]),
                new("short", "Short", [new("t0", Label("Tab U"), [new("v0", "Section V", ["f3", "f0", "f6", "f5"], Rest()), new("s1", "Section W", ["f9"])])]),
            ],
            [
                new("long", "Long", [new("first", Label("First")), new("middle", Label("Middle")), new("last", Label("Last"))],
                    [new("on", "On", "first", "middle"), new("end", "End", "middle", "last") { Roles = ["keeper"] }]),
                new("brief", "Brief", [new("first", "First"), new("last", "Last")], [new("on", "On", "first", "last")]),
            ])
        {
            Roles = [new("keeper", "Keeper"), new("guest", "Guest")],
            Linked = [new("other", "Other", [new("g0", "Weight", new NumberType()), new("g1", "Kind", new ChoiceType(Abc)), new("g2", "Owner", new LinkType("other"))])],
        };
        return new(type, [.. Enumerable.Range(0, random.Next(1, 8)).Select(Rule)]);
    }

    internal static RuleProgram Compile(Definition definition)
    {
        var (program, problems) = ProgramCompiler.Compile(definition);
        Assert.Empty(problems);
        return program!;
    }

    internal Setting Setting() => Pick(Settings) with { Form = random.Next(3) == 0 ? "short" : null };

    internal RecordValues Record() => type.Fields.Aggregate(
        RecordValues.Empty, (record, field) => random.Next(3) == 0 ? record : record.With(field.Key, Value(field.Type)));

    internal List<KeyValuePair<string, Value>> Edits(int most = 6) =>
        [.. Enumerable.Range(0, random.Next(1, most + 1)).Select(_ => Pick(type.Fields.ToArray())).Select(f => KeyValuePair.Create(f.Key, Value(f.Type)))
            // Nobody can choose a record that is not there, though one may have been deleted since it was chosen.
            .Where(e => e.Value is not Link { Record: 3 })];

    internal void Shuffle<T>(List<T> list) => random.Shuffle(System.Runtime.InteropServices.CollectionsMarshal.AsSpan(list));

    internal T Pick<T>(params T[] from) => from[random.Next(from.Length)];

    private Field Field(int i)
    {
        FieldType fieldType = i switch
        {
            0 or 4 => new YesNoType(),
            1 or 5 => new ChoiceType(Abc),
            2 or 6 => new NumberType(Scale: 1, Unit: i == 2 ? "kg" : null),
            3 => new TextType(),
            7 => new ChoicesType(Abc),
            8 => new FullNameType(),
            9 => new DateType(),
            10 => new LinkType("other"),
            11 => new PersonType(),
            _ => new DateTimeType(),
        };
        return new(Name("f", i), Label($"Field {i}"), fieldType, Rest: Rest(), Default: random.Next(8) == 0 ? new FixedDefault(Bare(fieldType)) : null);
    }

    private string Label(string plain) => !HasOddLabels ? plain : random.Next(9) switch
    {
        0 => plain + " and more",
        1 => "Größe “" + plain + "”",
        2 => "Field",
        3 => "is " + plain,
        4 => "Stage",
        5 => "hide " + plain,
        6 => "Κιβώτιο, " + plain,
        7 => "Field " + plain[^1] + " is",
        _ => plain,
    };

    private static string Name(string prefix, int i) => prefix + i.ToString(CultureInfo.InvariantCulture);

    private Rest? Rest() => random.Next(6) == 0
        ? new(Pick(Enum.GetValues<Visibility>()), Pick(Enum.GetValues<Requirement>()), Pick(Enum.GetValues<Access>()))
        : null;

    private Value Value(FieldType of) => random.Next(4) == 0 ? Core.Values.Value.Blank : of.Fit(Bare(of))!;

    /// <summary>A value as it stands in a file.</summary>
    private Value Bare(FieldType of) => of switch
    {
        YesNoType => new YesNo(random.Next(2) == 0),
        ChoiceType choice => new Text(Pick(choice.Options.Select(o => o.Key).ToArray())),
        ChoicesType => random.Next(2) == 0 ? new Text(Pick("a", "b", "c")) : new Choices(Pick<ImmutableArray<string>>(["a", "b"], ["b", "c"], ["a", "b", "c"])),
        NumberType or MoneyType => new Number(random.Next(-2, 4) / Pick(1m, 2m)),
        LinkType => new Number(random.Next(1, 4)),
        DateType => new Text(Pick("2026-11-23", "2026-11-24", "2025-01-31")),
        DateTimeType => new Text(Pick("2026-11-24T09:30:00", "2026-11-24T18:00:00", "2025-01-31T00:00:00")),
        FullNameType => Compound.Empty.With(Pick("given", "family"), new Text("x")).With(Pick("given", "family"), new Text(Pick("y", "“z”"))),
        PersonType => new Text(Pick("ada", "bo")),
        _ => new Text(Pick("x", "y", "xy", HasOddLabels ? "a “b” {f0}, and; “" : HasLooseText ? " X " : "x", HasLooseText ? "Xy" : "y")),
    };

    /// <summary>Another rule of the same record type.</summary>
    internal Rule NextRule(int i) => Rule(i);

    private Rule Rule(int i)
    {
        var where = random.Next(8) != 0 ? null : random.Next(2) == 0 ? new Scope { Forms = [Pick("main", "main", "short")] } : new Scope { Channels = [Channel.Form, Channel.Import] };
        var rule = new Rule(Name("r", i), $"Rule {i}", On: random.Next(10) != 0, Where: where);
        if (random.Next(8) == 0 && HasValueEffects)
        {
            return rule with { Table = Table() };
        }

        var cases = Enumerable.Range(0, random.Next(1, 3)).Select(_ => Sound(new Case(Effects(), Condition(0)))).ToList();
        if (random.Next(5) == 0)
        {
            cases.Add(Sound(new(Effects())));
        }

        return rule with { Cases = [.. cases] };
    }

    /// <summary>A table for the definition made last.</summary>
    internal DecisionTable Table()
    {
        ImmutableArray<Subject> drivers = [Subject(), .. random.Next(2) == 0 ? new[] { Subject() } : []];
        ImmutableArray<Output> outputs = [new StateOutput([Target()]), .. random.Next(2) == 0 ? new Output[] { new ValueOutput("f2", Held: random.Next(2) == 0) } : []];
        return new(HitPolicy.First, drivers, outputs, [.. Enumerable.Range(0, random.Next(1, 4)).Select(_ => new Row(
            [.. drivers.Select(driver => random.Next(4) == 0 ? new Cell() : Clause(driver) is var clause ? new Cell(clause.Test) { Comparands = clause.Comparands } : new())],
            [.. outputs.Select(output => random.Next(4) == 0 ? new NoAnswer() : output is StateOutput
                ? (Answer)new StateAnswer([Pick(State.Shown, State.Hidden, State.HiddenAndCleared), Pick(State.RequiredToMoveOn, State.Optional)])
                : new ValueAnswer(new Literal(Bare(new NumberType()))))]))]);
    }

    private ImmutableArray<Effect> Effects() =>
        [.. Enumerable.Range(0, random.Next(1, 3)).Select(_ => Effect())
            .Select(e => !HasValueEffects && e is (SetValue or ClearValue or ResetValue or Calculate or Hide { Value: not HiddenValue.Keep }) ? new Hide([Target()]) : e).DistinctBy(e => (Facets.Of(e), e is StateEffect s ? s.Targets[0].Key : e is FieldEffect f ? f.Field : e.ToString()))];

    /// <summary>Skipping begins after a field at which the condition looks.</summary>
    private Case Sound(Case @case) => !@case.Effects.Any(e => e is JumpAhead or EndForm) ? @case
        : @case.While is null ? @case with { Effects = [new Hide([Element.Field("f1")], HiddenValue.Keep)] }
        : @case with { While = new Group(Pick(Quantifier.AllOf, Quantifier.AnyOf), [Clause(new FieldSubject(Pick("f0", "f1", "f3"))), Clause(Pick<Subject>(new StageSubject(), new RoleSubject(), new NewSubject()))]) };

    private Element Target(bool withRecord = false) => random.Next(6) switch
    {
        0 => Element.Section(Pick("s0", "s1", "s2", "v0")),
        1 when random.Next(3) == 0 => Element.Tab(Name("t", random.Next(2))),
        1 when random.Next(3) == 0 => Element.Form(Pick("main", "short")),
        1 when withRecord => Element.Record,
        2 when HasPartEffects && random.Next(2) == 0 => Element.Part("f8", Pick("given", "family")),
        _ => Element.Field(Name("f", random.Next(13))),
    };

    private Effect Effect()
    {
        var target = Target(withRecord: true);
        var field = Pick(type.Fields.ToArray());
        var kind = random.Next(16);
        if (kind is < 4 or 15 && target == Element.Record)
        {
            // Not to be hidden, and nothing stands beside it.
            target = Element.Field(field.Key);
        }

        return kind switch
        {
            0 => new Show([target]),
            1 or 2 => new Hide([target]),
            3 => new Hide([target], Pick(HiddenValue.Clear, HiddenValue.Reset)),
            4 => new Require([target], Pick(Requirement.ToMoveOn, Requirement.ToSave)),
            5 => new Require([target], Message: random.Next(2) == 0 ? "Say {f3}!" : null) { Moves = ["on"] },
            6 => new MakeOptional([target]),
            7 => new Core.Rules.Lock([target]),
            8 => new Unlock([target]),
            9 or 10 => new SetValue(field.Key, Given(field)),
            11 => random.Next(2) == 0 ? new ClearValue(field.Key) : new ResetValue(field.Key),
            12 => new Calculate(field.Key, Given(field, from: field.Key is "f2" or "f6" ? ["if f0 then f10.g0 else 7", "count(f7)"] : field.Key == "f3" ? ["f1 + \" }“\" + f5", "f8.given"] : null)),
            13 => random.Next(2) == 0 ? new Narrow("f1", Pick<ImmutableArray<string>>(["a"], ["a", "b"], [])) : new Narrow("f7", ["b", "c"]),
            14 => random.Next(2) == 0 ? new JumpAhead(Pick(Element.Field("f6"), Element.Section("s2"))) : new EndForm("No {f3}."),
            _ => random.Next(2) == 0
                ? new Message(Pick(Enum.GetValues<Severity>()), "Because of {f1}", random.Next(2) == 0 ? target : null)
                : new Suggest(field.Key, new Literal(Bare(field.Type)), "Better so."),
        };
    }

    private Comparand Given(Field field, string[]? from = null) => (random.Next(3), field.Type) switch
    {
        (0, NumberType or TextType) when from is not null => new ExpressionComparand(Pick(from)),
        (0, NumberType) => new ExpressionComparand(Pick("f2 + f6", "f6 * 2 - 1", "if f0 then f10.g0 else 7", "count(f7)", "f2 / 3")),
        (0, TextType) => new ExpressionComparand(Pick("f1 + \" }“\" + f5", "upper case(f3)", "f8.given", "string(f2)")),
        (0, DateType) => new RelativeDay(Pick(0, 30, -2), Pick(Enum.GetValues<DayUnit>()) is var unit ? unit : default),
        (1, _) when type.Fields.Where(f => f.Key != field.Key && FittingTests.AreComparable(field.Type, f.Type) && f.Type is not CompoundType).ToArray() is { Length: > 0 } others =>
            new SubjectComparand(new FieldSubject(Pick(others).Key)),
        _ => new Literal(Bare(field.Type)),
    };

    private Condition Condition(int depth) => random.Next(depth == 2 ? 5 : 7) switch
    {
        5 or 6 => new Group(Pick(Enum.GetValues<Quantifier>()), [.. Enumerable.Range(0, random.Next(1, 4)).Select(_ => Condition(depth + 1))]),
        _ => Clause(Subject()),
    };

    private Subject Subject() => random.Next(20) switch
    {
        0 or 1 => new StageSubject(),
        2 => new RoleSubject(),
        3 => Pick<Subject>(new WorkflowSubject(), new MoveSubject(), new NewSubject(), new FormSubject(), new ChannelSubject(), new UseSubject(), new PersonSubject()),
        4 => Pick<Subject>(new TodaySubject(), new NowSubject()),
        5 => new FieldSubject("f8", Pick("given", "family")),
        6 => Pick<Subject>(new LinkedSubject(["f10"], Pick("g0", "g1", "g2")), new LinkedSubject(["f10", "g2"], Pick("g0", "g1"))),
        7 => new FieldSubject(Name("f", random.Next(13)), Saved: true),
        _ => new FieldSubject(Name("f", random.Next(13))),
    };

    private Clause Clause(Subject subject)
    {
        var subjectType = new SubjectTypes(type).Of(subject)!;
        var test = Pick(FittingTests.Of(subject, subjectType).ToArray());
        var count = test.Shape() switch { TestShape.Alone => 0, TestShape.One => 1, TestShape.Range => 2, _ => random.Next(1, 3) };
        return new(subject, test) { Comparands = [.. Enumerable.Range(0, count).Select(_ => Comparand(subject, subjectType))] };
    }

    private Comparand Comparand(Subject subject, FieldType subjectType)
    {
        var twins = type.Fields.Where(f => FittingTests.AreComparable(subjectType, f.Type)).ToArray();
        return random.Next(6) switch
        {
            0 when twins.Length > 0 && subject is not StageSubject and not RoleSubject => new SubjectComparand(new FieldSubject(Pick(twins).Key)),
            1 when subjectType is DateType or DateTimeType => new RelativeDay(Pick(0, -1, 2), Pick(DayUnit.Days, DayUnit.Years)),
            2 when subjectType is NumberType => new ExpressionComparand(Pick("f2 * 2", "1 + 1")),
            _ => new Literal(subjectType is ChoicesType ? new Text(Pick("a", "b", "c")) : Bare(subjectType)),
        };
    }
}
