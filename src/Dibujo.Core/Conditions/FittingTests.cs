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
        [AtLeast, MoreThan, AtMost, LessThan, Between, NotBetween, Is, IsNot, FilledIn, Blank];

    private static readonly ImmutableArray<Test> Dates =
        [Before, OnOrBefore, After, FromOn, Between, NotBetween, Is, IsNot, FilledIn, Blank];

    private static readonly ImmutableArray<Test> Answers = [Is, IsNot, FilledIn, Blank];

    private static readonly ImmutableArray<Test> Choices = [Is, IsNot, OneOf, NoneOf, FilledIn, Blank];

    /// <summary>Those that fit <see cref="StageSubject"/>.</summary>
    public static readonly ImmutableArray<Test> Stages = [Is, IsNot, Before, After, FromOn, OneOf, NoneOf];

    /// <summary>Those that fit <see cref="RoleSubject"/>.</summary>
    public static readonly ImmutableArray<Test> Roles = [Is, IsNot, OneOf, NoneOf];

    /// <summary>Those that fit a field of that type.</summary>
    public static ImmutableArray<Test> Of(FieldType type) => type switch
    {
        TextType or LongTextType => Texts,
        NumberType or MoneyType => Amounts,
        DateType => Dates,
        YesNoType => Answers,
        ChoiceType => Choices,
        _ => throw new ArgumentOutOfRangeException(nameof(type)),
    };

    /// <summary>How many comparands the test takes.</summary>
    public static TestShape Shape(this Test test) => test switch
    {
        Blank or FilledIn => TestShape.Alone,
        Between or NotBetween => TestShape.Range,
        OneOf or NoneOf => TestShape.Many,
        _ => TestShape.One,
    };

    /// <summary>Whether values of the two types can be compared with each other; money only within one currency.</summary>
    public static bool AreComparable(FieldType one, FieldType other) => (one, other) switch
    {
        (MoneyType a, MoneyType b) => a.Currency == b.Currency,
        (TextType or LongTextType, TextType or LongTextType) => true,
        _ => one.GetType() == other.GetType(),
    };
}
