using Dibujo.Core.Conditions;
using Dibujo.Core.Rules;

namespace Dibujo.Core.Explanation;

/// <summary>The words for tests, effects and quantifiers, the same on every screen and in every message.</summary>
public static class Wording
{
    /// <summary>The test as it stands between subject and comparand: "is at least".</summary>
    public static string Of(Test test) => test switch
    {
        Test.Is => "is",
        Test.IsNot => "is not",
        Test.OneOf => "is one of",
        Test.NoneOf => "is none of",
        Test.Contains => "contains",
        Test.DoesNotContain => "does not contain",
        Test.StartsWith => "starts with",
        Test.DoesNotStartWith => "does not start with",
        Test.LessThan => "is less than",
        Test.AtMost => "is at most",
        Test.AtLeast => "is at least",
        Test.MoreThan => "is more than",
        Test.Between => "is between",
        Test.NotBetween => "is not between",
        Test.Before => "is before",
        Test.After => "is after",
        Test.OnOrBefore => "is on or before",
        Test.FromOn => "is from … on",
        Test.Blank => "is blank",
        Test.FilledIn => "is filled in",
        _ => throw new ArgumentOutOfRangeException(nameof(test)),
    };

    /// <summary>The quantifier as the head of a group: "all of".</summary>
    public static string Of(Quantifier quantifier) => quantifier switch
    {
        Quantifier.AllOf => "all of",
        Quantifier.AnyOf => "any of",
        Quantifier.NoneOf => "none of",
        _ => throw new ArgumentOutOfRangeException(nameof(quantifier)),
    };

    /// <summary>The effect's verb, which its targets follow.</summary>
    public static string Verb(Effect effect) => effect switch
    {
        Show => "show",
        Hide => "hide",
        Require => "require",
        MakeOptional => "make optional",
        Lock => "lock",
        Unlock => "unlock",
        _ => throw new ArgumentOutOfRangeException(nameof(effect)),
    };

    /// <summary>What follows the targets: "to move on", "and clear"; null where there is nothing to add.</summary>
    public static string? Detail(Effect effect) => effect switch
    {
        Require { Level: Requirement.ToSave } => "to save",
        Require => "to move on",
        Hide { Value: HiddenValue.Clear } => "and clear",
        _ => null,
    };
}
