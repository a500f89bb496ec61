using System.Collections.Immutable;
using Dibujo.Core.Explanation;

namespace Dibujo.Core.Answers;

/// <summary>Explanations as answers.</summary>
public static class ExplanationAnswer
{
    /// <summary>Why an element is as it is.</summary>
    public static void Write(this AnswerWriter to, ElementExplanation explanation) => to.Object(() =>
    {
        to.Element("element", explanation.Element);
        to.Text("label", explanation.Label);
        to.List("facets", explanation.Facets, to.Facet);
    });

    /// <summary>The clauses of a rule with their truth.</summary>
    public static void Write(this AnswerWriter to, ImmutableArray<ClauseExplanation> clauses) => to.List(clauses, to.Clause);

    private static void Facet(this AnswerWriter to, FacetExplanation facet) => to.Object(() =>
    {
        to.Enum("facet", facet.Facet);
        to.Text("state", facet.State);
        to.Text("sentence", facet.Sentence);
        if (facet.Winner is { } winner)
        {
            to.Json.WritePropertyName("winner");
            to.Claim(winner);
        }

        to.List("losers", facet.Losers, to.Claim);
    });

    private static void Claim(this AnswerWriter to, ClaimExplanation claim) => to.Object(() =>
    {
        to.Text("rule", claim.Rule);
        to.Number("number", claim.Number);
        to.Text("name", claim.Name);
        to.TextIfAny("reason", claim.Reason);
        to.Element("on", claim.On);
        to.Number("case", claim.Case);
        to.Text("says", claim.Says);
        to.List("clauses", claim.Clauses, to.Clause);
        to.List("sources", claim.Sources, to.Source);
    });

    private static void Clause(this AnswerWriter to, ClauseExplanation clause) => to.Object(() =>
    {
        to.Text("place", clause.Place);
        to.Text("sentence", clause.Sentence);
        to.Text("present", clause.Present);
        to.Truth("holds", clause.Holds);
    });

    private static void Source(this AnswerWriter to, SourceExplanation source) => to.Object(() =>
    {
        to.Text("field", source.Field);
        to.Text("label", source.Label);
        to.Text("present", source.Present);
        to.TextIfAny("rule", source.Rule);
    });
}
