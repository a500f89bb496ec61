using System.Collections.Immutable;
using Dibujo.Core.Analysis;

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

    /// <summary>What another order changes, a sentence each.</summary>
    public static void Write(this AnswerWriter to, ImmutableArray<Reordering> reorderings) =>
        to.List(reorderings, reordering => to.Json.WriteStringValue(reordering.What));
}
