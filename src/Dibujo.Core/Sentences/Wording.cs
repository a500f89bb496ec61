using Dibujo.Core.Conditions;
using Dibujo.Core.Forms;
using Dibujo.Core.Rules;

namespace Dibujo.Core.Sentences;

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
        Test.IncludesAny => "includes any of",
        Test.IncludesNone => "includes none of",
        Test.IncludesAll => "includes all of",
        Test.DoesNotIncludeAll => "does not include all of",
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
        Test.Complete => "is complete",
        Test.Incomplete => "is not complete",
        Test.Changed => "has changed",
        Test.Unchanged => "has not changed",
        _ => throw new ArgumentOutOfRangeException(nameof(test)),
    };

    /// <summary>What stands between the last two comparands: a list of which all count is not one of alternatives.</summary>
    public static string Between(Test test) => test switch
    {
        Test.Between or Test.NotBetween => "and",
        Test.IncludesAll or Test.DoesNotIncludeAll => "&",
        _ => "or",
    };

    /// <summary>The quantifier as the head of a group: "all of".</summary>
    public static string Of(Quantifier quantifier) => quantifier switch
    {
        Quantifier.AllOf => "all of",
        Quantifier.AnyOf => "any of",
        Quantifier.NoneOf => "none of",
        _ => throw new ArgumentOutOfRangeException(nameof(quantifier)),
    };

    /// <summary>The effect's verb, which stands before what it acts on.</summary>
    public static string Verb(Effect effect) => effect switch
    {
        Show => "show",
        Hide => "hide",
        Require => "require",
        MakeOptional => "make optional",
        Lock => "lock",
        Unlock => "unlock",
        SetValue or ResetValue => "set",
        ClearValue => "empty",
        Calculate => "calculate",
        Narrow => "narrow",
        Message message => Verb(message.Severity),
        Suggest => "suggest setting",
        JumpAhead => "jump ahead to",
        EndForm => "end the form with",
        _ => throw new ArgumentOutOfRangeException(nameof(effect)),
    };

    /// <summary>The verb of a message, which stands before its text.</summary>
    public static string Verb(Severity severity) => severity switch
    {
        Severity.StopsSaving => "stop saving with",
        Severity.StopsMoving => "stop moving with",
        Severity.Warning => "warn with",
        _ => "tell",
    };

    /// <summary>The column of messages in a table.</summary>
    public static string Of(Severity severity) => severity switch
    {
        Severity.StopsSaving => "what stops saving",
        Severity.StopsMoving => "what stops moving",
        Severity.Warning => "warning",
        _ => "note",
    };

    /// <summary>What follows the targets of an effect on states: "to move on", "and clear"; null where there is nothing to add.</summary>
    public static string? Detail(Effect effect) => effect switch
    {
        Require { Level: Requirement.ToSave } => "to save",
        Require { Moves.IsEmpty: false } => "for",
        Require => "to move on",
        Hide { Value: HiddenValue.Clear } => "and clear",
        Hide { Value: HiddenValue.Reset } => "and reset",
        _ => null,
    };

    /// <summary>A state in a cell of a table.</summary>
    public static string Of(State state) => state switch
    {
        State.Shown => "shown",
        State.Hidden => "hidden",
        State.HiddenAndCleared => "hidden and cleared",
        State.HiddenAndReset => "hidden and reset",
        State.RequiredToMoveOn => "required to move on",
        State.RequiredToSave => "required to save",
        State.Optional => "optional",
        State.Locked => "locked",
        _ => "open",
    };

    /// <summary>The hit policy of a table.</summary>
    public static string Of(HitPolicy hit) => hit switch
    {
        HitPolicy.Unique => "unique",
        HitPolicy.First => "first",
        _ => "any",
    };
}
