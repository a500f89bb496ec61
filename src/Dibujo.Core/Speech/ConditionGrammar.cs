using System.Collections.Immutable;
using System.Globalization;
using Dibujo.Core.Conditions;
using Dibujo.Core.Records;
using Dibujo.Core.Values;

namespace Dibujo.Core.Speech;

/// <summary>How names, tests and values that stand beside each other make conditions.</summary>
internal sealed class ConditionGrammar(RecordType type, Comparison comparison)
{
    /// <summary>What "it" is in a condition until it is known what is acted on.</summary>
    internal static readonly Subject It = new FieldSubject("");

    private static readonly Dictionary<Cue, Test> Tests = new()
    {
        [Cue.AtLeast] = Test.AtLeast,
        [Cue.AtMost] = Test.AtMost,
        [Cue.More] = Test.MoreThan,
        [Cue.Less] = Test.LessThan,
        [Cue.Same] = Test.Is,
        [Cue.Before] = Test.Before,
        [Cue.After] = Test.After,
        [Cue.OnOrBefore] = Test.OnOrBefore,
        [Cue.FromOn] = Test.FromOn,
        [Cue.Contains] = Test.Contains,
        [Cue.StartsWith] = Test.StartsWith,
    };

    /// <summary>Tests that are asked without a value.</summary>
    private static readonly Dictionary<Cue, Test> Alone = new() { [Cue.Blank] = Test.Blank, [Cue.Filled] = Test.FilledIn, [Cue.Changed] = Test.Changed };

    /// <summary>Cues that begin a condition, whatever it is.</summary>
    private static readonly Cue[] Openers = [Cue.If, Cue.IfThere, Cue.For, Cue.Once, Cue.OnlyIf, Cue.OnlyFor, Cue.Unless, Cue.Except, Cue.Until, Cue.ElseIf, Cue.NobodyBut, Cue.Only, Cue.EveryoneBut];

