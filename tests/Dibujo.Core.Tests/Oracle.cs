using Dibujo.Core.Conditions;
using Dibujo.Core.Expressions;
using Dibujo.Core.Forms;
using Dibujo.Core.Programs;
using Dibujo.Core.Records;
using Dibujo.Core.Rules;
using Dibujo.Core.Values;

namespace Dibujo.Core.Tests;

/// <summary>
/// The rule model read off its description as plainly as can be, for the small random worlds of <see cref="Chance"/>:
/// no indexes, no sharing, everything anew at every look. Only for fields as wholes, and where nobody changed a field of a cycle.
/// </summary>
internal sealed class Oracle
{
    /// <summary>In place of a field where a rule decides over something whose own value it does not look at.</summary>
    internal const string Nobody = "";

    private readonly Definition definition;
    private readonly RecordValues saved;
    private readonly IReadOnlyDictionary<string, Value> changes;
    private readonly Setting setting;
    private readonly IRecordLookup records;
    private readonly SubjectTypes subjects;
    private readonly Oracle? whenSaved;
    private readonly Circles? circles;
    private readonly bool givesValues;
    private RecordValues live;

    /// <summary>For a rule as it decides over a field of a cycle, the case in which it was applied last.</summary>
    private readonly Dictionary<(int Rule, string OwnField), int> applied = [];

    internal Oracle(
        Definition definition, RecordValues saved, IReadOnlyDictionary<string, Value> changes, Setting setting, IRecordLookup records,
        Circles? circles = null, bool givesValues = true)
    {
        this.definition = definition;
        this.saved = saved;
        this.changes = changes;
        this.setting = setting;
        this.records = records;
        this.givesValues = givesValues;
        subjects = new(definition.RecordType);
        live = saved;
        // Before anything was changed, no move was attempted and no value given: what was in force then gives none now.
        whenSaved = givesValues && !setting.IsNew
            ? new(definition, saved, new Dictionary<string, Value>(StringComparer.Ordinal), setting with { Move = null }, records, circles, givesValues: false)
            : null;
        this.circles = circles;
        if (circles is not null)
        {
            foreach (var (together, rules) in circles.InOrder)
            {
                Settle(together, rules);
            }

            return;
        }

        for (var round = 0; round <= 2 * definition.RecordType.Fields.Length; round++)
        {
            live = definition.RecordType.Fields.Aggregate(RecordValues.Empty, (next, f) => next.With(f.Key, ValueOf(f)));
        }
    }

    /// <summary>Whether every cycle came to rest.</summary>
    internal bool IsSettled { get; private set; } = true;

    private Form Form => definition.RecordType.Forms.First(f => setting.Form is null || f.Key == setting.Form);

    /// <summary>The state of every field, by visibility, access and requirement.</summary>
    internal Dictionary<string, (bool Visible, Access Access, Requirement Requirement, Value Value)> States() =>
        definition.RecordType.Fields.ToDictionary(
            f => f.Key, f => (IsOnForm(f.Key) && !Hiding(f.Key).Hidden, AccessTo(f.Key), RequirementOn(f.Key), live[f.Key]));

    /// <summary>The rules of a circle one after another in list order, and again, until nothing changes: the case first, then all that it does at once.</summary>
    private void Settle(string[] together, (int Rule, string OwnField)[] rules)
    {
        foreach (var rule in rules)
        {
            applied[rule] = -1;
        }

        for (var round = 0; round < 50; round++)
        {
            var before = Now();
            foreach (var rule in rules.GroupBy(one => one.Rule))
            {
                foreach (var (one, @case) in rule.Select(one => (one, Decided(one.Rule, one.OwnField))).ToList())
                {
                    applied[one] = @case;
                }

                Offer();
            }

            Offer();
            if (before == Now())
            {
                // At rest each is applied as it is decided.
                applied.Clear();
                return;
            }
        }

        IsSettled = false;

        string Now() => string.Join('|', together.Select(key => live[key].Plain)) + string.Join(',', rules.Select(rule => applied[rule]));

        void Offer() => live = together.Select(key => (Key: key, Value: ValueOf(definition.RecordType.Find(key)!))).ToList()
            .Aggregate(live, (next, one) => next.With(one.Key, one.Value));
    }

