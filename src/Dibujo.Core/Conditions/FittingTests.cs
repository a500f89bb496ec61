using System.Collections.Immutable;
using Dibujo.Core.Records;
using static Dibujo.Core.Conditions.Test;

namespace Dibujo.Core.Conditions;

/// <summary>Which tests fit which kind of subject, most usual first.</summary>
public static class FittingTests
{
    private static readonly ImmutableArray<Test> Texts =
        [Is, IsNot, OneOf, NoneOf, Contains, DoesNotContain, StartsWith, DoesNotStartWith, FilledIn, Blank];

    private static readonly ImmutableArray<Test> Amounts =
        [AtLeast, MoreThan, AtMost, LessThan, Between, NotBetween, Is, IsNot, OneOf, NoneOf, FilledIn, Blank];

    private static readonly ImmutableArray<Test> Dates =
        [Before, OnOrBefore, After, FromOn, Between, NotBetween, Is, IsNot, FilledIn, Blank];

    private static readonly ImmutableArray<Test> Answers = [Is, IsNot, FilledIn, Blank];

    private static readonly ImmutableArray<Test> OneChoice = [Is, IsNot, OneOf, NoneOf, FilledIn, Blank];

    private static readonly ImmutableArray<Test> SeveralChoices =
        [IncludesAny, IncludesNone, IncludesAll, DoesNotIncludeAll, FilledIn, Blank];

    private static readonly ImmutableArray<Test> Compounds = [Complete, Incomplete, FilledIn, Blank];

    private static readonly ImmutableArray<Test> Stages = [Is, IsNot, Before, After, FromOn, OneOf, NoneOf];

    private static readonly ImmutableArray<Test> Changes = [Changed, Unchanged];

    /// <summary>What a test's comparands are like: one choice each where several are looked at.</summary>
    internal static FieldType Compared(Test test, FieldType type) =>
        type is ChoicesType several && test is not (Is or IsNot) ? several : type;

    /// <summary>Those that fit a subject of that type.</summary>
    public static ImmutableArray<Test> Of(Subject subject, FieldType type) => subject switch
    {
        StageSubject => Stages,
        FieldSubject { Saved: false } => [.. Of(type), .. Changes],
        FieldSubject or LinkedSubject or MoveSubject => Of(type),
        // What is never blank is not asked for it.
        _ => Of(type).RemoveRange([FilledIn, Blank]),
    };

    /// <summary>How many comparands the test takes.</summary>
    public static TestShape Shape(this Test test) => test switch
    {
        Blank or FilledIn or Complete or Incomplete or Changed or Unchanged => TestShape.Alone,
        Between or NotBetween => TestShape.Range,
        OneOf or NoneOf or IncludesAny or IncludesNone or IncludesAll or DoesNotIncludeAll => TestShape.Many,
        _ => TestShape.One,
    };

    /// <summary>Whether a subject of one type can be compared with a value of the other; money only within one currency.</summary>
    public static bool AreComparable(FieldType subject, FieldType other) => (subject, other) switch
    {
        (MoneyType a, MoneyType b) => a.Currency == b.Currency,
        (TextType or LongTextType, TextType or LongTextType) => true,
        (DateType or DateTimeType, DateType or DateTimeType) => true,
        (ChoicesType, ChoiceType or ChoicesType) => true,
        (LinkType a, LinkType b) => a.RecordType == b.RecordType,
        (CompoundType, _) or (_, CompoundType) => false,
        _ => subject.GetType() == other.GetType(),
    };

    private static ImmutableArray<Test> Of(FieldType type) => type switch
    {
        TextType or LongTextType => Texts,
        NumberType or MoneyType => Amounts,
        DateType or DateTimeType => Dates,
        YesNoType => Answers,
        ChoicesType => SeveralChoices,
        CompoundType => Compounds,
        _ => OneChoice,
    };
}
