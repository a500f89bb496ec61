using System.Collections.Immutable;
using Dibujo.Core.Conditions;
using Dibujo.Core.Records;
using Dibujo.Core.Values;

namespace Dibujo.Core.Speech;

/// <summary>Hears what is asked of a subject that has just been named.</summary>
internal sealed class TestListener(Listener listener, Lexicon lexicon, NameListener names, ValueListener values)
{
    private static readonly string[] Copulas =
        ["is", "are", "was", "were", "be", "has been", "have been", "gets", "get", "becomes", "become", "stays", "remains", "comes", "equals", "=", "has", "have", "of"];

    private static readonly string[] FilledIns =
    [
        "filled in", "filled out", "filled", "entered", "known", "given", "present", "provided", "set", "answered", "there", "specified", "recorded",
        "has value", "have value", "value", "not empty", "exists", "is there",
    ];

    private static readonly string[] Blanks = ["empty", "blank", "missing", "unknown", "unset", "unanswered", "left empty", "left blank", "no value", "absent"];

    private static readonly string[] Changes = ["changed", "changes", "change", "altered", "edited", "different", "modified"];

    private static readonly string[] AtLeasts =
    [
        "at least", "minimum", "no less than", "not less than", "not under", "not below", ">=", "≥", "reaches", "reach", "from", "starting from", "starting at",
    ];

    private static readonly string[] AtMosts =
        ["at most", "maximum", "up to", "no more than", "not more than", "not over", "not above", "<=", "≤"];

    private static readonly string[] MoreThans =
    [
        "more than", "over", "above", "greater than", "bigger than", "larger than", "higher than", "longer than", "heavier than", "exceeds", "exceed", "beyond", ">",
    ];

    private static readonly string[] LessThans =
        ["less than", "under", "below", "smaller than", "lower than", "shorter than", "lighter than", "fewer than", "<"];

    private static readonly string[] OrMore =
    [
        "or more", "or above", "or over", "and more", "and above", "and up", "and over", "or higher", "up", "upwards", "onwards", "onward", "on", "or later", "and later",
    ];

    private static readonly string[] OrLess = ["or less", "or under", "or below", "and less", "and below", "or lower", "or earlier"];

    /// <summary>The condition on that subject; null where no test comes next that fits it.</summary>
    internal Condition? On(Subject subject, FieldType type)
    {
        var before = listener.At;
        var isNegated = listener.TookAny("does not", "do not", "did not", "never", "no longer");
        var hasVerb = listener.TookAny(Copulas);
        isNegated |= listener.TookAny("not", "no longer", "never", "!=", "<>", "≠");
        foreach (var test in FittingTests.Of(subject, type))
        {
            listener.Expect(Sentences.Wording.Of(test));
        }

        var heard = Alone(subject, type) ?? (type switch
        {
            NumberType or MoneyType => Amount(subject, type),
            DateType or DateTimeType => Date(subject, type),
            ChoicesType => Several(subject, type),
            IOffersOptions => listener.Try(() => subject is StageSubject ? StageTime(subject) : null) ?? OneOf(subject, type),
            YesNoType => YesNo(subject),
            CompoundType => null,
            _ => Text(subject, type, hasVerb),
        });
        if (heard is null || listener.At == before)
        {
            return null;
        }

        return isNegated ? Negation.Of(heard) : heard;
    }

    /// <summary>A stage as a time: "before Approval", "once In transit", "from Terms on".</summary>
    internal Condition? StageTime(Subject subject)
    {
        var word = listener.TakeAny("on or after", "not before", "before", "until", "till", "up to", "prior to", "after", "past", "since", "from", "once", "as of", "starting with", "beyond");
        if (word is null)
        {
            return null;
        }

        listener.TookAny("stage", "it is in", "in", "it reaches", "reaching", "it is");
        if (names.Name(lexicon.Stages, "a stage") is not { } stage)
        {
            return null;
        }

        listener.TookAny("stage");
        listener.TookAny("onwards", "onward", "on", "and later", "and after", "has been reached", "is reached");
        return Clause(subject, word switch
        {
            "before" or "until" or "till" or "up to" or "prior to" => Test.Before,
            "after" or "past" or "beyond" => Test.After,
            _ => Test.FromOn,
        }, new Literal(new Text(stage.Thing)));
    }