    internal IEnumerable<Node> Of(Node left, Node right) => (left, right) switch
    {
        (Node.Said(var cue), Node.Said(var next)) when !(next is Cue.InPast && cue is Cue.Itself or Cue.If or Cue.Once) => Cues(cue, next),
        (Node.Subjects one, Node.Joined(Cue.And or Cue.Or or Cue.Comma or Cue.Nor, Node.Subjects other) joined) when one.Of.Length + other.Of.Length <= 5 && !other.IsNegated && !one.Of.Intersect(other.Of).Any() =>
            [one with { Of = one.Of.AddRange(other.Of), IsAny = joined.By == Cue.Or || one.IsAny }],
        (Node.Choices one, Node.Joined(Cue.And or Cue.Or or Cue.Comma or Cue.Nor, Node.Choices other) joined) when ReferenceEquals(one.Field, other.Field) && one.IsNegated == other.IsNegated =>
            [one with { Keys = [.. one.Keys.Union(other.Keys)], IsAll = joined.By == Cue.And || (joined.By == Cue.Comma && (one.IsAll || other.IsAll)) }],
        (Node.Settings one, Node.Joined(Cue.And or Cue.Or or Cue.Comma or Cue.Nor, Node.Settings other)) when one.Subject == other.Subject && one.IsNegated == other.IsNegated =>
            [one with { Keys = [.. one.Keys.Union(other.Keys)] }],
        (Node.Said(Cue.Not or Cue.No), Node.Choices { IsNegated: false } choices) => [choices with { IsNegated = true }],
        (Node.Said(Cue.Not or Cue.No), Node.Settings { IsNegated: false } settings) => [settings with { IsNegated = true }],
        (Node.Said(Cue.Not), Node.Tail { IsNegated: false } tail) => [tail with { IsNegated = true }],
        (Node.Said(Cue.Neither), Node.Choices { Keys.Length: > 1, IsNegated: false } choices) => [choices with { IsNegated = true }],
        (Node.Said(Cue.Neither), Node.Settings { Keys.Length: > 1, IsNegated: false } settings) => [settings with { IsNegated = true }],
        (Node.Said(Cue.Neither), Node.Subjects { Of.Length: > 1 } subjects) => [subjects with { IsNegated = true }],
        (Node.Said(Cue.Both), Node.Subjects { Of.Length: > 1 } subjects) => [subjects],
        (Node.Said(Cue.Both), Node.Choices choices) => [choices],
        (Node.Said(Cue.Includes), Node.Choices choices) => [choices],
        (Node.Subjects subjects, Node.Said(Cue.Blank or Cue.Filled or Cue.Changed or Cue.Yes or Cue.NoAnswer) said) => Stated(subjects, said.Cue),
        (Node.Subjects subjects, Node.Said(Cue.InPast or Cue.InFuture) said) => Each(subjects, subject => comparison.Of(subject, ToPast(said.Cue))),
        // "No room", "missing valuer"; an answer that is not yes.
        (Node.Said(Cue.No or Cue.Without or Cue.Blank), Node.Subjects subjects) => Lacking(subjects),
        (Node.Said(Cue.For), Node.Subjects subjects) => Costly(0.9, Stated(subjects, Cue.Filled)),
        (Node.Said(Cue.Changed or Cue.Filled) said, Node.Subjects subjects) => Costly(0.1, Stated(subjects, said.Cue)),
        (Node.Said(Cue.IfThere), Node.Subjects { IsNegated: false } subjects) when subjects.Of.All(one => TypeOf(one) is not YesNoType) =>
            Costly(0.1, Stated(subjects, Cue.Filled).OfType<Node.Holds>().Select(holds => new Node.When(holds.Condition))),
        (Node.Said(Cue.PersonWho), Node.Subjects { Of: [var subject] }) when TypeOf(subject) is PersonType =>
            [new Node.Holds(new Clause(subject, Test.Is) { Comparands = [new SubjectComparand(new PersonSubject())] })],
        (Node.Said(Cue.Before or Cue.After or Cue.FromOn or Cue.OnOrBefore) said, Node.Settings { Subject: StageSubject, IsNegated: false } stage) =>
            [new Node.When(Setting(stage, StageTest(said.Cue)!.Value)), new Node.Holds(Setting(stage, StageTest(said.Cue)!.Value))],
        // After the day is when it is over.
        (Node.Said(Cue.AfterDay or Cue.BeforeDay) said, Node.Subjects { Of: [var subject], IsNegated: false }) when TypeOf(subject) is DateType =>
            Costly(0.15, [new Node.When(new Clause(subject, said.Cue == Cue.AfterDay ? Test.Before : Test.After) { Comparands = [new RelativeDay(0)] })]),
        (Node.Said(Cue.Before or Cue.Until), Node.Holds { Condition: Clause { Test: Test.FilledIn } filled }) => Costly(0.05, [new Node.When(filled with { Test = Test.Blank })]),
        (Node.Said(Cue.FromOn or Cue.To or Cue.Into), Node.Holds { Condition: Clause { Subject: RoleSubject or PersonSubject } } holds) => Costly(0.05, [new Node.When(holds.Condition)]),
        (Node.Said(Cue.Itself or Cue.If or Cue.Once) said, Node.Said(Cue.InPast)) => said.Cue == Cue.Itself
            ? [new Node.Holds(new Clause(It, Test.Before) { Comparands = [new RelativeDay(0)] })]
            : Costly(0.2, [new Node.When(new Clause(It, Test.Before) { Comparands = [new RelativeDay(0)] })]),
        (Node.Subjects { Of: [var subject] } subjects, Node.Choices choices) => Chosen(subject, choices, subjects.IsNegated),
        // "The highlights tour" is the choice, or that it is chosen.
        (Node.Choices choices, Node.Subjects { Of: [var subject] }) => Costly(0.1, Chosen(subject, choices, false)).Concat(subject is FieldSubject { Part: null, Saved: false, Field: var key } && key == choices.Field.Key ? [choices with { Cost = 0.05 }] : []),
        (Node.Choices { IsNegated: false } choices, Node.Joined(Cue.For, Node.Subjects { Of: [var subject] })) => Costly(0.1, Chosen(subject, choices, false)),
        (Node.Subjects { Of: [var subject] }, Node.Settings settings) => Costly(0.05, Set(subject, settings)),
        (Node.Settings { Subject: PersonSubject } person, Node.Subjects { Of: [var subject] }) => Costly(0.2, Set(subject, person)),
        (Node.Holds holds, Node.When { IsOnly: false, IsElse: false } when) => Costly(0.25, [new Node.Holds(All(holds.Condition, when.Condition))]),
        (Node.Subjects subjects, Node.Tail tail) => Each(subjects, subject => comparison.Of(subject, tail)),
        (Node.Measured measured, Node.Amount amount) => Costly(0.25, Made(comparison.Of(measured.Subject, new Node.Tail(measured.Test, [amount])))),
        (Node.Tail tail, Node.Measured measured) => Costly(0.2, Made(comparison.Of(measured.Subject, tail))),
        (Node.Holds { Condition: Clause { Subject: var subject } }, Node.Measured measured) when measured.Subject == subject => Costly(-0.3, [left]),
        (Node.Subjects { Of: [var subject] }, Node.Measured measured) when measured.Subject == subject => Costly(-0.45, [measured]),
        // "The crate weighs more than": what is measured belongs to what was named.
        (Node.Subjects { Of: [var subject] }, Node.Measured) when TypeOf(subject) is YesNoType or LinkType => Costly(0.2, [right]),
        (Node.Said(Cue.Be), Node.Measured) => [right],
        (Node.Said(Cue.Not), Node.Measured measured) => [measured with { Test = Opposite(measured.Test) }],
        // "A fee of zero", "longer than two metres": what is measured comes first or last.
        (Node.Subjects { Of: [var subject] }, Node.Amount amount) => Costly(0.15, Made(comparison.Of(subject, new Node.Tail(Test.Is, [amount])))),
        (Node.Tail tail, Node.Subjects { Of: [var subject] }) => Costly(0.5, Made(comparison.Of(subject, tail))),
        (Node.Said(var cue), Node.Amount amount) => Tail(cue, amount).Concat(Days(cue, amount)),
        (Node.Said(var cue), Node.Other other) => Compared(cue, other),
        (Node.Said(Cue.Between), Node.Range range) => [new Node.Tail(Test.Between, [range.From, range.To])],
        (Node.Said(var cue), Node.Subjects { Of: [var subject] }) when Tests.ContainsKey(cue) => Tails(cue, subject),
        (Node.Said(Cue.Contains or Cue.StartsWith or Cue.Same) said, Node.Quoted quoted) => [new Node.Tail(Tests[said.Cue], [quoted])],
        (Node.Said(Cue.Once), Node.Settings { Subject: StageSubject, IsNegated: false } stage) => [new Node.When(Setting(stage, Test.FromOn)), new Node.Holds(Setting(stage, Test.FromOn))],
        (Node.Said(Cue.Includes), Node.Subjects subjects) => [subjects],
        (Node.Said(Cue.Not), Node.When { IsOnly: false, IsElse: false } when) => Costly(0.1, [new Node.When(Comparison.Broken(when.Condition))]),
        (Node.When { Condition: Clause { Subject: StageSubject, Test: Test.FromOn } }, Node.Said(Cue.Onward)) => [left],
        (Node.Settings { Subject: StageSubject, IsNegated: false } stage, Node.Said(Cue.Onward or Cue.OrMore)) => [new Node.Holds(Setting(stage, Test.FromOn))],
        (Node.Holds { Condition: Clause { Subject: StageSubject, Test: Test.Is or Test.FromOn } clause }, Node.Said(Cue.Onward or Cue.OrMore)) => [new Node.Holds(clause with { Test = Test.FromOn })],
        (Node.Amount amount, Node.Said(Cue.OrMore)) => [new Node.Tail(Test.AtLeast, [amount])],
        (Node.Amount amount, Node.Said(Cue.OrLess)) => [new Node.Tail(Test.AtMost, [amount])],
        (Node.Amount amount, Node.Said(Cue.Ago)) when Comparison.FromToday(amount, -1) is { } day => [new Node.Other(day, IsAgo: true)],
        (Node.Amount amount, Node.Said(Cue.FromNow)) when Comparison.FromToday(amount, 1) is { } day => [new Node.Other(day)],
        (Node.Amount low, Node.Joined(Cue.And or Cue.To, Node.Amount high)) => [new Node.Range(low.Unit is null ? low with { Unit = high.Unit } : low, high)],
        // "10 % above the insured value", "six months after the start date".
        (Node.Amount { Unit: "%" } amount, Node.Tail { Test: Test.MoreThan or Test.LessThan, IsNegated: false, With: [Node.Other { Comparand: SubjectComparand { Subject: FieldSubject { Part: null, Saved: false } subject } }] } tail) =>
            [new Node.Other(new ExpressionComparand(string.Create(CultureInfo.InvariantCulture, $"{subject.Field} * {1 + ((tail.Test == Test.MoreThan ? 1 : -1) * amount.Number / 100)}")))],
        (Node.Amount { Unit: "%" } amount, Node.Joined(Cue.For, Node.Subjects { Of: [FieldSubject { Part: null, Saved: false } subject] })) =>
            [new Node.Other(new ExpressionComparand(string.Create(CultureInfo.InvariantCulture, $"{subject.Field} * {amount.Number / 100}")))],
        (Node.Amount amount, Node.Tail { Test: Test.Before or Test.After, IsNegated: false, With: [Node.Other { Comparand: SubjectComparand { Subject: var subject } }] } tail)
            when Comparison.After(amount, subject, tail.Test == Test.After ? '+' : '-') is { } day => [new Node.Other(day), .. Around(amount, subject, tail.Test)],
        (Node.Said(Cue.For or Cue.Within or Cue.Last) said, Node.During during) => Costly(said.Cue == Cue.For ? 0.6 : 0, [new Node.When(during.Condition)]),
        (Node.Said(Cue.Not or Cue.No), Node.Holds holds) => Costly(0.3, [new Node.Holds(Negation.Of(holds.Condition))]),
        // "Adult groups over 20 visitors".
        (Node.Holds { Condition: Clause { Comparands: not [Literal { Value: YesNo }] } one }, Node.Holds { Condition: Clause other }) when one.Subject != other.Subject => Costly(0.65, [new Node.Holds(All(one, other))]),
        (Node.Holds one, Node.Joined joined) => Together(one.Condition, joined),
        (Node.Said(Cue.Both or Cue.Neither) said, Node.Holds { Condition: Group { Quantifier: not Quantifier.NoneOf } group }) => Costly(0.2, [new Node.Holds(said.Cue == Cue.Both ? group : new Group(Quantifier.NoneOf, group.Members))]),
        (Node.Said(var opener), Node.Holds holds) when Openers.Contains(opener) => Opened(opener, holds.Condition),
        (Node.Said(Cue.If or Cue.Only or Cue.OnlyIf or Cue.Comma) said, Node.When when) => Costly(said.Cue == Cue.Comma ? 0.05 : 0, [when with { IsOnly = when.IsOnly || said.Cue is Cue.Only or Cue.OnlyIf }]),
        (Node.Holds { Condition: Clause { Subject: RoleSubject or PersonSubject } } who, Node.Said(Cue.Only)) => [new Node.When(who.Condition, IsOnly: true)],
        (Node.When when, Node.Said(Cue.Only)) => [when with { IsOnly = true }],
        (Node.When one, Node.When other) when !other.IsElse => Costly(one.IsEither ? 0.35 : 0.15, [new Node.When(All(one.Condition, other.Condition), one.IsOnly || other.IsOnly, one.IsElse)]),
        (Node.When one, Node.Joined(Cue.And or Cue.But or Cue.Comma, Node.When other)) when !other.IsElse => Costly(0.1, [new Node.When(All(one.Condition, other.Condition), one.IsOnly || other.IsOnly, one.IsElse)]),
        (Node.When one, Node.Joined(Cue.Or or Cue.OrElse, Node.When other)) when !other.IsElse => Costly(0.1, [new Node.When(Any(one.Condition, other.Condition), one.IsOnly || other.IsOnly, one.IsElse, IsEither: true)]),
        _ => [],
    };

