using System.Collections.Immutable;
using Dibujo.Core.Conditions;
using Dibujo.Core.Records;
using Dibujo.Core.Values;

namespace Dibujo.Core.Speech;

/// <summary>Hears conditions.</summary>
internal sealed class ConditionListener
{
    /// <summary>What may stand between the words of a yes/no field's name: "a crate is needed" for Crate needed.</summary>
    private static readonly HashSet<string> Fillers =
        new(["is", "are", "was", "were", "be", "been", "being", "has", "have", "gets", "will", "there"], StringComparer.Ordinal);

    private readonly Listener listener;
    private readonly Lexicon lexicon;
    private readonly NameListener names;
    private readonly ValueListener values;
    private readonly TestListener tests;

    /// <summary>What the last clause looked at: "the value is over 5 and under 10" asks twice of the same.</summary>
    private Subject? last;

    private bool isBareAllowed = true;

    internal ConditionListener(Listener listener, Lexicon lexicon, NameListener names, ValueListener values)
    {
        (this.listener, this.lexicon, this.names, this.values) = (listener, lexicon, names, values);
        tests = new(listener, lexicon, names, values);
    }

    /// <summary>Clauses with "and" or "or" between them. Where both stand without parentheses, which goes first is a question.</summary>
    internal Condition? Condition()
    {
        var start = listener.At;
        if (listener.Try(Member) is not { } first)
        {
            return null;
        }

        var members = new List<Condition> { first };
        var starts = new List<int> { start };
        var joints = new List<string>();
        while (Another() is var (joint, at, member))
        {
            joints.Add(joint);
            starts.Add(at);
            members.Add(member);
        }

        if (joints.Contains("or", StringComparer.Ordinal) && joints.Contains("and", StringComparer.Ordinal))
        {
            Ask(starts, joints);
        }

        return members.Count == 1 ? first : new Group(joints[0] == "or" ? Quantifier.AnyOf : Quantifier.AllOf, [.. members]);
    }

    /// <summary>One clause, or several in parentheses.</summary>
    internal Condition? Member() => listener.First<Condition>(
        () => listener.Take("(") && Condition() is { } inner && listener.Take(")") ? inner : null,
        NewRecord, WithRole, StageTime, InStage, AnswerTo, Existence, SharedTest, OnSubject, SameSubject, ImpliedByValue, BareSubject,
        () => listener.Take("once") ? Member() : null);

    private (string Joint, int At, Condition Member)? Another()
    {
        var before = listener.At;
        var comma = listener.Take(",");
        var word = listener.TakeAny("and", "or", "but", "as well as");
        var joint = word ?? (comma ? "and" : null);
        if (joint is not null)
        {
            listener.TookAny("if", "when", "while", "also", "only", "either");
            var at = listener.At;
            // After a mere comma there may as well begin what is to be done.
            isBareAllowed = word is not null;
            var heard = listener.Try(Member);
            isBareAllowed = true;
            if (heard is { } member && (!comma || !listener.IsAtEnd))
            {
                return (joint == "or" ? "or" : "and", at, member);
            }
        }

        listener.At = before;
        return null;
    }

    private void Ask(List<int> starts, List<string> joints)
    {
        var ends = starts.Skip(1).Select(listener.EndOf).Append(listener.EndOf(listener.At)).ToList();
        string Slice(int i) => listener.Said[listener.StartOf(starts[i])..(i < joints.Count ? Before(starts[i + 1], joints[i]) : ends[i])].TrimEnd(' ', ',');
        Wordage With(string tighter)
        {
            var text = "(" + Slice(0);
            var isOpen = true;
            for (var i = 0; i < joints.Count; i++)
            {
                if (joints[i] == tighter)
                {
                    text += $" {joints[i]} {Slice(i + 1)}";
                }
                else
                {
                    text += $"{(isOpen ? ")" : "")} {joints[i]} ({Slice(i + 1)}";
                }
            }

            return new(text + ")", text + ")");
        }