    private Value ValueOf(Field field)
    {
        var (hidden, value) = Hiding(field.Key);
        if (hidden && value != HiddenValue.Keep)
        {
            return value == HiddenValue.Clear ? Value.Blank : field.Default?.In(setting, field.Type) ?? Value.Blank;
        }

        var given = GivenTo(field);
        return given is Calculate calculate ? Found(calculate.From, field)
            : IsOnForm(field.Key) && !hidden && AccessTo(field.Key) == Access.Open && changes.TryGetValue(field.Key, out var change) ? change
            : given is SetValue set ? Found(set.To, field)
            : given is ClearValue ? Value.Blank
            : given is ResetValue ? field.Default?.In(setting, field.Type) ?? Value.Blank
            : saved[field.Key];
    }

    private Value Found(Comparand from, Field field) => field.Type.Fit(Look(from, field.Type, field.Key)) ?? Value.Blank;

    /// <summary>The highest effect that says something of the field's value now.</summary>
    private Effect? GivenTo(Field field) => InForce(field.Key)
        .Where(e => e.Effect is FieldEffect and not Narrow && ((FieldEffect)e.Effect).Field == field.Key)
        .Where(e => e.Effect is Calculate || (givesValues && whenSaved?.CaseOf(e.Rule, field.Key) != e.Case))
        .Select(e => e.Effect).FirstOrDefault();

    private (bool Hidden, HiddenValue Value) Hiding(string field)
    {
        var levels = Chain(field).Select(level => (level.AtRest, Claim: HighestHiding(level.Element, field))).ToList();
        return (levels.Any(l => l.Claim is Hide || (l.Claim is null && l.AtRest.Visibility == Visibility.Hidden)),
            levels.Select(l => (l.Claim as Hide)?.Value ?? HiddenValue.Keep).FirstOrDefault(v => v != HiddenValue.Keep));
    }

    private Access AccessTo(string field)
    {
        if (GivenTo(definition.RecordType.Find(field)!) is Calculate)
        {
            return Access.Locked;
        }

        var claim = Levels(field).Select(level => Highest(level, Facet.Access, field)).FirstOrDefault(c => c is not null);
        return claim switch
        {
            Core.Rules.Lock => Access.Locked,
            Unlock => Access.Open,
            _ => Levels(field).SelectMany(level => level).Any(e => e.AtRest.Access == Access.Locked) ? Access.Locked : Access.Open,
        };
    }

    private Requirement RequirementOn(string field)
    {
        var claim = Levels(field).Select(level => Highest(level, Facet.Requirement, null)).FirstOrDefault(c => c is not null);
        return claim switch
        {
            Require require => require.Level,
            MakeOptional => Requirement.Optional,
            _ => Levels(field).Select(level => level.Select(e => e.AtRest.Requirement).DefaultIfEmpty().Max()).FirstOrDefault(r => r != Requirement.Optional),
        };
    }

    private bool IsOnForm(string field) => Form.Fields().Contains(field);

    /// <summary>The field and what encloses it on the form at hand: seen only if all of them are.</summary>
    private IEnumerable<(Element Element, Rest AtRest)> Chain(string field) =>
        !IsOnForm(field) ? [Itself(field)] : [Itself(field), .. Sections(Form, field), .. Tabs(Form, field), .. Doors()];

    /// <summary>What decides over access and requirement, the nearest first: sections and tabs count wherever they stand.</summary>
    private IEnumerable<List<(Element Element, Rest AtRest)>> Levels(string field) =>
    [
        [Itself(field)],
        [.. definition.RecordType.Forms.SelectMany(form => Sections(form, field))],
        [.. definition.RecordType.Forms.SelectMany(form => Tabs(form, field))],
        .. IsOnForm(field) ? Doors().Select(door => new List<(Element, Rest)> { door }) : [],
    ];

    private (Element Element, Rest AtRest) Itself(string field) => (Element.Field(field), definition.RecordType.Find(field)!.Rest ?? Rest.Ordinary);

    private static IEnumerable<(Element Element, Rest AtRest)> Sections(Form form, string field) => form.Tabs.SelectMany(tab => tab.Sections)
        .Where(s => s.Fields.Contains(field)).Select(s => (Element.Section(s.Key), s.Rest ?? Rest.Ordinary));

    private static IEnumerable<(Element Element, Rest AtRest)> Tabs(Form form, string field) => form.Tabs
        .Where(tab => tab.Sections.Any(s => s.Fields.Contains(field))).Select(tab => (Element.Tab(tab.Key), tab.Rest ?? Rest.Ordinary));

