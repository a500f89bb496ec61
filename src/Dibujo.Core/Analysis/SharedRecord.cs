using System.Collections.Immutable;
using Dibujo.Core.Checking;
using Dibujo.Core.Conditions;
using Dibujo.Core.Records;
using Dibujo.Core.Rules;
using Dibujo.Core.Sentences;
using Dibujo.Core.Values;

namespace Dibujo.Core.Analysis;

/// <summary>Records on which two rules are both in force, one case of each, as far as their conditions tell.</summary>
/// <remarks>
/// Tried are the values at which the answer of some clause can change (<see cref="BoundaryValues"/>). A clause whose
/// comparands are not fixed may be true or not, whatever the values. Subjects are taken to be independent of each other.
/// </remarks>
internal sealed class SharedRecord
{
    private const int MostTried = 20_000;

    private readonly Dictionary<Clause, (int Variable, bool[] Truths)> clauses = [];
    private readonly List<(string Label, string[] Examples)> variables = [];

    internal SharedRecord(Rule one, Rule other, RecordType type)
    {
        var subjects = new SubjectTypes(type);
        var labels = new Labels(type);
        var all = one.AllCases().Concat(other.AllCases()).SelectMany(of => Clauses(of.While)).Distinct().ToList();
        foreach (var bySubject in all.GroupBy(clause => clause.Subject))
        {
            if (subjects.Of(bySubject.Key) is not { } subjectType)
            {
                continue;
            }

            var tests = bySubject.Where(IsFixed).Select(clause => (clause, Test: new FixedTest(bySubject.Key, subjectType, clause.Test, clause.Comparands))).ToList();
            var candidates = CandidatesOf(bySubject.Key, subjectType, type, [.. tests.Select(t => t.Test)]);
            foreach (var (clause, test) in tests)
            {
                clauses[clause] = (variables.Count, [.. candidates.Select(test.Holds)]);
            }

            variables.Add((labels.Of(bySubject.Key), [.. candidates.Select(c => c.Value.IsBlank ? "blank" : subjectType is ChoiceType && c.Value is Choices roles ? string.Join(" and ", roles.Keys) : subjectType.Display(c.Value))]));
        }

        foreach (var clause in all.Where(clause => !clauses.ContainsKey(clause)))
        {
            clauses[clause] = (variables.Count, [true, false]);
            variables.Add(("", ["", ""]));
        }
    }

    /// <summary>Values for which the first rule's case and the second's disagree by that; null if there are none.</summary>
    internal string? Find(Rule one, Rule other, Func<Case, Case, bool> disagrees)
    {
        var (first, second) = (one.AllCases(), other.AllCases());
        var product = variables.Aggregate(1L, (count, variable) => Math.Min(long.MaxValue / 1000, count * Math.Max(1, variable.Examples.Length)));
        var step = Math.Max(1, product / MostTried);
        for (long number = 0; number < product; number += step)
        {
            var at = Places(number);
            if (InForce(first, at) is { } a && InForce(second, at) is { } b && disagrees(a, b))
            {
                return string.Join(", ", variables.Zip(at).Where(v => v.First.Label.Length > 0).Select(v => $"{v.First.Label} {v.First.Examples[v.Second]}"));
            }
        }

        return null;
    }

    private int[] Places(long number)
    {
        var at = new int[variables.Count];
        foreach (var (i, (_, examples)) in variables.Index())
        {
            at[i] = (int)(number % examples.Length);
            number /= examples.Length;
        }

        return at;
    }

    private Case? InForce(ImmutableArray<Case> cases, int[] at) => cases.FirstOrDefault(of => of.While is null || Holds(of.While, at));

    private bool Holds(Condition condition, int[] at) => condition switch
    {
        Group { Quantifier: Quantifier.AllOf } all => all.Members.All(member => Holds(member, at)),
        Group { Quantifier: Quantifier.AnyOf } any => any.Members.Any(member => Holds(member, at)),
        Group none => !none.Members.Any(member => Holds(member, at)),
        Clause clause => clauses[clause] is var (variable, truths) && truths[at[variable]],
        _ => false,
    };

    private static IEnumerable<Clause> Clauses(Condition? condition) => condition switch
    {
        Group group => group.Members.SelectMany(Clauses),
        Clause clause => [clause],
        _ => [],
    };

    private static bool IsFixed(Clause clause) => clause.Comparands.All(c => c is Literal) && (clause.Test.Shape() == TestShape.Alone || !clause.Comparands.IsEmpty);

    private static Candidate[] CandidatesOf(Subject subject, FieldType subjectType, RecordType type, FixedTest[] tests)
    {
        if (subject is StageSubject)
        {
            return [.. type.Workflows.SelectMany(workflow => workflow.Stages.Select(stage => new Candidate(new Choice(stage.Key), workflow)))];
        }

        var values = BoundaryValues.Of(subject, subjectType, [.. tests.SelectMany(test => test.Comparands)])
            .Concat(tests.SelectMany((test, i) => tests.Skip(i + 1).SelectMany(other => BoundaryValues.Between(test, other)))).Distinct();
        var looksAtChange = tests.Any(test => test.Test is Test.Changed or Test.Unchanged);
        return [.. values.SelectMany(value => (Candidate[])(looksAtChange ? [new(value), new(value, HasChanged: true)] : [new(value)]))];
    }
}
