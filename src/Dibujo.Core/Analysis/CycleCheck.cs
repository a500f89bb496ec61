using System.Collections.Immutable;
using Dibujo.Core.Checking;
using Dibujo.Core.Conditions;
using Dibujo.Core.Evaluation;
using Dibujo.Core.Programs;
using Dibujo.Core.Records;
using Dibujo.Core.Values;

namespace Dibujo.Core.Analysis;

/// <summary>Whether rules that depend on each other's values in a cycle come to rest, for whatever is saved.</summary>
/// <remarks>
/// Tried out on the values at which the answers of the cycle's conditions can change (<see cref="BoundaryValues"/>): on all
/// combinations of them where they are few, else on as many as there is time for, the same at every run.
/// </remarks>
internal sealed class CycleCheck(RuleProgram program)
{
    private const int MostTries = 2000;
    private const int LeastTries = 50;

    /// <summary>How much is tried in all, counted in rules times fields.</summary>
    private const int MostWork = 4_000_000;

    private const int MostValues = 8;

    /// <summary>A problem for each cycle that may go round without end, at the highest of its rules.</summary>
    internal ImmutableArray<RuleProblems> Run()
    {
        var problems = ImmutableArray.CreateBuilder<RuleProblems>();
        foreach (var cycle in program.Order.Cycles.Where(cycle => cycle.IsTrue))
        {
            if (Unsettled(cycle) is not { } values)
            {
                continue;
            }

            var rank = cycle.Variants.Select(program.Variants.RankOf).DefaultIfEmpty().Min();
            var labels = string.Join(", ", cycle.Fields.Take(6).Select(field => program.Fields[field].Label)) + (cycle.Fields.Length > 6 ? " and others" : "");
            problems.Add(new(rank, [new("",
                $"The values of {labels} go round in a cycle and never come to rest, as for {values}.",
                "Let one of the rules look at something else, or give the value only once.")]));
        }

        return problems.ToImmutable();
    }

    private string? Unsettled(Cycle cycle)
    {
        var type = program.Definition.RecordType;
        var looked = cycle.Variants.SelectMany(program.Variants.FieldsOf).Concat(cycle.Fields).Distinct().Order().ToList();
        var subjects = program.Slots.Subjects;
        var conditions = cycle.Variants.Select(program.Variants.RankOf).Distinct().SelectMany(rank => program.Cases[rank]).SelectMany(c => Clauses(c.While)).ToList();
        var values = looked.ConvertAll(field => ValuesOf(field, conditions, subjects));
        var random = new Random(7);
        var tries = Math.Clamp(MostWork / ((cycle.Variants.Length * cycle.Fields.Length) + 1), LeastTries, MostTries);
        foreach (var workflow in type.Workflows)
        {
            foreach (var stage in workflow.Stages)
            {
                var setting = new Setting(workflow.Key, stage.Key, Now: new(2026, 11, 24));
                var session = new Session(program, RecordValues.Empty, setting);
                foreach (var choice in Combinations(values, random, tries))
                {
                    var record = new RecordValues(looked.Zip(choice).Where(v => !v.Second.IsBlank)
                        .Select(v => KeyValuePair.Create(program.Fields[v.First].Key, v.Second)));
                    session.Replace(record);
                    if (session.UnsettledFields.Contains(program.Fields[cycle.Fields[0]].Key, StringComparer.Ordinal))
                    {
                        return string.Join(", ", looked.Zip(choice).Select(v =>
                            $"{program.Fields[v.First].Label} {(v.Second.IsBlank ? "blank" : program.Fields.Type(v.First).Display(v.Second))}")) + $" at the stage {stage.Label}";
                    }
                }

                if (!conditions.Exists(clause => clause.Subject is StageSubject or WorkflowSubject))
                {
                    return null;
                }
            }
        }

        return null;
    }

    private Value[] ValuesOf(int field, List<Clause> conditions, SubjectTypes subjects)
    {
        var key = program.Fields[field].Key;
        var type = program.Fields.Type(field);
        var compared = conditions.Where(c => c.Subject is FieldSubject { Part: null } subject && subject.Field == key)
            .SelectMany(c => c.Comparands).OfType<Literal>().Select(literal => type.Fit(literal.Value)).OfType<Value>();
        return [.. BoundaryValues.Of(new FieldSubject(key), subjects.Of(new FieldSubject(key))!, [.. compared]).OrderBy(v => !v.IsBlank).Take(MostValues)];
    }

    private static IEnumerable<Value[]> Combinations(List<Value[]> values, Random random, int tries)
    {
        var count = values.Aggregate(1L, (product, some) => Math.Min(product * some.Length, tries + 1));
        for (var i = 0; i < Math.Min(count, tries); i++)
        {
            var left = count <= tries ? i : random.NextInt64(long.MaxValue);
            yield return [.. values.Select(some =>
            {
                (left, var at) = Math.DivRem(left, some.Length);
                return some[at];
            })];
        }
    }

    private static IEnumerable<Clause> Clauses(Condition? condition) => condition switch
    {
        Group group => group.Members.SelectMany(Clauses),
        Clause clause => [clause],
        _ => [],
    };
}