    private IEnumerable<(Element Element, Rest AtRest)> Doors() => [(Element.Form(Form.Key), Form.Rest ?? Rest.Ordinary), (Element.Record, Rest.Ordinary)];

    private Effect? Highest(List<(Element Element, Rest AtRest)> level, Facet facet, string? ownField) => InForce(ownField)
        .Where(e => Facets.Of(e.Effect) == facet && e.Effect is StateEffect state && level.Exists(l => state.Targets.Contains(l.Element)))
        // What one rule says of two groups of a field: the stricter.
        .OrderBy(e => e.Rule).ThenBy(e => e.Effect is Core.Rules.Lock ? 0 : e.Effect is Require require ? -(int)require.Level : 1)
        .Select(e => e.Effect).FirstOrDefault();

    /// <summary>As <see cref="Highest"/> for visibility, where jumping ahead and ending the form hide too.</summary>
    private Effect? HighestHiding(Element element, string ownField) => InForce(ownField)
        .Select(e => e.Effect switch
        {
            StateEffect state and (Show or Hide) when state.Targets.Contains(element) => e.Effect,
            JumpAhead jump when Between(e.Condition, jump.To).Contains(element) => new Hide([element]),
            EndForm when Between(e.Condition, null).Contains(element) => new Hide([element]),
            _ => null,
        })
        .FirstOrDefault(effect => effect is not null);

    /// <summary>What stands whole between the last field that the condition looks at and an element.</summary>
    private HashSet<Element> Between(Condition? condition, Element? to)
    {
        var order = Form.Tabs.SelectMany(tab => tab.Sections
            .SelectMany(section => section.Fields.Select(Element.Field).Prepend(Element.Section(section.Key))).Prepend(Element.Tab(tab.Key))).ToList();
        var drivers = Drivers(condition).Select(key => order.IndexOf(Element.Field(key))).ToList();
        if (drivers.DefaultIfEmpty(-1).Max() < 0 || (to is { } there && !order.Contains(there)))
        {
            return [];
        }

        var start = drivers.Max() + 1;
        var end = to is { } known ? order.IndexOf(known) : order.Count;
        var within = order.Take(end).Skip(start).ToHashSet();
        return [.. within.Where(e => FieldsOf(e).All(within.Contains))];
    }

    private IEnumerable<Element> FieldsOf(Element element) => element.Kind switch
    {
        ElementKind.Tab => Form.Tabs.First(t => t.Key == element.Key).Sections.SelectMany(s => s.Fields).Select(Element.Field),
        ElementKind.Section => Form.Tabs.SelectMany(t => t.Sections).First(s => s.Key == element.Key).Fields.Select(Element.Field),
        _ => [element],
    };

    private static IEnumerable<string> Drivers(Condition? condition) => condition switch
    {
        Group group => group.Members.SelectMany(Drivers),
        Clause { Subject: FieldSubject { Saved: false } field } => [field.Field],
        Clause { Subject: LinkedSubject linked } => [linked.Via[0]],
        _ => [],
    };

    private IEnumerable<(int Rule, int Case, Condition? Condition, Effect Effect)> InForce(string? ownField) =>
        from rule in Enumerable.Range(0, definition.Rules.Length)
        let number = CaseOf(rule, ownField)
        where number >= 0
        let @case = definition.Rules[rule].AllCases()[number]
        from effect in @case.Effects
        select (rule, number, @case.While, effect);

    private int CaseOf(int number, string? ownField) =>
        applied.TryGetValue((number, ownField is not null && circles?.Own.Contains((number, ownField)) == true ? ownField : Nobody), out var last) ? last : Decided(number, ownField);

    private int Decided(int number, string? ownField)
    {
        var rule = definition.Rules[number];
        var applies = rule.On && (rule.Where?.Covers(Form.Key) ?? true)
            && (rule.Where is null || rule.Where.Channels.IsEmpty || rule.Where.Channels.Contains(setting.Channel));
        return !applies ? -1 : rule.AllCases().ToList().FindIndex(c => c.While is null || Holds(c.While, ownField));
    }

    private bool Holds(Condition condition, string? ownField) => condition switch
    {
        Group { Quantifier: Quantifier.AllOf } all => all.Members.All(m => Holds(m, ownField)),
        Group { Quantifier: Quantifier.AnyOf } any => any.Members.Any(m => Holds(m, ownField)),
        Group none => !none.Members.Any(m => Holds(m, ownField)),
        Clause clause => Holds(clause, ownField),
        _ => throw new ArgumentOutOfRangeException(nameof(condition)),
    };

