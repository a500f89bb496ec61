using System.Collections.Immutable;
using Dibujo.Core.Conditions;
using Dibujo.Core.Forms;
using Dibujo.Core.Records;
using Dibujo.Core.Rules;

namespace Dibujo.Core.Sentences;

/// <summary>Reads the sentences that <see cref="SentenceWriter"/> writes, by recursive descent without going back.</summary>
internal sealed class SentenceParser
{
    private const int MaxDepth = 24;

    private static readonly Severity[] Severities = [Severity.StopsSaving, Severity.StopsMoving, Severity.Warning, Severity.Note];

    /// <summary>Every beginning of an effect, the most usual first.</summary>
    private static readonly string[] Verbs =
    [
        "require", "show", "hide", "lock", "unlock", "make optional", "set", "calculate", "empty", "narrow", "suggest setting",
        .. Severities.Select(Wording.Verb), "jump ahead to", "end the form with",
    ];

    private readonly SentenceReader reader;
    private readonly Names names;
    private readonly ValueReader values;

    internal SentenceParser(SentenceReader reader, Names names)
    {
        this.reader = reader;
        this.names = names;
        values = new(reader, names);
    }

    /// <summary>The rule that the sentence says, with name, key and so on of another.</summary>
    internal Rule Rule(Rule like)
    {
        foreach (var beginning in (string[])["While", "Always", "Only", "By"])
        {
            reader.Expect(beginning, PartKind.Keyword);
        }

        var where = Scope();
        var rule = like with { Where = where, Table = null, Cases = [] };
        rule = reader.Take("by") ? rule with { Table = new TableParser(this, reader, values, names).Table() } : rule with { Cases = Cases() };
        reader.Take(".");
        return reader.IsAtEnd ? rule : throw reader.Fail();
    }

    internal ImmutableArray<Element> Targets() => values.DemandList("and", Target, IsVerbAhead);

    internal Element Target()
    {
        var isContainer = reader.IsAhead("section") || reader.IsAhead("tab") || reader.IsAhead("form");
        if (!isContainer && reader.TakeName(names.Fields, PartKind.Target) is { } field)
        {
            return values.TakePart(field) is { } part ? Element.Part(field, part) : Element.Field(field);
        }

        return Container() ?? throw reader.Fail();
    }

    /// <summary>A test with what it compares with, on a subject of that type.</summary>
    internal (Test Test, ImmutableArray<Comparand> Comparands) Test(Subject subject, FieldType type)
    {
        var fitting = FittingTests.Of(subject, type);
        foreach (var test in fitting)
        {
            reader.Expect(Wording.Of(test), PartKind.Test);
        }

        Test? found = fitting.OrderByDescending(test => Wording.Of(test).Length).Cast<Test?>()
            .FirstOrDefault(test => reader.IsAhead(Wording.Of(test!.Value).Split(" … ")[0]));
        if (found is not { } known)
        {
            throw reader.Fail();
        }

        var words = Wording.Of(known).Split(" … ");
        reader.Take(words[0]);
        var comparands = Comparands(known, FittingTests.Compared(known, type));
        if (words.Length > 1)
        {
            reader.Demand(words[1]);
        }

        return (known, comparands);
    }

    private ImmutableArray<Comparand> Comparands(Test test, FieldType type)
    {
        switch (test.Shape())
        {
            case TestShape.Alone:
                return [];
            case TestShape.One:
                return [values.DemandComparand(type)];
            case TestShape.Range:
                var low = values.DemandComparand(type);
                reader.Demand("and");
                return [low, values.DemandComparand(type)];
            default:
                return reader.Take("only") ? [values.DemandComparand(type)] : values.DemandList(Wording.Between(test), () => values.DemandComparand(type));
        }
    }

    private Element? Container() =>
        reader.Take("section") ? Element.Section(reader.TakeName(names.Sections, PartKind.Target) ?? throw reader.Fail())
        : reader.Take("tab") ? Element.Tab(reader.TakeName(names.Tabs, PartKind.Target) ?? throw reader.Fail())
        : reader.Take(Names.Record) ? Element.Record
        : reader.Take("form") ? Element.Form(reader.TakeName(names.Forms, PartKind.Target) ?? throw reader.Fail())
        : null;

    private Scope? Scope()
    {
        if (!reader.IsAhead("only"))
        {
            return null;
        }

        reader.Take("only");
        ImmutableArray<string> forms = reader.Take("on")
            ? values.DemandList("or", () => reader.TakeName(names.Forms, PartKind.Detail) ?? throw reader.Fail())
            : [];
        var channels = names.Options(SubjectTypes.Channels);
        ImmutableArray<string> through = reader.Take("through")
            ? values.DemandList("or", () => reader.TakeName(channels, PartKind.Detail) ?? throw reader.Fail())
            : [];
        reader.Demand(":");
        return new() { Forms = forms, Channels = [.. through.Select(key => Enum.GetValues<Channel>().First(c => SubjectTypes.KeyOf(c) == key))] };
    }

    private ImmutableArray<Case> Cases()
    {
        var cases = ImmutableArray.CreateBuilder<Case>();
        do
        {
            var isFirst = cases.Count == 0;
            if (reader.Take(isFirst ? "While" : "else while"))
            {
                var condition = Condition(1);
                reader.Demand(",");
                cases.Add(new(Effects(), condition));
            }
            else if (reader.Take(isFirst ? "Always" : "otherwise"))
            {
                cases.Add(new(Effects()));
            }
            else
            {
                throw reader.Fail();
            }
        }
        while (reader.Take(";"));
        return cases.ToImmutable();
    }