        listener.Ask(starts[0], [With("and"), With("or")]);
    }

    /// <summary>Where the words before that one's joint end.</summary>
    private int Before(int start, string joint)
    {
        for (var word = start - 1; word > 0; word--)
        {
            if (listener.Words[word].Text == joint || listener.Words[word].Text is "but" or ",")
            {
                return listener.EndOf(word);
            }
        }

        return listener.EndOf(start);
    }

    private Clause? NewRecord()
    {
        listener.TookAny("on", "for", "in", "only");
        var word = listener.TakeAny(
            "new records", "new record", "record is new", "it is new", "records are new", "creating", "record is created", "new ones",
            "saved records", "saved record", "existing records", "existing record", "record is saved", "record has been saved", "record exists", "record is not new");
        if (word is null || (word == "new record" && listener.TookAny("is no", "= no", "is not")))
        {
            return null;
        }

        listener.TookAny("is yes", "= yes");
        var isNew = word.StartsWith("new", StringComparison.Ordinal) || word is "record is new" or "it is new" or "records are new" or "creating" or "record is created";
        return new Clause(new NewSubject(), Test.Is) { Comparands = [new Literal(new YesNo(isNew))] };
    }

    /// <summary>"The user is a registrar", "for directors".</summary>
    private Condition? WithRole()
    {
        var person = listener.TookAny("user is", "person is", "member is", "user", "person", "i am", "you are", "role is", "people who are", "seen by", "by", "for", "who is");
        var isNegated = listener.TookAny("not", "anyone but", "everyone but", "anybody but", "everybody but", "everyone except", "anyone except", "anyone other than", "everyone other than");
        listener.TookAny("in role", "role of");
        var least = person || isNegated ? Closeness.ShortenedWithSlip : Closeness.OtherForm;
        return names.List(() => names.Name(lexicon.Roles, "a role", least)) is { } roles ? OfRoles(roles, isNegated) : null;
    }

    internal static Condition OfRoles(ImmutableArray<Named<string>> roles, bool isNegated)
    {
        var clause = new Clause(new RoleSubject(), roles.Length == 1 ? Test.Is : Test.OneOf) { Comparands = [.. roles.Select(role => new Literal(new Text(role.Thing)))] };
        return isNegated ? Negation.Of(clause) : clause;
    }

    private Condition? StageTime()
    {
        listener.TookAny("it is", "record is", "stage is");
        return tests.StageTime(new StageSubject());
    }

    /// <summary>"During Assessment", "in the Terms stage", "the record is in Terms".</summary>
    private Condition? InStage()
    {
        listener.TookAny("it is", "record is", "it", "record", "stage is", "stage");
        var isNegated = listener.Take("not");
        if ((listener.Try<object>(() => Stages(Closeness.OtherForm)) ?? listener.Try<object>(() =>
        {
            listener.TookAny("during", "in", "at", "is in", "while in", "stands in", "on");
            listener.TookAny("stage", "stages");
            return Stages(Closeness.ShortenedWithSlip);
        })) is not ImmutableArray<Named<string>> stages)
        {
            return null;
        }

        listener.TookAny("stage", "stages");
        var clause = new Clause(new StageSubject(), stages.Length == 1 ? Test.Is : Test.OneOf) { Comparands = [.. stages.Select(stage => new Literal(new Text(stage.Thing)))] };
        return isNegated ? Negation.Of(clause) : clause;
    }

    private ImmutableArray<Named<string>>? Stages(Closeness least) => names.List(() => names.Name(lexicon.Stages, "a stage", least));

    /// <summary>A yes/no field said as what it asks: "a crate is needed", "no damage was found".</summary>
    private Condition? AnswerTo()
    {
        var from = listener.At;
        var found = lexicon.YesNos.Select(name => (Name: name, Heard: Answer(name, from))).Where(one => one.Heard.Words > 0).ToList();
        if (found.Count == 0)
        {
            return null;
        }

        var most = found.Max(one => (one.Heard.Words, one.Heard.Closeness));
        var best = found.Where(one => (one.Heard.Words, one.Heard.Closeness) == most).ToList();
        listener.At = from + best[0].Heard.Words;
        if (best.Count > 1)
        {
            listener.Ask(from, best.Select(one => new Wordage(one.Name.Text, $"{one.Name.Text} is {(one.Heard.IsNegated ? "no" : "yes")}")));
        }
        else if (best[0].Heard.Closeness <= Closeness.Shortened)
        {
            listener.Guess(from, best[0].Name.Text, []);
        }

        last = best[0].Name.Thing;
        return listener.Try(() => tests.On(last, new YesNoType()) is { } asked ? best[0].Heard.IsNegated ? Negation.Of(asked) : asked : null)
            ?? new Clause(last, Test.Is) { Comparands = [new Literal(new YesNo(!best[0].Heard.IsNegated))] };
    }

    private (int Words, Closeness Closeness, bool IsNegated) Answer(Named<Subject> name, int from)
    {
        var (at, matched, isNegated, closeness) = (from, 0, false, Closeness.Whole);
        var place = 0;
        for (; at < listener.Words.Length && place < name.Words.Length; at++)
        {
            var word = listener.Words[at];
            if (word.Kind != WordKind.Plain)
            {
                break;
            }

            if (word.Text is "no" or "not" or "without" or "never")
            {
                isNegated = !isNegated;
                continue;
            }

            var found = Enumerable.Range(place, name.Words.Length - place).FirstOrDefault(i => Likenesses.Of(word.Text, name.Words[i]) >= Likeness.Form, -1);
            if (found < 0)
            {
                if (Fillers.Contains(word.Text) && matched > 0)
                {
                    continue;
                }

                break;
            }

            closeness = found > place ? Closeness.Shortened : closeness;
            place = found + 1;
            matched++;
        }

        // The last word says what is asked; a name without it could be that of anything.
        return place == name.Words.Length && (matched == place || matched > 1) ? (at - from, closeness, isNegated) : default;
    }

    /// <summary>"There is a certificate number", "without a fee", "no courier name".</summary>
    private Clause? Existence()
    {
        var word = listener.TakeAny("there is no", "there are no", "there is", "there are", "without", "no", "has no", "it has", "it has no");
        if (word is null || names.Name(lexicon.Subjects, "a field") is not { Thing: FieldSubject or LinkedSubject } found)
        {
            return null;
        }

        last = found.Thing;
        var isNegated = word is not ("there is" or "there are" or "it has");
        return lexicon.Names.Subjects.Of(found.Thing) is YesNoType
            ? new Clause(found.Thing, Test.Is) { Comparands = [new Literal(new YesNo(!isNegated))] }
            : new Clause(found.Thing, isNegated ? Test.Blank : Test.FilledIn);
    }

    /// <summary>"Length and width are filled in": the same is asked of several.</summary>
    private Group? SharedTest()
    {
        if (names.List(() => names.Name(lexicon.Subjects, "a field")) is not { Length: > 1 } subjects)
        {
            return null;
        }

        var at = listener.At;
        var isAny = listener.Words[..at].LastOrDefault(word => word.Text is "and" or "or").Text == "or";
        var clauses = subjects.Select(subject =>
        {
            listener.At = at;
            return lexicon.Names.Subjects.Of(subject.Thing) is { } type ? tests.On(subject.Thing, type) : null;
        }).ToList();
        return clauses.Contains(null) ? null : new Group(isAny ? Quantifier.AnyOf : Quantifier.AllOf, [.. clauses.Select(clause => clause!)]);
    }

    private Condition? OnSubject()
    {
        var isFrom = listener.TakeAny("value of", "from", "for", "with", "in case of", "by", "on") == "from";
        var best = lexicon.Subjects.Best(listener);
        listener.Expect("what to look at", isHint: true);
        foreach (var name in lexicon.Subjects.Names)
        {
            listener.Expect(name.Text);
        }

        // Of several that could be meant, those count of which the rest can be asked.
        var from = listener.At;
        ImmutableArray<NameMatch<Subject>> able = best.Length == 1 ? best : [.. best.Where(match =>
        {
            listener.At = from + match.Length;
            return TestOn(match.Name) is not null;
        })];
        listener.At = from;
        return names.Pick(lexicon.Subjects, able.IsEmpty ? best : able) is { } found && TestOn(found) is { } condition
            ? Remembered(found.Thing, isFrom && condition is Clause { Test: Test.Is } exact && lexicon.Names.Subjects.Of(found.Thing) is (NumberType or MoneyType)
                ? exact with { Test = Test.AtLeast }
                : condition)
            : null;
    }

    private Condition Remembered(Subject subject, Condition condition)
    {
        last = subject;
        return condition;
    }

    private Condition? TestOn(Named<Subject> name) =>
        lexicon.Names.Subjects.Of(name.Thing) is { } type ? listener.Try(() => tests.On(name.Thing, type)) : null;

    private Condition? SameSubject() =>
        last is not null && lexicon.Names.Subjects.Of(last) is { } type and not YesNoType ? tests.On(last, type) : null;

    /// <summary>Choices that only one field has stand for that field: "for textiles".</summary>
    private Condition? ImpliedByValue()
    {
        listener.TookAny("for", "it is", "with", "by", "is", "in case of");
        var isNegated = listener.TookAny("not", "anything but", "everything but");
        var from = listener.At;
        if (names.List(Implied) is not { } found || found.Select(one => one.Thing.Field).Distinct().Count() != 1)
        {
            return null;
        }

        var field = found[0].Thing.Field;
        var subject = new FieldSubject(field.Key);
        listener.Guess(from, lexicon.Names.Fields.Write(field.Key), []);
        var test = field.Type is ChoicesType ? Test.IncludesAny : found.Length == 1 ? Test.Is : Test.OneOf;
        Condition clause = new Clause(subject, test) { Comparands = [.. found.Select(one => new Literal(new Text(one.Thing.Option)))] };
        return Remembered(subject, isNegated ? Negation.Of(clause) : clause);
    }

    /// <summary>Something without a test: that it is so, or is there at all.</summary>
    private Condition? BareSubject()
    {
        var best = lexicon.Subjects.Best(listener);
        var answers = best.Where(match => lexicon.Names.Subjects.Of(match.Name.Thing) is YesNoType).ToImmutableArray();
        var from = listener.At;
        if (!isBareAllowed || best.Any(match => match.Closeness is Closeness.Slip or Closeness.ShortenedWithSlip)
            || names.Pick(lexicon.Subjects, answers.Length == 1 ? answers : best) is not { Thing: FieldSubject or LinkedSubject } found || !IsComplete())
        {
            return null;
        }

        var isAnswer = lexicon.Names.Subjects.Of(found.Thing) is YesNoType;
        listener.Guess(from, $"{found.Text} is {(isAnswer ? "yes" : "filled in")}", []);
        return Remembered(found.Thing, isAnswer
            ? new Clause(found.Thing, Test.Is) { Comparands = [new Literal(new YesNo(true))] }
            : new Clause(found.Thing, Test.FilledIn));
    }

    /// <summary>Whether nothing more is said of what was just named.</summary>
    private bool IsComplete()
    {
        var at = listener.At;
        var isComplete = listener.IsAtEnd || listener.TookAny(",", "then", ":", ".", "and", "or", ")") || Deed.Taken(listener) is not null;
        listener.At = at;
        return isComplete;
    }

    private Named<(Field Field, string Option)>? Implied()
    {
        // What is called like a field is the field.
        return lexicon.Subjects.Best(listener).Any(match => match.Closeness >= Closeness.OtherForm) ? null : names.Pick(lexicon.Values, lexicon.Values.Best(listener));
    }
}