    /// <summary>What a name alone may say: a choice stands for its field, a role for whoever has it.</summary>
    internal IEnumerable<Node> ByItself(Node node) => node switch
    {
        // "For mould and toxic pigment" may be for each of them.
        Node.Choices choices => Costly(0.4, Chosen(new FieldSubject(choices.Field.Key), choices with { IsAll = false }, false))
            .Concat(choices is { IsAll: true, IsNegated: false, Field.Type: ChoicesType } ? Costly(0.4, Chosen(new FieldSubject(choices.Field.Key), choices, false)) : []),
        Node.Settings { Subject: RoleSubject or PersonSubject } settings => Costly(0.25, [new Node.Holds(Setting(settings, Test.Is))]),
        Node.Settings { Subject: StageSubject } settings => Costly(0.35, [new Node.Holds(Setting(settings, Test.Is))]),
        Node.Settings { Subject: MoveSubject } settings => Costly(0.8, [new Node.Holds(Setting(settings, Test.Is))]),
        Node.Settings settings => Costly(0.3, [new Node.Holds(Setting(settings, Test.Is))]),
        Node.Subjects { Of: [var subject], IsNegated: false } when TypeOf(subject) is YesNoType => Costly(0.45, Stated((Node.Subjects)node, Cue.Yes)),
        Node.Amount amount => Costly(0.25, [new Node.Tail(Test.Is, [amount])]),
        Node.Said(Cue.IsNew) => [new Node.Holds(new Clause(new NewSubject(), Test.Is) { Comparands = [new Literal(new YesNo(true))] })],
        Node.Tail { With: [Node.Amount or Node.Range, ..] } tail => OfOnly(tail),
        Node.Other { Comparand: not SubjectComparand } other => Costly(0.3, [new Node.Tail(Test.Is, [other])]),
        _ => [],
    };

