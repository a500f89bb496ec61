using Dibujo.Core.Analysis;
using Dibujo.Core.Checking;
using Dibujo.Core.Forms;
using Dibujo.Core.Rules;
using Dibujo.Core.Values;

namespace Dibujo.Core.Tests.Evaluation;

/// <summary>Fields whose values depend on each other: often harmless, and where not, said.</summary>
public class CycleTests
{
    private static readonly string[] EitherOr = ["While Certificate number is filled in, hide Valuer and clear.", "While Valuer is filled in, hide Certificate number and clear."];

    [Fact]
    public void Of_two_fields_that_hide_each_other_the_one_may_be_emptied_and_the_other_filled_in_at_once()
    {
        var definition = LoanFile.Under(EitherOr);
        var saved = LoanFile.Saved(("title", "Lantern"), ("valuer", "Otto Quell"));
        var session = LoanFile.Open(definition, saved);
        session.Change("valuer", Value.Blank);
        session.Change("certificate", new Text("Q-1"));

        Assert.True(session.IsSettled);
        Assert.Equal((Value.Blank, new Text("Q-1")), (session["valuer"], session["certificate"]));
        Assert.Equal((false, true), (session.StateOf(Element.Field("valuer")).IsVisible, session.StateOf(Element.Field("certificate")).IsVisible));
        Assert.DoesNotContain(definition.RecordType.Fields, f => session.StateOf(Element.Field(f.Key)) is { IsEditable: true, IsSetAside: true });
        var verdict = LoanFile.Decide(definition, saved, changes: [("valuer", null), ("certificate", "Q-1")]);
        Assert.Empty(verdict.Refusals);
        Assert.Equal(session.Values(), verdict.Values);
    }

    [Fact]
    public void A_cycle_that_never_comes_to_rest_keeps_its_rules_from_being_published()
    {
        var problem = Assert.Single(Problems(LoanFile.Under(
            "While Certificate number is blank, calculate Valuer as “x”.", "While Valuer is filled in, calculate Certificate number as “y”.")));

        Assert.Equal("/rules/0", problem.Place);
        Assert.Contains("go round in a cycle and never come to rest, as for ", problem.What, StringComparison.Ordinal);
        Assert.Contains("Certificate number blank", problem.What, StringComparison.Ordinal);
    }

    [Theory]
    [InlineData("and clear")]
    [InlineData("")]
    public void A_cycle_that_comes_to_rest_may_be_published(string keep) =>
        Assert.Empty(Problems(LoanFile.Under([.. EitherOr.Select(rule => rule.Replace(" and clear", keep.Length == 0 ? "" : " " + keep, StringComparison.Ordinal))])));

    [Fact]
    public void A_cycle_that_comes_to_rest_at_some_stages_only_is_told_with_the_stage() => Assert.Contains(
        "at the stage Approval",
        Assert.Single(Problems(LoanFile.Under(
            "While Certificate number is blank and Stage is Approval, calculate Valuer as “x”.",
            "While Valuer is filled in, calculate Certificate number as “y”; otherwise empty Certificate number."))).What,
        StringComparison.Ordinal);

    private static System.Collections.Immutable.ImmutableArray<Problem> Problems(Definition definition) => PublicationCheck.Of(definition).All();
}
