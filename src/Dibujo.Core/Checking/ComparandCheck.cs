using Dibujo.Core.Conditions;
using Dibujo.Core.Expressions;
using Dibujo.Core.Records;
using Dibujo.Core.Values;

namespace Dibujo.Core.Checking;

/// <summary>Whether a comparand is something that a subject of some type can be compared with, or a field can be given.</summary>
/// <param name="subjects">What can be looked at.</param>
/// <param name="accounts">Who can sign in; null where nobody here knows.</param>
/// <param name="problems">Where what is wrong is put.</param>
internal sealed class ComparandCheck(SubjectTypes subjects, IReadOnlySet<string>? accounts, ProblemList problems)
{
    /// <param name="place">Where it stands.</param>
    /// <param name="label">What is compared or given a value, as people call it.</param>
    /// <param name="type">Its type.</param>
    /// <param name="comparand">What stands there.</param>
    internal void Check(string place, string label, FieldType type, Comparand comparand)
    {
        switch (comparand)
        {
            case Literal { Value: var value }:
                var fitted = value.IsBlank ? null : type.Fit(value);
                if (fitted is null)
                {
                    problems.Add($"{place}/value",
                        value.IsBlank
                            ? "It is not said with what to compare, or which value to give."
                            : $"“{Excerpt.Of(value.Plain)}” cannot be a value of {label}.",
                        $"Give {type.Noun}.");
                }
                else if (fitted is Person { UserName: var account } && accounts?.Contains(account) == false)
                {
                    problems.Add($"{place}/value", $"Nobody signs in as “{Excerpt.Of(account)}”.", "Choose a person who does.");
                }

                break;
            case SubjectComparand { Subject: StageSubject or RoleSubject }:
                problems.Add($"{place}/subject", "A stage or role has no value to compare with.", "Look at it in a clause of its own.");
                break;
            case SubjectComparand { Subject: var other }:
                if (CheckSubject($"{place}/subject", other) is { } otherType && !FittingTests.AreComparable(type, otherType))
                {
                    problems.Add($"{place}/subject", $"{label} and {Name(other)} cannot be compared with each other.",
                        $"Choose something that holds {type.Noun}.");
                }

                break;
            case RelativeDay:
                if (type is not (DateType or DateTimeType))
                {
                    problems.Add(place, $"{label} cannot be compared with a day.", $"Give {type.Noun}.");
                }

                break;
            case ExpressionComparand { Expression: var text }:
                CheckExpression($"{place}/expression", type, text);
                break;
            default:
                throw new ArgumentOutOfRangeException(nameof(comparand));
        }
    }

    /// <summary>The subject's type; null, with a problem, where it names something that does not exist.</summary>
    internal FieldType? CheckSubject(string place, Subject subject)
    {
        if (subjects.Of(subject) is { } type)
        {
            return type;
        }

        switch (subject)
        {
            case FieldSubject { Field: var key } when subjects.Field(key) is null:
                problems.Add($"{place}/field",
                    key.Length == 0 ? "The clause does not say what to look at." : $"There is no field “{Excerpt.Of(key)}”.",
                    "Choose a field of this record type.");
                break;
            case FieldSubject { Part: var part, Field: var key }:
                problems.Add($"{place}/part", $"{subjects.Field(key)!.Label} has no part “{Excerpt.Of(part ?? "")}”.",
                    subjects.Field(key)!.Type is CompoundType compound
                        ? $"Choose one of: {string.Join(", ", compound.Parts.Select(p => p.Key))}."
                        : "Look at the field itself.");
                break;
            case LinkedSubject { Via.Length: 0 or > LinkedSubject.MostLinks }:
                problems.Add($"{place}/via", $"One to {LinkedSubject.MostLinks} links can be followed.", "Name the link fields to follow, the first on this record.");
                break;
            default:
                problems.Add(place, "These links do not lead to a field that is known here.",
                    "Follow link fields to record types that this one knows, and name a field of the last.");
                break;
        }

        return null;
    }

    private void CheckExpression(string place, FieldType type, string text)
    {
        if (string.IsNullOrWhiteSpace(text))
        {
            problems.Add(place, "The expression is empty.", $"Write one that gives {type.Noun}.");
            return;
        }

        var (expression, mistake) = Expression.Parse(text);
        if (mistake is not null)
        {
            Report(mistake);
            return;
        }

        var sound = true;
        var result = expression!.Check(
            name => NameResolution.Resolve(name, subjects) is { } subject ? FeelTypes.Of(subjects.Of(subject)!) : null,
            problem =>
            {
                sound = false;
                Report(problem);
            });
        if (sound && !FeelTypes.Fits(result, type))
        {
            problems.Add(place, $"The expression gives {result.Noun()}.", $"Write one that gives {type.Noun}.");
        }

        void Report(ExpressionProblem problem) => problems.Add(place, $"At character {problem.Place + 1}: {problem.What}", problem.Mend);
    }

    private string Name(Subject subject) => subject is FieldSubject { Field: var key } ? subjects.Field(key)?.Label ?? key : "what is named here";
}