    private bool Holds(Clause clause, string? ownField)
    {
        var type = subjects.Of(clause.Subject)!;
        if (clause.Subject is StageSubject)
        {
            return Stage(clause.Test, [.. clause.Comparands.Select(c => ((Literal)c).Value.Plain)]);
        }

        var comparands = clause.Comparands.Select(c => Look(c, type, ownField)).ToList();
        var subject = Look(clause.Subject, ownField);
        if (clause.Subject is RoleSubject)
        {
            return comparands.Any(c => setting.Roles.Contains(c.Plain)) == clause.Test is Test.Is or Test.OneOf;
        }

        bool Compare(Func<int, bool> fits, int with = 0) =>
            !subject.IsBlank && !comparands[with].IsBlank && fits(Order(subject, comparands[with]));
        return clause.Test switch
        {
            Test.Changed => !subject.Equals(Look(SavedTwin(clause.Subject), ownField)),
            Test.Unchanged => subject.Equals(Look(SavedTwin(clause.Subject), ownField)),
            Test.Blank => subject.IsBlank,
            Test.FilledIn => !subject.IsBlank,
            Test.Complete => type.IsComplete(subject),
            Test.Incomplete => !type.IsComplete(subject),
            Test.Is or Test.OneOf => comparands.Any(c => !c.IsBlank && !subject.IsBlank && Order(subject, c) == 0),
            Test.IsNot or Test.NoneOf => !comparands.Any(c => !c.IsBlank && !subject.IsBlank && Order(subject, c) == 0),
            Test.IncludesAny => comparands.Exists(c => Keys(c).Intersect(Keys(subject)).Any()),
            Test.IncludesNone => !comparands.Exists(c => Keys(c).Intersect(Keys(subject)).Any()),
            Test.IncludesAll => !subject.IsBlank && comparands.TrueForAll(c => !c.IsBlank && !Keys(c).Except(Keys(subject)).Any()),
            Test.DoesNotIncludeAll => subject.IsBlank || !comparands.TrueForAll(c => !c.IsBlank && !Keys(c).Except(Keys(subject)).Any()),
            Test.Contains => Texts((s, c) => s.Contains(c, StringComparison.OrdinalIgnoreCase)),
            Test.DoesNotContain => !Texts((s, c) => s.Contains(c, StringComparison.OrdinalIgnoreCase)),
            Test.StartsWith => Texts((s, c) => s.StartsWith(c, StringComparison.OrdinalIgnoreCase)),
            Test.DoesNotStartWith => !Texts((s, c) => s.StartsWith(c, StringComparison.OrdinalIgnoreCase)),
            Test.LessThan or Test.Before => Compare(o => o < 0),
            Test.AtMost or Test.OnOrBefore => Compare(o => o <= 0),
            Test.AtLeast or Test.FromOn => Compare(o => o >= 0),
            Test.MoreThan or Test.After => Compare(o => o > 0),
            Test.Between => Compare(o => o >= 0) && Compare(o => o <= 0, 1),
            Test.NotBetween => !(Compare(o => o >= 0) && Compare(o => o <= 0, 1)),
            _ => throw new ArgumentOutOfRangeException(nameof(clause)),
        };

        bool Texts(Func<string, string, bool> fits) => !subject.IsBlank && !comparands[0].IsBlank && fits(subject.Plain, comparands[0].Plain);
    }

    private static Subject SavedTwin(Subject subject) => (FieldSubject)subject with { Saved = true };

    private static System.Collections.Immutable.ImmutableArray<string> Keys(Value value) => value is Choices choices ? choices.Keys : value.IsBlank ? [] : [value.Plain];

    private bool Stage(Test test, string[] stages)
    {
        var order = definition.RecordType.FindWorkflow(setting.Workflow)!.Stages.Select(s => s.Key).ToList();
        var here = order.IndexOf(setting.Stage);
        return test switch
        {
            Test.Is or Test.OneOf => stages.Contains(setting.Stage),
            Test.IsNot or Test.NoneOf => !stages.Contains(setting.Stage),
            Test.Before => order.IndexOf(stages[0]) is >= 0 and var there && here < there,
            Test.After => order.IndexOf(stages[0]) is >= 0 and var there && here > there,
            _ => order.IndexOf(stages[0]) is >= 0 and var there && here >= there,
        };
    }

