using Dibujo.Core.Conditions;
using Dibujo.Core.Explanation;
using Dibujo.Core.Rules;
using Dibujo.Core.Sentences;
using static Dibujo.Core.Tests.Small;

namespace Dibujo.Core.Tests.Explanation;

public class ExplanationTests
{
    [Fact]
    public void A_rule_reads_as_one_would_say_it() => Assert.Equal(
        "While Insured value is at least EUR 50,000 and Stage is before Approval, require Certificate to move on.",
        Text(While(All(Field("insuredValue", Test.AtLeast, 50_000), Stage(Test.Before, "approval")), Require("certificate"))));

    [Fact]
    public void Cases_follow_each_other() => Assert.Equal(
        "While Material is one of Work on paper or Textile, show section Crate; else while Stage is from Terms on, lock tab Transport and hide Title and clear; otherwise make optional Crate length, Gross weight and Remarks.",
        Text(
            While(Field("material", Test.OneOf, "paper", "textile"), Show("section crate")),
            While(Stage(Test.FromOn, "terms"), Lock("tab transport"), HideAndClear("title")),
            Otherwise(Optional("crateLength", "grossWeight", "remarks"))));

    [Fact]
    public void Groups_within_groups_stand_in_brackets() => Assert.Equal(
        "While none of (Title contains “Harbour” or (Gross weight is between 1 kg and 5 kg and Role is Director)), hide Remarks.",
        Text(While(
            None(Field("title", Test.Contains, "Harbour"), All(Field("grossWeight", Test.Between, 1, 5), Role(Test.Is, "director"))), Hide("remarks"))));

    [Fact]
    public void An_explanation_names_rule_clauses_values_and_losers()
    {
        var session = Under(
            While(Field("crateNeeded", Test.Is, true), Require("grossWeight")),
            Otherwise(Optional("section crate"))).Open(Record(("crateNeeded", true)));

        var requirement = new Explainer(session).Explain(Element("grossWeight")).Facets.Single(f => f.Facet == Facet.Requirement);

        Assert.Equal("Required to move on by rule 1, “Rule 0”: because Crate needed is yes.", requirement.Sentence);
        Assert.Equal([("Crate needed is yes", "yes", true)], requirement.Winner!.Clauses.Select(c => (c.Sentence, c.Present, c.Holds)));
        Assert.Equal(["make optional section Crate"], requirement.Losers.Select(l => l.Says));
    }

    [Fact]
    public void A_hidden_element_is_explained_by_what_hides_it()
    {
        var session = Under(Otherwise(Show("grossWeight")), While(Field("title", Test.Blank), Hide("tab transport"))).Open();

        var visibility = new Explainer(session).Explain(Element("grossWeight")).Facets.Single(f => f.Facet == Facet.Visibility);

        Assert.Equal("hidden", visibility.State);
        Assert.Equal("hide tab Transport", visibility.Winner!.Says);
        Assert.Equal("blank", Assert.Single(visibility.Winner.Clauses).Present);
    }

    [Fact]
    public void Rest_explains_itself() =>
        Assert.Equal(
            "Open at rest: no rule in force says otherwise.",
            new Explainer(NoRules().Open()).Explain(Element("title")).Facets.Single(f => f.Facet == Facet.Access).Sentence);

    private static string Text(params Case[] cases) => Sentence.Plain(Sentence.Of(Under([cases]).Rules[0], Loan));
}
