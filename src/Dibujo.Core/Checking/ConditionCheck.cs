using Dibujo.Core.Conditions;
using Dibujo.Core.Records;
using Dibujo.Core.Sentences;

namespace Dibujo.Core.Checking;

/// <summary>Whether every clause asks something that its subject can answer.</summary>
internal sealed class ConditionCheck(ComparandCheck comparands, Labels labels, ProblemList problems)
{
    private const int MaxDepth = 24;

    internal void Check(string place, Condition condition, int depth = 1)
    {
        switch (condition)
        {
            case Group when depth > MaxDepth:
                problems.Add(place, $"The condition is nested more than {MaxDepth} levels deep.",
                    "Split it into several rules or cases.");
                break;
            case Group { Members.IsEmpty: true }:
                problems.Add($"{place}/members", "There is no condition in this group.", "Add a clause, or delete the group.");
                break;
            case Group group:
                foreach (var (i, member) in group.Members.Index())
                {
                    Check($"{place}/members/{i}", member, depth + 1);
                }

                break;
            case Clause clause:
                if (comparands.CheckSubject($"{place}/subject", clause.Subject) is { } type)
                {
                    CheckTest(place, clause, type);
                }

                break;
            default:
                throw new ArgumentOutOfRangeException(nameof(condition));
        }
    }

    /// <summary>The clause's test and comparands, where its subject is sound and of that type.</summary>
    internal void CheckTest(string place, Clause clause, FieldType type)
    {
        var label = labels.Of(clause.Subject);
        var fitting = FittingTests.Of(clause.Subject, type);
        if (!fitting.Contains(clause.Test))
        {
            problems.Add($"{place}/test", $"“{Wording.Of(clause.Test)}” does not fit {label}.",
                type is CompoundType compound
                    ? $"Look at one of its parts ({string.Join(", ", compound.Parts.Select(p => p.Label))}), or choose one of: {Offer()}."
                    : $"Choose one of: {Offer()}.");
        }

        CheckCount(place, clause);
        foreach (var (i, comparand) in clause.Comparands.Index())
        {
            comparands.Check($"{place}/comparands/{i}", label, FittingTests.Compared(clause.Test, type), comparand);
        }

        string Offer() => string.Join(", ", fitting.Select(Wording.Of));
    }

    private void CheckCount(string place, Clause clause)
    {
        var count = clause.Comparands.Length;
        var expected = clause.Test.Shape();
        var fits = expected switch
        {
            TestShape.Alone => count == 0,
            TestShape.One => count == 1,
            TestShape.Range => count == 2,
            _ => count >= 1,
        };
        if (!fits)
        {
            problems.Add($"{place}/comparands",
                count == 0 ? "The clause does not say what to compare with." : $"The test does not take {count} values.",
                expected switch
                {
                    TestShape.Alone => "Delete the values.",
                    TestShape.One => "Give one value.",
                    TestShape.Range => "Give two values, the lower first.",
                    _ => "Give one value or more.",
                });
        }
    }
}