    private Clause? Alone(Subject subject, FieldType type)
    {
        var tests = FittingTests.Of(subject, type);
        return listener.First(
            () => tests.Contains(Test.Complete) && listener.TookAny("complete", "completely filled in", "whole", "fully filled in") ? Clause(subject, Test.Complete) : null,
            () => tests.Contains(Test.Incomplete) && listener.TookAny("incomplete") ? Clause(subject, Test.Incomplete) : null,
            () => tests.Contains(Test.Changed) && listener.TookAny(Changes) ? Clause(subject, Test.Changed) : null,
            () => tests.Contains(Test.Unchanged) && listener.TookAny("unchanged", "same as before") ? Clause(subject, Test.Unchanged) : null,
            () => tests.Contains(Test.Blank) && listener.TookAny(Blanks) ? Clause(subject, Test.Blank) : null,
            () => tests.Contains(Test.FilledIn) && listener.TookAny(FilledIns) ? Clause(subject, Test.FilledIn) : null);
    }

    private Condition? Amount(Subject subject, FieldType type) => listener.First<Condition>(
        () => Range(subject, type),
        () => listener.TookAny(AtMosts) ? One(subject, Test.AtMost, type) : null,
        () => listener.TookAny(MoreThans) ? One(subject, Test.MoreThan, type) : null,
        () => listener.TookAny(LessThans) ? One(subject, Test.LessThan, type) : null,
        () => listener.TookAny(AtLeasts) ? WithTail(One(subject, Test.AtLeast, type)) : null,
        () => listener.TookAny("equal to", "exactly", "equals", "=") | true && values.Comparand(type) is { } value
            ? Clause(subject, listener.TookAny(OrMore) ? Test.AtLeast : listener.TookAny(OrLess) ? Test.AtMost : Test.Is, value)
            : null);

    private Clause? Range(Subject subject, FieldType type)
    {
        var opening = listener.TakeAny("between", "from");
        return opening is not null && values.Comparand(type) is { } low && listener.TookAny(opening == "from" ? ["to", "until"] : ["and", "to"]) && values.Comparand(type) is { } high
            ? new Clause(subject, Test.Between) { Comparands = [low, high] }
            : null;
    }

    private Clause? One(Subject subject, Test test, FieldType type) => values.Comparand(type) is { } value ? Clause(subject, test, value) : null;

    private Clause? WithTail(Clause? clause)
    {
        if (clause is not null)
        {
            listener.TookAny(OrMore);
        }

        return clause;
    }

    private Condition? Date(Subject subject, FieldType type) => listener.First<Condition>(
        () => Ago(subject),
        () => Within(subject),
        () => listener.TookAny("in past", "past", "over") ? Clause(subject, Test.Before, new RelativeDay(0)) : null,
        () => listener.TookAny("in future", "still to come") ? Clause(subject, Test.After, new RelativeDay(0)) : null,
        () => Range(subject, type),
        () => listener.TookAny("on or before", "no later than", "not after", "by", "until", "<=", "≤", "at latest") ? One(subject, Test.OnOrBefore, type) : null,
        () => listener.TookAny("before", "earlier than", "prior to", "<") ? One(subject, Test.Before, type) : null,
        () => listener.TookAny("on or after", "not before", "no earlier than", "since", "from", ">=", "≥") ? WithTail(One(subject, Test.FromOn, type)) : null,
        () => listener.TookAny("after", "later than", ">") ? One(subject, Test.After, type) : null,
        () => listener.TookAny("on", "equal to", "=", "equals") | true && values.Comparand(type) is { } day ? Clause(subject, Test.Is, day) : null);