    private static Test Opposite(Test test) => test == Test.MoreThan ? Test.AtMost : Test.AtLeast;

    /// <summary>"More than 500 kg": what else could be so heavy, where only one or two can be counted in that unit.</summary>
    private IEnumerable<Node> OfOnly(Node.Tail tail)
    {
        var unit = (tail.With[0] as Node.Amount)?.Unit;
        var counted = measured.Where(field => field.Type is MoneyType ? unit == "money" : ((NumberType)field.Type).Unit is null == unit is null).Select(field => comparison.Of(new FieldSubject(field.Key), tail)).OfType<Condition>().Take(3).ToList();
        return counted.Count is 1 or 2 ? Costly(counted.Count == 1 ? 0.6 : 0.95, counted.Select(one => new Node.Holds(one))) : [];
    }

    /// <summary>"The two weeks before the visit": the day is so near.</summary>
    private IEnumerable<Node> Around(Node.Amount amount, Subject subject, Test test)
    {
        if (TypeOf(subject) is DateType && Comparison.FromToday(amount, test == Test.Before ? 1 : -1) is { } day)
        {
            Comparand today = new RelativeDay(0);
            yield return new Node.During(new Clause(subject, Test.Between) { Comparands = test == Test.Before ? [today, day] : [day, today] });
        }
    }

