using Dibujo.Core.Conditions;
using Dibujo.Core.Forms;
using Dibujo.Core.Values;
using static Dibujo.Core.Tests.Small;

namespace Dibujo.Core.Tests.Evaluation;

public class FacetTests
{
    [Fact]
    public void What_a_rule_does_comes_undone_when_its_condition_ends()
    {
        var session = Under(While(Field("crateNeeded", Test.Is, true), Require("grossWeight"))).Open();

        session.Type("crateNeeded", true);
        Assert.Equal(Requirement.ToMoveOn, session.State("grossWeight").Requirement);

        session.Type("crateNeeded", false);
        Assert.Equal(Requirement.Optional, session.State("grossWeight").Requirement);
    }

    [Fact]
    public void A_hidden_section_asks_for_nothing()
    {
        var session = Under(
            While(Field("crateNeeded", Test.Is, false), Hide("section insurance")),
            Otherwise(RequireToSave("certificate"))).Open(Record(("crateNeeded", false)));

        var state = session.State("certificate");
        Assert.False(state.IsVisible);
        Assert.Equal(Requirement.ToSave, state.Requirement);
        Assert.True(state.IsSuspended);
        Assert.Equal(Requirement.Optional, state.Effective);
    }

    [Fact]
    public void The_highest_rule_wins_on_an_element_and_an_own_claim_beats_a_container()
    {
        var session = Under(
            Otherwise(Lock("section crate")),
            Otherwise(Unlock("crateLength")),
            Otherwise(Require("grossWeight")),
            Otherwise(Optional("grossWeight"))).Open();

        Assert.Equal(Access.Locked, session.State("grossWeight").Access);
        Assert.Equal(Access.Open, session.State("crateLength").Access);
        Assert.Equal(Requirement.ToMoveOn, session.State("grossWeight").Requirement);
    }

    [Fact]
    public void Visibility_is_a_chain_that_showing_a_field_does_not_break()
    {
        var session = Under(Otherwise(Show("grossWeight")), Otherwise(Hide("tab transport"))).Open();

        Assert.False(session.State("grossWeight").IsVisible);
        Assert.False(session.State("section crate").IsVisible);
        Assert.True(session.State("title").IsVisible);
    }

    [Fact]
    public void While_locked_only_the_requirement_to_save_is_suspended()
    {
        var session = Under(Otherwise(Lock("title", "remarks"), RequireToSave("title"), Require("remarks"))).Open();

        Assert.True(session.State("title").IsSuspended);
        Assert.False(session.State("remarks").IsSuspended);
    }

    [Fact]
    public void The_first_case_that_holds_is_in_force_and_otherwise_is_the_rest()
    {
        var session = Under(
        [
            [
                While(Field("insuredValue", Test.AtLeast, 250_000), RequireToSave("certificate")),
                While(Field("insuredValue", Test.AtLeast, 50_000), Require("certificate")),
                Otherwise(Hide("certificate")),
            ],
        ]).Open();

        Assert.Equal(2, session.CaseInForce(0));
        session.Type("insuredValue", 60_000);
        Assert.Equal(Requirement.ToMoveOn, session.State("certificate").Requirement);
        session.Type("insuredValue", 250_000);
        Assert.Equal(Requirement.ToSave, session.State("certificate").Requirement);
        Assert.True(session.State("certificate").IsVisible);
    }

    [Fact]
    public void A_rule_that_is_off_does_nothing()
    {
        var definition = Under(Otherwise(Hide("title")));
        var off = definition with { Rules = [definition.Rules[0] with { On = false }] };

        Assert.True(off.Open().State("title").IsVisible);
    }

    [Fact]
    public void Rest_speaks_where_no_rule_does_and_a_container_rests_for_its_fields()
    {
        var form = Loan.Forms[0];
        var tab = form.Tabs[1];
        var resting = Loan with
        {
            Forms = [form with { Tabs = [form.Tabs[0], tab with { Rest = new(Access: Access.Locked, Requirement: Requirement.ToSave) }] }],
        };
        var session = new Core.Rules.Definition(resting,
            Under(While(Role(Test.Is, "director"), Unlock("section crate"))).Rules).Open();

        Assert.Equal(Access.Locked, session.State("grossWeight").Access);
        Assert.Equal(Requirement.ToSave, session.State("grossWeight").Requirement);
        session.Enter(AtEnquiry with { Roles = ["director"] });
        Assert.Equal(Access.Open, session.State("grossWeight").Access);
        Assert.Equal(Access.Locked, session.State("certificate").Access);
    }

    [Fact]
    public void A_change_tells_what_it_altered_and_nothing_else()
    {
        var session = Under(While(Field("crateNeeded", Test.Is, true), Require("grossWeight"))).Open();

        var delta = session.Type("crateNeeded", true);

        Assert.Equal([session.Program.NumberOf(Element("grossWeight"))], delta.Elements);
        Assert.Equal([session.Program.NumberOf(Element("crateNeeded"))], delta.Values);
        Assert.Equal([0], delta.Rules);
        Assert.Equal(Value.Blank, session["grossWeight"]);
    }

    [Fact]
    public void Stage_and_person_are_part_of_the_setting()
    {
        var session = Under(While(All(Stage(Test.FromOn, "approval"), Role(Test.IsNot, "director")), Lock("section insurance"))).Open();

        Assert.Equal(Access.Open, session.State("certificate").Access);
        session.Enter(AtEnquiry with { Stage = "returned" });
        Assert.Equal(Access.Locked, session.State("certificate").Access);
        session.Enter(AtEnquiry with { Stage = "returned", Roles = ["director"] });
        Assert.Equal(Access.Open, session.State("certificate").Access);
    }

    [Fact]
    public void A_rule_about_what_is_not_on_the_form_does_no_harm_there()
    {
        var definition = Under(While(Field("crateNeeded", Test.Is, true), RequireToSave("certificate", "title")));
        var (program, _) = Core.Compilation.ProgramCompiler.Compile(definition);
        var session = new Core.Evaluation.Session(program!, Record(("crateNeeded", true)), AtEnquiry with { Form = "quick" });

        Assert.Equal(Requirement.ToSave, session.State("title").Effective);
        Assert.Equal(Requirement.Optional, session.State("certificate").Effective);
    }
}