    private Condition Condition(int depth)
    {
        DemandDepth(depth);
        var first = Member(depth);
        return reader.Take("and") ? Joined(Quantifier.AllOf, "and", first, depth)
            : reader.Take("or") ? Joined(Quantifier.AnyOf, "or", first, depth)
            : first;
    }

    private void DemandDepth(int depth)
    {
        if (depth > MaxDepth)
        {
            reader.Expect($"at most {MaxDepth} parentheses in each other", PartKind.Keyword, isHint: true);
            throw reader.Fail(reader.At);
        }
    }

    private Group Joined(Quantifier quantifier, string word, Condition first, int depth)
    {
        var members = ImmutableArray.CreateBuilder<Condition>();
        members.Add(first);
        do
        {
            members.Add(Member(depth));
        }
        while (reader.Take(word));
        return new(quantifier, members.ToImmutable());
    }

    private Condition Member(int depth)
    {
        if (reader.IsAhead("("))
        {
            reader.Take("(");
            var inner = Condition(depth + 1);
            reader.Demand(")");
            return inner;
        }

        foreach (var quantifier in Enum.GetValues<Quantifier>())
        {
            if (reader.IsAhead(Wording.Of(quantifier) + " ("))
            {
                reader.Take(Wording.Of(quantifier) + " (");
                var group = Inside(quantifier, depth + 1);
                reader.Demand(")");
                return group;
            }
        }

        var subject = values.DemandSubject();
        if (names.Subjects.Of(subject) is not { } type)
        {
            throw reader.Fail();
        }

        var (test, comparands) = Test(subject, type);
        return new Clause(subject, test) { Comparands = comparands };
    }

    /// <summary>The members of a group that is named: one or more.</summary>
    private Group Inside(Quantifier quantifier, int depth)
    {
        DemandDepth(depth);
        var first = Member(depth);
        var word = quantifier == Quantifier.AllOf ? "and" : "or";
        return reader.Take(word) ? Joined(quantifier, word, first, depth) : new(quantifier, [first]);
    }

    private ImmutableArray<Effect> Effects()
    {
        var effects = ImmutableArray.CreateBuilder<Effect>();
        do
        {
            effects.Add(Effect());
        }
        while (reader.Take("and"));
        return effects.ToImmutable();
    }

    private bool IsVerbAhead() =>
        Array.Exists(Verbs, reader.IsAhead) || reader.IsAhead("clear") || reader.IsAhead("reset");

    private Effect Effect()
    {
        var verb = Array.Find(Verbs, verb => reader.IsAhead(verb));
        foreach (var possible in Verbs)
        {
            reader.Expect(possible, PartKind.Verb);
        }

        if (verb is null)
        {
            throw reader.Fail();
        }

        reader.Take(verb);
        switch (verb)
        {
            case "require":
                return Require();
            case "show":
                return new Show(Targets());
            case "hide":
                return new Hide(Targets(), reader.Take("and clear") ? HiddenValue.Clear : reader.Take("and reset") ? HiddenValue.Reset : HiddenValue.Keep);
            case "lock":
                return new Lock(Targets());
            case "unlock":
                return new Unlock(Targets());
            case "make optional":
                return new MakeOptional(Targets());
            case "set":
                return Set();
            case "calculate":
                var (calculated, from) = Given("as");
                return new Calculate(calculated, from);
            case "empty":
                return new ClearValue(values.DemandField());
            case "narrow":
                var field = values.DemandField();
                reader.Demand("to");
                return new Narrow(field, values.DemandOptions(WithOptions(field)));
            case "suggest setting":
                var (suggested, value) = Given("to");
                reader.Demand("because");
                return new Suggest(suggested, value, values.DemandMessage("the reason in quotation marks"));
            case "jump ahead to":
                return new JumpAhead(Target());
            case "end the form with":
                return new EndForm(values.DemandMessage("a closing note in quotation marks"));
            default:
                var severity = Severities.First(s => Wording.Verb(s) == verb);
                var text = values.DemandMessage("the message in quotation marks");
                return new Message(severity, text, reader.Take("at") ? Target() : null);
        }
    }

    internal FieldType WithOptions(string field) =>
        names.Subjects.Field(field)!.Type is IOffersOptions and FieldType type ? type : throw reader.Fail(reader.At);

    private FieldEffect Set()
    {
        var field = values.DemandField();
        reader.Demand("to");
        return reader.Take(Names.ItsDefault, PartKind.Comparand) ? new ResetValue(field) : new SetValue(field, values.DemandComparand(names.Subjects.Field(field)!.Type));
    }

    private (string Field, Comparand Value) Given(string word)
    {
        var field = values.DemandField();
        reader.Demand(word);
        return (field, values.DemandComparand(names.Subjects.Field(field)!.Type));
    }

    private Require Require()
    {
        var targets = Targets();
        var moves = ImmutableArray<string>.Empty;
        var level = Requirement.ToMoveOn;
        if (reader.Take("to save"))
        {
            level = Requirement.ToSave;
        }
        else if (!reader.Take("to move on"))
        {
            reader.Demand("for");
            moves = values.DemandList("or", () => reader.TakeName(names.Options(names.Subjects.Moves), PartKind.Detail) ?? throw reader.Fail());
        }

        return new(targets, level, reader.Take("saying") ? values.DemandMessage("the message in quotation marks") : null) { Moves = moves };
    }
}