    private readonly ImmutableArray<Field> measured = [.. type.Fields.Where(field => !field.Retired && field.Type is NumberType or MoneyType)];

    private FieldType? TypeOf(Subject subject) => subject is FieldSubject { Part: null, Field: var key } ? type.Find(key)?.Type : null;

    private static IEnumerable<Node> Cues(Cue cue, Cue next) => (cue, next) switch
    {
        (Cue.Not, Cue.Blank) => [new Node.Said(Cue.Filled)],
        (Cue.Not, Cue.Filled) => [new Node.Said(Cue.Blank)],
        (Cue.Not, Cue.Yes) => [new Node.Said(Cue.NoAnswer)],
        (Cue.Comma, Cue.And or Cue.But or Cue.Then or Cue.Nor or Cue.Otherwise or Cue.ElseIf) => [new Node.Said(next)],
        // "By sea, or by air with a crate": what follows belongs to the second.
        (Cue.Comma, Cue.Or) => [new Node.Said(Cue.OrElse), new Node.Said(Cue.Or) { Cost = 0.55 }],
        (Cue.But, Cue.Not or Cue.No) => [],
        (Cue.Itself, Cue.Blank or Cue.Filled or Cue.Changed) => Costly(0.1, [new Node.Holds(new Clause(It, Alone[next]))]),
        _ => [],
    };

    private static IEnumerable<Node> Tails(Cue cue, Subject subject) => [new Node.Tail(Tests[cue], [new Node.Other(new SubjectComparand(subject))])];

    private static Node.Tail ToPast(Cue cue) => new(cue == Cue.InPast ? Test.Before : Test.After, [new Node.Other(new RelativeDay(0))]);

    private static IEnumerable<Node> Tail(Cue cue, Node value)
    {
        if (Tests.TryGetValue(cue, out var test))
        {
            yield return new Node.Tail(test, [value]);
        }
    }

