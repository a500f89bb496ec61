using System.Collections.Immutable;
using Dibujo.Core.Analysis;
using Dibujo.Core.Programs;

namespace Dibujo.Core.Answers;

/// <summary>What is found about rules, as answers.</summary>
public static class AnalysisAnswer
{
    /// <summary>Places of rows that are never reached, pairs of those that overlap, and gaps.</summary>
    public static void Write(this AnswerWriter to, TableReach reach) => to.Object(() =>
    {
        to.Numbers("unreached", reach.Unreached);
        to.List("overlaps", reach.Overlaps, pair => to.Object(() =>
        {
            to.Number("upper", pair.Upper);
            to.Number("lower", pair.Lower);
        }));
        to.Texts("gaps", reach.Gaps);
    });

    /// <summary>For each rule that skips anything, its place and what it skips.</summary>
    public static void WriteSkipped(this AnswerWriter to, RuleProgram program) =>
        to.List(Enumerable.Range(0, program.Definition.Rules.Length).Select(rule => (Rule: rule, Elements: program.SkippedBy(rule).ToList())).Where(rule => rule.Elements.Count > 0),
            rule => to.Object(() =>
            {
                to.Number("rule", rule.Rule);
                to.List("elements", rule.Elements, to.Element);
            }));

    /// <summary>For each workflow, the stages that no way leads to, and those from which none leads to an end.</summary>
    public static void Write(this AnswerWriter to, IEnumerable<Ways> workflows) => to.List(workflows, ways => to.Object(() =>
    {
        to.Texts("unreached", ways.Unreached);
        to.Texts("stuck", ways.Stuck);
    }));

    /// <summary>What another order changes, a sentence each.</summary>
    public static void Write(this AnswerWriter to, ImmutableArray<Reordering> reorderings) =>
        to.List(reorderings, reordering => to.Json.WriteStringValue(reordering.What));
}
