using Dibujo.Core.Evaluation;
using Dibujo.Core.Explanation;
using Dibujo.Core.Forms;
using Dibujo.Core.Rules;
using Dibujo.Core.Values;

namespace Dibujo.Core.Tests.Explanation;

/// <summary>Explanations that go beyond the rule on the element itself.</summary>
public class ChainTests
{
    [Fact]
    public void What_encloses_an_element_explains_it_too()
    {
        var facet = Facet(LoanFile.Open(LoanFile.Under("While Mode is blank, hide tab Transport.")), Element.Field("arrival"), Core.Rules.Facet.Visibility);

        Assert.Equal("Hidden with tab Transport by rule 1, “Rule”: because Mode is blank.", facet.Sentence);
    }

    [Fact]
    public void A_suspended_requirement_says_why()
    {
        var hidden = Facet(LoanFile.Open(LoanFile.Under("Always require Fee to save and hide Fee.")), Element.Field("fee"), Core.Rules.Facet.Requirement);
        var locked = Facet(LoanFile.Open(LoanFile.Under("Always require Fee to save and lock Fee.")), Element.Field("fee"), Core.Rules.Facet.Requirement);

        var atRest = Facet(LoanFile.Open(LoanFile.Under("Always hide Title.")), Element.Field("title"), Core.Rules.Facet.Requirement);

        Assert.EndsWith("This counts for nothing while it is hidden.", hidden.Sentence, StringComparison.Ordinal);
        Assert.EndsWith("This counts for nothing while it is locked for you.", locked.Sentence, StringComparison.Ordinal);
        Assert.Equal("Required to save at rest: no rule in force says otherwise. This counts for nothing while it is hidden.", atRest.Sentence);
    }

    [Fact]
    public void What_is_so_otherwise_is_so_because_no_case_before_holds()
    {
        var facet = Facet(
            LoanFile.Open(LoanFile.Under("While Mode is Air, require Fee to move on; else while Mode is Sea, show Fee; otherwise hide Fee.")),
            Element.Field("fee"), Core.Rules.Facet.Visibility);

        Assert.Equal("Hidden by rule 1, “Rule”: because not: Mode is Air and not: Mode is Sea.", facet.Sentence);
    }

    [Fact]
    public void A_rule_that_loses_to_a_higher_one_is_named_with_what_it_would_do()
    {
        var facet = Facet(
            LoanFile.Open(LoanFile.Under("Always require Fee to save.", "Always make optional Fee.", "While Mode is Air, require Fee to move on.")),
            Element.Field("fee"), Core.Rules.Facet.Requirement);

        Assert.Equal("require Fee to save", facet.Winner!.Says);
        // The last is not in force, so there is nothing that it could have lost.
        Assert.Equal(["make optional Fee"], facet.Losers.Select(l => l.Says));
    }

    [Fact]
    public void A_value_that_a_rule_gives_is_explained_with_what_it_follows_from()
    {
        var session = LoanFile.Open(LoanFile.Under(
            "Always calculate Fee as {«Insured value» * 0.02}.",
            "While Object has changed, set Insured value to the value of Object › Insured value."));
        session.Change("object", new Link(7));

        var explanation = new Explainer(session).Explain(Element.Field("fee"));

        var value = explanation.Facets.Single(f => f.Facet == Core.Rules.Facet.Value);
        Assert.Equal("Calculated by rule 1, “Rule”: always. Insured value is EUR 80,000 by rule 2, “Rule”.", value.Sentence);
        Assert.Equal<IEnumerable<SourceExplanation>>(
            [new("insuredValue", "Insured value", "EUR 80,000", "r1"), new("object", "Object", "No. 7", null)], value.Winner!.Sources);
    }

    [Fact]
    public void Behind_a_driver_stands_the_rule_that_makes_its_value()
    {
        var session = LoanFile.Open(
            LoanFile.Under("While Loan days is more than 90 days, require Valuer to save.", "Always calculate Loan days as {«Light limit» + 1}."),
            LoanFile.Saved(("lightLimit", 120)));

        var requirement = Facet(session, Element.Field("valuer"), Core.Rules.Facet.Requirement);

        Assert.Equal("Required to save by rule 1, “Rule”: because Loan days is more than 90 days. Loan days is 121 days by rule 2, “Rule”.", requirement.Sentence);
        Assert.Equal<IEnumerable<SourceExplanation>>(
            [new("loanDays", "Loan days", "121 days", "r1"), new("lightLimit", "Light limit", "120 lux", null)], requirement.Winner!.Sources);
    }

    [Fact]
    public void Every_clause_comes_with_its_value_and_truth()
    {
        var session = LoanFile.Open(
            LoanFile.Under("While Stage is from Terms on and (Insured value is at least EUR 250,000 or Mode is Air) and Role is not Director, lock Fee."),
            LoanFile.Saved(("insuredValue", 300_000)));

        Assert.Equal(
            [("Stage is from Terms on", "Terms", true), ("Insured value is at least EUR 250,000", "EUR 300,000", true), ("Mode is Air", "blank", false), ("Role is not Director", "Registrar", true)],
            new Explainer(session).Clauses(0).Select(c => (c.Sentence, c.Present, c.Holds)));
    }

    [Fact]
    public void A_field_that_looks_at_itself_is_explained_by_its_saved_value()
    {
        var session = LoanFile.Open(LoanFile.Under("While Decision is Refused, lock Decision."), LoanFile.Saved(("decision", "approved")));
        session.Change("decision", new Choice("refused"));

        var access = Facet(session, Element.Field("decision"), Core.Rules.Facet.Access);

        Assert.Equal(("open", (string?)null), (access.State, access.Winner?.Says));
        Assert.True(session.CaseInForce(0) == 0);
    }

    [Fact]
    public void Jumping_ahead_and_ending_explain_what_they_hide()
    {
        var session = LoanFile.Open(LoanFile.Under("While Mode is Van, jump ahead to tab Closing.", "While Borrower type is Company, end the form with “No.”."));
        session.Change("mode", new Choice("van"));
        Assert.Equal("jump ahead to tab Closing", Facet(session, Element.Field("arrival"), Core.Rules.Facet.Visibility).Winner!.Says);

        session.Change("borrowerType", new Choice("company"));
        Assert.Equal("end the form with “No.”", Facet(session, Element.Field("title"), Core.Rules.Facet.Visibility).Winner?.Says ?? Facet(session, Element.Field("fee"), Core.Rules.Facet.Visibility).Winner!.Says);
    }

    private static FacetExplanation Facet(Session session, Element element, Facet facet) =>
        new Explainer(session).Explain(element).Facets.Single(f => f.Facet == facet);
}