    /// <summary>"Older than three years", "within a week".</summary>
    private static IEnumerable<Node> Days(Cue cue, Node.Amount amount)
    {
        if (cue == Cue.Older && Comparison.FromToday(amount, -1) is { } before)
        {
            yield return new Node.Tail(Test.Before, [new Node.Other(before)]);
        }
        else if (cue == Cue.Within && Comparison.FromToday(amount, 1) is { } within)
        {
            yield return new Node.Tail(Test.Between, [new Node.Other(new RelativeDay(0)), new Node.Other(within)]);
        }
        else if (cue == Cue.Last && Comparison.FromToday(amount, -1) is { } last)
        {
            yield return new Node.Tail(Test.Between, [new Node.Other(last), new Node.Other(new RelativeDay(0))]);
        }
    }

    private static IEnumerable<Node> Compared(Cue cue, Node.Other other)
    {
        if (Tests.TryGetValue(cue, out var test))
        {
            yield return new Node.Tail(test, [other]);
        }
    }

    private static Test? StageTest(Cue cue) => cue switch
    {
        Cue.Before => Test.Before,
        Cue.After => Test.After,
        Cue.FromOn or Cue.Once => Test.FromOn,
        Cue.OnOrBefore => Test.OnOrBefore,
        _ => null,
    };

    private static IEnumerable<Node> Each(Node.Subjects subjects, Func<Subject, Condition?> asked)
    {
        var all = subjects.Of.Select(asked).ToList();
        if (all.TrueForAll(one => one is not null))
        {
            ImmutableArray<Condition> members = [.. all.Select(one => one!)];
            yield return new Node.Holds(subjects.IsNegated ? new Group(Quantifier.AllOf, [.. members.Select(Negation.Of)])
                : members.Length == 1 ? members[0]
                : new Group(subjects.IsAny ? Quantifier.AnyOf : Quantifier.AllOf, members));
        }
    }

    /// <summary>That it is blank, filled in, changed, yes or no. What is answered with yes or no is rather yes than answered.</summary>
    private IEnumerable<Node> Stated(Node.Subjects subjects, Cue cue) => Costly(cue == Cue.Filled && subjects.Of.Any(one => TypeOf(one) is YesNoType) ? 0.2 : 0, Each(subjects, subject => Alone.TryGetValue(cue, out var test)
        ? comparison.Of(subject, new Node.Tail(test, []))
        : comparison.Of(subject, new Node.Tail(Test.Is, [new Node.Said(cue)]))));

    private IEnumerable<Node> Lacking(Node.Subjects subjects) => Costly(subjects.Of.All(one => TypeOf(one) is YesNoType) ? 0 : 0.15, Each(subjects, subject => TypeOf(subject) is YesNoType
        ? comparison.Of(subject, new Node.Tail(Test.Is, [new Node.Said(Cue.NoAnswer)]))
        : comparison.Of(subject, new Node.Tail(Test.Blank, []))));

    private static IEnumerable<Node> Chosen(Subject subject, Node.Choices choices, bool isNegated)
    {
        if (subject is not FieldSubject { Part: null, Saved: false, Field: var key } || key != choices.Field.Key)
        {
            yield break;
        }

        var several = choices.Field.Type is ChoicesType;
        var not = choices.IsNegated != isNegated;
        var test = (several, choices.Keys.Length, not) switch
        {
            (true, > 1, false) when choices.IsAll => Test.IncludesAll,
            (true, _, false) => Test.IncludesAny,
            (true, _, true) => Test.IncludesNone,
            (_, 1, false) => Test.Is,
            (_, 1, true) => Test.IsNot,
            (_, _, false) => Test.OneOf,
            _ => Test.NoneOf,
        };
        yield return new Node.Holds(new Clause(subject, test) { Comparands = Literals(choices.Keys) });
    }

    private IEnumerable<Node> Set(Subject subject, Node.Settings settings) =>
        settings.Subject is PersonSubject && TypeOf(subject) is PersonType ? [new Node.Holds(Setting(settings with { Subject = subject }, Test.Is))]
        : settings.Subject == subject ? [new Node.Holds(Setting(settings, Test.Is))]
        : [];

