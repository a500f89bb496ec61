using System.Collections.Immutable;
using Dibujo.Core.Forms;
using Dibujo.Core.Rules;

namespace Dibujo.Core.Explanation;

/// <summary>Why an element is as it is: one account for each facet.</summary>
public sealed record ElementExplanation(Element Element, string Label, ImmutableArray<FacetExplanation> Facets);

/// <summary>Why one facet of an element is as it is.</summary>
/// <param name="Facet">Which facet.</param>
/// <param name="State">What it is, in a word or two: "hidden", "required to move on".</param>
/// <param name="Sentence">The whole account as plain text, for people who never heard of rules.</param>
/// <param name="Winner">The claim that decided; null where the resting state did.</param>
/// <param name="Losers">Other claims in force on the same element or what encloses it, which count for nothing here.</param>
public sealed record FacetExplanation(
    Facet Facet,
    string State,
    string Sentence,
    ClaimExplanation? Winner,
    ImmutableArray<ClaimExplanation> Losers);

/// <summary>What a rule in force says of an element, and the clauses by which it is in force.</summary>
/// <param name="Rule">Key of the rule.</param>
/// <param name="Number">Its place in the list, from 1.</param>
/// <param name="Name">Its name.</param>
/// <param name="Reason">What it is for, as its author says; null where nobody did.</param>
/// <param name="On">The element that it names: the one explained or one that encloses it.</param>
/// <param name="Case">Which of its cases is in force, from 0.</param>
/// <param name="Says">What it does there, as in its sentence.</param>
/// <param name="Clauses">The clauses of that case's condition.</param>
/// <param name="Sources">The fields from whose values it makes one, and behind those and behind its clauses every field whose value a rule makes.</param>
public sealed record ClaimExplanation(
    string Rule,
    int Number,
    string Name,
    string? Reason,
    Element On,
    int Case,
    string Says,
    ImmutableArray<ClauseExplanation> Clauses,
    ImmutableArray<SourceExplanation> Sources);

/// <summary>A field from which a value is made, with its own value; if that is made by a rule in turn, its key.</summary>
public sealed record SourceExplanation(string Field, string Label, string Present, string? Rule);

/// <summary>One clause with the actual value and its truth.</summary>
/// <param name="Place">JSON Pointer within the rule.</param>
/// <param name="Sentence">The clause in words.</param>
/// <param name="Present">What its subject is now, as people read it; "blank" for no value.</param>
/// <param name="Holds">Whether it is true now.</param>
public sealed record ClauseExplanation(string Place, string Sentence, string Present, bool Holds);