    /// <summary>"More than 15 years ago", "older than 15 years", "more than 30 days away".</summary>
    private Clause? Ago(Subject subject)
    {
        var word = listener.TakeAny("more than", "over", "longer than", "older than", "less than", "under", "fewer than", "younger than");
        if (word is null || values.Span(1) is not { } span)
        {
            return null;
        }

        var isLess = word is "less than" or "under" or "fewer than" or "younger than";
        var back = span with { Amount = -span.Amount };
        return listener.TookAny("away", "from now", "ahead", "from today")
            ? isLess ? new Clause(subject, Test.Between) { Comparands = [new RelativeDay(0), span] } : Clause(subject, Test.After, span)
            : listener.TookAny("ago", "old", "back") || word is "older than" or "younger than"
                ? isLess ? new Clause(subject, Test.Between) { Comparands = [back, new RelativeDay(0)] } : Clause(subject, Test.Before, back)
                : null;
    }

    private Clause? Within(Subject subject) =>
        listener.TookAny("within last", "in last", "during last") && values.Span(-1) is { } back ? new(subject, Test.Between) { Comparands = [back, new RelativeDay(0)] }
        : listener.TookAny("within next", "within", "in next", "less than") && values.Span(1) is { } ahead ? new(subject, Test.Between) { Comparands = [new RelativeDay(0), ahead] }
        : null;

    private Clause? YesNo(Subject subject) =>
        values.Comparand(new YesNoType()) is { } value ? Clause(subject, Test.Is, value) : null;

    private Condition? OneOf(Subject subject, FieldType type)
    {
        var isNone = listener.TookAny("none of", "neither");
        listener.TookAny("one of", "any of", "equal to", "equals", "=", "in");
        return Options(subject, type) is { } heard ? isNone ? Negation.Of(heard) : heard : null;
    }

    private Clause? Options(Subject subject, FieldType type)
    {
        if (values.Choices(type) is { } choices)
        {
            return choices.Length == 1 ? Clause(subject, Test.Is, choices[0]) : new Clause(subject, Test.OneOf) { Comparands = choices };
        }

        return values.Comparand(type) is { } value ? Clause(subject, Test.Is, value) : null;
    }

    private Condition? Several(Subject subject, FieldType type)
    {
        listener.TookAny("includes", "include", "contains", "contain", "has", "have", "with");
        var isNone = listener.TookAny("none of", "neither");
        var isAll = listener.TookAny("all of", "both", "all");
        listener.TookAny("one of", "any of", "either", "=");
        var from = listener.At;
        if (values.Choices(type) is not { } choices)
        {
            return null;
        }

        isAll |= !isNone && choices.Length > 1 && listener.Words[from..listener.At].Any(word => word.Text == "and");
        Condition heard = new Clause(subject, isAll ? Test.IncludesAll : Test.IncludesAny) { Comparands = choices };
        return isNone ? Negation.Of(heard) : heard;
    }

    /// <summary>Without quotation marks only after a verb, and only what is no state: those words go on with something else.</summary>
    private Clause? Text(Subject subject, FieldType type, bool hasVerb)
    {
        var word = listener.TakeAny("contains", "contain", "containing", "includes", "include", "mentions", "starts with", "start with", "begins with", "begin with", "starting with", "one of", "equal to", "equals", "=");
        if (listener.Next is { Kind: not WordKind.Quoted } && ((word is null && !hasVerb) || StateWords.IsAhead(listener)))
        {
            return null;
        }

        var test = word switch
        {
            "contains" or "contain" or "containing" or "includes" or "include" or "mentions" => Test.Contains,
            "starts with" or "start with" or "begins with" or "begin with" or "starting with" => Test.StartsWith,
            _ => Test.Is,
        };
        return values.Comparand(type) is { } value ? Clause(subject, test, value) : null;
    }

    private static Clause Clause(Subject subject, Test test, params ImmutableArray<Comparand> comparands) => new(subject, test) { Comparands = comparands };
}