    private static Clause Setting(Node.Settings settings, Test test)
    {
        var many = settings.Keys.Length > 1;
        var asked = (test, many, settings.IsNegated) switch
        {
            (Test.Is, true, false) => Test.OneOf,
            (Test.Is, true, true) => Test.NoneOf,
            (Test.Is, false, true) => Test.IsNot,
            _ => test,
        };
        return new Clause(settings.Subject, asked) { Comparands = Literals(asked.Shape() == TestShape.Many ? settings.Keys : settings.Keys[..1]) };
    }

    private static ImmutableArray<Comparand> Literals(ImmutableArray<string> keys) => [.. keys.Select(key => new Literal(new Text(key)))];

    private static IEnumerable<Node> Made(Condition? condition) => condition is null ? [] : [new Node.Holds(condition)];

    private IEnumerable<Node> Together(Condition one, Node.Joined joined)
    {
        var other = joined.Of switch
        {
            Node.Holds holds => holds.Condition,
            // "0 or none at all", "over 50 and below 100": the same is asked something else.
            Node.Tail tail when Asked(one) is { } subject => comparison.Of(subject, tail),
            Node.Said { Cue: var cue } when Alone.TryGetValue(cue, out var test) && Asked(one) is { } subject => comparison.Of(subject, new Node.Tail(test, [])),
            _ => null,
        };
        return (joined.By, other) switch
        {
            (_, null) => [],
            // "Delphine Marrow and the registrars" is whoever of them.
            (Cue.And or Cue.Comma, _) when one is Clause { Subject: RoleSubject or PersonSubject } && other is Clause { Subject: RoleSubject or PersonSubject } => [new Node.Holds(Any(one, other)), new Node.Holds(All(one, other)) { Cost = 0.4 }],
            (Cue.And or Cue.But or Cue.Comma, _) => Costly((joined.By == Cue.Comma ? 0.3 : 0) + (one is Group { Quantifier: Quantifier.AnyOf } || other is Group { Quantifier: Quantifier.AnyOf } ? 0.08 : 0), [new Node.Holds(All(one, other))]),
            (Cue.Or or Cue.OrElse, _) => [new Node.Holds(Any(one, other))],
            (Cue.Nor, _) => Costly(0.1, [new Node.Holds(All(one, Negation.Of(other)))]),
            _ => [],
        };
    }

    private static Subject? Asked(Condition condition) => condition switch
    {
        Clause { Subject: FieldSubject subject } => subject,
        Group { Members: [.., var last] } => Asked(last),
        _ => null,
    };

    private static IEnumerable<Node> Opened(Cue opener, Condition condition)
    {
        var stage = condition is Clause { Subject: StageSubject, Test: Test.Is } clause ? clause : null;
        return opener switch
        {
            Cue.If or Cue.IfThere => [new Node.When(condition)],
            Cue.For => Costly(0.05, [new Node.When(condition)]),
            Cue.Once => [new Node.When(stage is null ? condition : stage with { Test = Test.FromOn })],
            Cue.OnlyIf or Cue.OnlyFor or Cue.NobodyBut or Cue.Only => [new Node.When(condition, IsOnly: true)],
            Cue.Unless or Cue.Except or Cue.EveryoneBut => [new Node.When(Negation.Of(condition))],
            Cue.Until => [new Node.When(stage is null ? Negation.Of(condition) : stage with { Test = Test.Before })],
            Cue.ElseIf => [new Node.When(condition, IsElse: true)],
            // "In the last 30 days": a list of what is otherwise is no condition.
            _ => [],
        };
    }

    internal static Condition All(Condition one, Condition other) => Grouped(Quantifier.AllOf, one, other);

    private static Condition Any(Condition one, Condition other)
    {
        Condition either = one is Clause { Test: Test.Is or Test.OneOf } first && other is Clause { Test: Test.Is or Test.OneOf } second && first.Subject == second.Subject
            && first.Comparands.Concat(second.Comparands).All(one => one is Literal)
            ? first with { Test = Test.OneOf, Comparands = [.. first.Comparands.Union(second.Comparands)] }
            : Grouped(Quantifier.AnyOf, one, other);
        return either;
    }

    private static Group Grouped(Quantifier by, Condition one, Condition other) => new(by,
    [
        .. one is Group first && first.Quantifier == by ? first.Members : [one],
        .. other is Group second && second.Quantifier == by ? second.Members : [other],
    ]);

    internal static IEnumerable<Node> Costly(double more, IEnumerable<Node> nodes) => nodes.Select(node => node with { Cost = node.Cost + more });
}
