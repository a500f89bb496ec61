using Dibujo.Core.Conditions;

namespace Dibujo.Core.Operands;

/// <summary>The positive tests that the engine evaluates; negative ones are their negation in the condition.</summary>
internal enum ClauseOp : byte
{
    Equal,
    OneOf,
    Contains,
    StartsWith,
    IncludesAny,
    IncludesAll,
    Less,
    AtMost,
    AtLeast,
    More,
    Between,
    FilledIn,
    Complete,
    Changed,
    StageIs,
    StageBefore,
    StageAfter,
    StageFrom,
}

/// <summary>From the tests that people choose to those that are evaluated.</summary>
internal static class ClauseOps
{
    /// <summary>The positive test that is evaluated, and whether the one asked for is its negation.</summary>
    internal static (ClauseOp Op, bool Negated) Of(Subject subject, Test test) => (subject, test) switch
    {
        // A person has any number of roles, which are looked at as a set.
        (RoleSubject, Test.Is or Test.OneOf) => (ClauseOp.IncludesAny, false),
        (RoleSubject, _) => (ClauseOp.IncludesAny, true),
        (StageSubject, Test.Is or Test.OneOf) => (ClauseOp.StageIs, false),
        (StageSubject, Test.IsNot or Test.NoneOf) => (ClauseOp.StageIs, true),
        (StageSubject, Test.Before) => (ClauseOp.StageBefore, false),
        (StageSubject, Test.After) => (ClauseOp.StageAfter, false),
        (StageSubject, _) => (ClauseOp.StageFrom, false),
        (_, Test.Is) => (ClauseOp.Equal, false),
        (_, Test.IsNot) => (ClauseOp.Equal, true),
        (_, Test.OneOf) => (ClauseOp.OneOf, false),
        (_, Test.NoneOf) => (ClauseOp.OneOf, true),
        (_, Test.Contains) => (ClauseOp.Contains, false),
        (_, Test.DoesNotContain) => (ClauseOp.Contains, true),
        (_, Test.StartsWith) => (ClauseOp.StartsWith, false),
        (_, Test.DoesNotStartWith) => (ClauseOp.StartsWith, true),
        (_, Test.IncludesAny) => (ClauseOp.IncludesAny, false),
        (_, Test.IncludesNone) => (ClauseOp.IncludesAny, true),
        (_, Test.IncludesAll) => (ClauseOp.IncludesAll, false),
        (_, Test.DoesNotIncludeAll) => (ClauseOp.IncludesAll, true),
        (_, Test.LessThan or Test.Before) => (ClauseOp.Less, false),
        (_, Test.AtMost or Test.OnOrBefore) => (ClauseOp.AtMost, false),
        (_, Test.AtLeast or Test.FromOn) => (ClauseOp.AtLeast, false),
        (_, Test.MoreThan or Test.After) => (ClauseOp.More, false),
        (_, Test.Between) => (ClauseOp.Between, false),
        (_, Test.NotBetween) => (ClauseOp.Between, true),
        (_, Test.FilledIn) => (ClauseOp.FilledIn, false),
        (_, Test.Blank) => (ClauseOp.FilledIn, true),
        (_, Test.Complete) => (ClauseOp.Complete, false),
        (_, Test.Incomplete) => (ClauseOp.Complete, true),
        (_, Test.Changed) => (ClauseOp.Changed, false),
        (_, Test.Unchanged) => (ClauseOp.Changed, true),
        _ => throw new ArgumentOutOfRangeException(nameof(test)),
    };
}
