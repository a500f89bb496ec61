using System.Collections.Immutable;
using Dibujo.Core.Conditions;
using Dibujo.Core.Records;

namespace Dibujo.Core.Checking;

/// <summary>Whether every clause asks something that its subject can answer.</summary>
internal sealed class ConditionCheck(RecordType type, ProblemList problems)
{
    private const int MaxDepth = 24;
    private readonly Dictionary<string, Field> fields = type.Fields.ToDictionary(f => f.Key, StringComparer.Ordinal);

    internal void Check(string place, Condition condition, int depth = 1)
    {
        switch (condition)
        {
            case Group when depth > MaxDepth:
                problems.Add(place, $"The condition is nested more than {MaxDepth} levels deep.",
                    "Split it into several rules or cases.");
                break;
            case Group { Members.IsEmpty: true }:
                problems.Add($"{place}/members", "There is no condition in this group.", "Add a clause, or take the group away.");
                break;
            case Group group:
                foreach (var (i, member) in group.Members.Index())
                {
                    Check($"{place}/members/{i}", member, depth + 1);
                }

                break;
            case Clause clause:
                CheckClause(place, clause);
                break;
            default:
                throw new ArgumentOutOfRangeException(nameof(condition));
        }
    }

    private void CheckClause(string place, Clause clause)
    {
        switch (clause.Subject)
        {
            case FieldSubject { Field: var key }:
                if (fields.TryGetValue(key, out var field))
                {
                    CheckTest(place, clause, field.Label, FittingTests.Of(field.Type));
                    CheckComparands(place, clause, (here, comparand) => CheckComparand(here, field, comparand));
                }
                else
                {
                    problems.Add($"{place}/subject/field",
                        key.Length == 0 ? "The clause does not say what to look at." : $"There is no field “{ProblemList.Shorten(key)}”.",
                        "Choose a field of this record type.");
                }

                break;
            case StageSubject:
                CheckTest(place, clause, "Stage", FittingTests.Stages);
                CheckComparands(place, clause, (here, comparand) =>
                    CheckKey(here, comparand, "stage", type.Workflows.SelectMany(w => w.Stages).Select(s => s.Key)));
                break;
            case RoleSubject:
                CheckTest(place, clause, "Role", FittingTests.Roles);
                CheckComparands(place, clause, (here, comparand) =>
                    CheckKey(here, comparand, "role", type.Roles.Select(r => r.Key)));
                break;
            default:
                throw new ArgumentOutOfRangeException(nameof(clause));
        }
    }

    private void CheckTest(string place, Clause clause, string subject, ImmutableArray<Test> fitting)
    {
        if (!fitting.Contains(clause.Test))
        {
            problems.Add($"{place}/test", $"“{Explanation.Wording.Of(clause.Test)}” does not fit {subject}.",
                $"Choose one of: {string.Join(", ", fitting.Select(Explanation.Wording.Of))}.");
        }
    }

    private void CheckComparands(string place, Clause clause, Action<string, Comparand> check)
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
                    TestShape.Alone => "Take the values away.",
                    TestShape.One => "Give one value.",
                    TestShape.Range => "Give two values, the lower first.",
                    _ => "Give one value or more.",
                });
        }

        foreach (var (i, comparand) in clause.Comparands.Index())
        {
            check($"{place}/comparands/{i}", comparand);
        }
    }

    private void CheckComparand(string place, Field subject, Comparand comparand)
    {
        switch (comparand)
        {
            case Literal { Value: var value }:
                if (value.IsBlank || subject.Type.Fit(value) is null)
                {
                    problems.Add($"{place}/value",
                        value.IsBlank
                            ? "The clause does not say what to compare with."
                            : $"“{ProblemList.Shorten(value.Plain)}” cannot be a value of {subject.Label}.",
                        $"Give {subject.Type.Noun}.");
                }

                break;
            case FieldComparand { Field: var key }:
                if (!fields.TryGetValue(key, out var other))
                {
                    problems.Add($"{place}/field", $"There is no field “{ProblemList.Shorten(key)}”.",
                        "Choose a field of this record type.");
                }
                else if (!FittingTests.AreComparable(subject.Type, other.Type))
                {
                    problems.Add($"{place}/field", $"{subject.Label} and {other.Label} cannot be compared with each other.",
                        $"Choose a field that holds {subject.Type.Noun}.");
                }

                break;
            default:
                throw new ArgumentOutOfRangeException(nameof(comparand));
        }
    }

    private void CheckKey(string place, Comparand comparand, string noun, IEnumerable<string> known)
    {
        if (comparand is not Literal { Value: Values.Text { Content: var key } } || !known.Contains(key, StringComparer.Ordinal))
        {
            problems.Add(place, $"This is not a {noun} of this record type.",
                $"Choose one of: {string.Join(", ", known.Distinct(StringComparer.Ordinal))}.");
        }
    }
}
