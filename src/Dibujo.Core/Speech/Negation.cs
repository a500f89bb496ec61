using Dibujo.Core.Conditions;

namespace Dibujo.Core.Speech;

/// <summary>Says of a condition that it does not hold, in the plainest way.</summary>
internal static class Negation
{
    /// <summary>Tests that are exact negations of each other, also on a blank.</summary>
    private static readonly (Test One, Test Other)[] Twins =
    [
        (Test.Is, Test.IsNot), (Test.OneOf, Test.NoneOf), (Test.Contains, Test.DoesNotContain), (Test.StartsWith, Test.DoesNotStartWith),
        (Test.IncludesAny, Test.IncludesNone), (Test.IncludesAll, Test.DoesNotIncludeAll), (Test.Between, Test.NotBetween), (Test.Blank, Test.FilledIn),
        (Test.Complete, Test.Incomplete), (Test.Changed, Test.Unchanged),
    ];

    internal static Condition Of(Condition condition) => condition switch
    {
        Clause clause => Twin(clause.Test) is { } twin ? clause with { Test = twin } : new Group(Quantifier.NoneOf, [clause]),
        Group { Quantifier: Quantifier.AnyOf } any => any with { Quantifier = Quantifier.NoneOf },
        Group { Quantifier: Quantifier.NoneOf, Members: [var only] } => only,
        Group { Quantifier: Quantifier.NoneOf } none => none with { Quantifier = Quantifier.AnyOf },
        _ => new Group(Quantifier.NoneOf, [condition]),
    };

    /// <summary>Whether one thing would have to be two at once: "mode is Air and mode is Sea".</summary>
    internal static bool IsNever(Condition? condition) => condition is Group { Quantifier: Quantifier.AllOf, Members: var members }
        && members.OfType<Clause>().Where(clause => clause is { Test: Test.Is or Test.OneOf } && clause.Comparands.All(one => one is Literal)).GroupBy(clause => clause.Subject)
            .Any(group => group.Aggregate<Clause, IEnumerable<Comparand>?>(null, (kept, clause) => kept is null ? clause.Comparands : kept.Intersect(clause.Comparands))?.Any() == false);

    private static Test? Twin(Test test)
    {
        foreach (var (one, other) in Twins)
        {
            if (test == one || test == other)
            {
                return test == one ? other : one;
            }
        }

        return null;
    }
}