    private Value Look(Comparand comparand, FieldType type, string? ownField) => comparand switch
    {
        Literal literal => type.Fit(literal.Value)!,
        SubjectComparand other => Look(other.Subject, ownField),
        RelativeDay { Unit: DayUnit.Days } day => new Date(Today.AddDays(day.Amount)),
        RelativeDay { Unit: DayUnit.Months } day => new Date(Today.AddMonths(day.Amount)),
        RelativeDay day => new Date(Today.AddYears(day.Amount)),
        ExpressionComparand { Expression: var text } => Fitted(Expression.Parse(text).Expression!
            .Evaluate(name => FeelValue.Of(Look(NameResolution.Resolve(name, subjects)!, ownField))).ToValue(), type),
        _ => throw new ArgumentOutOfRangeException(nameof(comparand)),
    };

    private static Value Fitted(Value value, FieldType type) => value is Number number && type is NumberType { Scale: var scale }
        ? new Number(Math.Round(number.Amount, scale, MidpointRounding.AwayFromZero))
        : type.Fit(value) ?? Value.Blank;

    private DateOnly Today => DateOnly.FromDateTime(setting.Now);

    private Value Look(Subject subject, string? ownField) => subject switch
    {
        FieldSubject { Part: { } part } field => Look(field with { Part = null }, ownField) is Compound whole ? whole[part] : Value.Blank,
        FieldSubject field => field.Saved || field.Field == ownField ? saved[field.Field] : live[field.Field],
        LinkedSubject linked => Follow(linked, ownField),
        WorkflowSubject => new Choice(setting.Workflow),
        MoveSubject => setting.Move is null ? Value.Blank : new Choice(setting.Move),
        RoleSubject => new Choices(setting.Roles),
        PersonSubject => setting.Person is null ? Value.Blank : new Person(setting.Person),
        NewSubject => new YesNo(setting.IsNew),
        FormSubject => new Choice(Form.Key),
        ChannelSubject => new Choice(SubjectTypes.KeyOf(setting.Channel)),
        UseSubject => new Choice(SubjectTypes.KeyOf(setting.Use)),
        TodaySubject => new Date(Today),
        NowSubject => new Moment(setting.Now),
        _ => Value.Blank,
    };

    private Value Follow(LinkedSubject linked, string? ownField)
    {
        var here = Look(new FieldSubject(linked.Via[0]), ownField);
        foreach (var next in linked.Via.Skip(1).Append(linked.Field))
        {
            here = here is Link link ? records.Find("other", link.Record)?[next] ?? Value.Blank : Value.Blank;
        }

        return here;
    }

    private static int Order(Value one, Value other) => (one, other) switch
    {
        (Number a, Number b) => a.Amount.CompareTo(b.Amount),
        // A day beside a moment counts as its whole day.
        (Date, Moment) or (Moment, Date) => At(one).Date.CompareTo(At(other).Date),
        (Date or Moment, Date or Moment) => At(one).CompareTo(At(other)),
        _ => string.Compare(one.Plain, other.Plain, StringComparison.OrdinalIgnoreCase),
    };

    private static DateTime At(Value value) => value is Date date ? date.Day.ToDateTime(TimeOnly.MinValue) : ((Moment)value).At;
}

/// <summary>Which fields are settled together, and in which order: it is taken from the program, as only what happens within a circle is in question.</summary>
/// <param name="InOrder">The fields of each, and the rules that decide over them and look at them, highest first.</param>
/// <param name="Own">The rules that look at a field over which they decide, with that field.</param>
internal sealed record Circles(IReadOnlyList<(string[] Fields, (int Rule, string OwnField)[] Rules)> InOrder, IReadOnlySet<(int Rule, string OwnField)> Own)
{
    internal static Circles Of(RuleProgram program) => new(
        [.. program.Order.Cycles.Select(cycle => (
            cycle.Fields.Select(field => program.Fields[field].Key).ToArray(), cycle.Variants.Select(variant => Name(program, variant)).ToArray()))],
        Enumerable.Range(0, program.Variants.Count).Select(variant => Name(program, variant)).Where(one => one.OwnField != Oracle.Nobody).ToHashSet());

    private static (int Rule, string OwnField) Name(RuleProgram program, int variant) =>
        (program.Variants.RankOf(variant), program.Variants.Codes[variant].OwnField is >= 0 and var own ? program.Fields[own].Key : Oracle.Nobody);
}
