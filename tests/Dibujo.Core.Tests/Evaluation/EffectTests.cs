using Dibujo.Core.Evaluation;
using Dibujo.Core.Forms;
using Dibujo.Core.Records;
using Dibujo.Core.Rules;
using Dibujo.Core.Values;

namespace Dibujo.Core.Tests.Evaluation;

/// <summary>What each kind of effect does to a loan while its case is in force, and that it is undone after.</summary>
public class EffectTests
{
    [Fact]
    public void A_part_has_states_of_its_own()
    {
        var session = LoanFile.Open(LoanFile.Under(
            "While Borrower type is Private collector, hide Borrower address › Country and lock Borrower address › City and require Borrower contact › Family name to save."));

        session.Change("borrowerType", new Choice("private"));

        Assert.False(State(session, Element.Part("borrowerAddress", "country")).IsVisible);
        Assert.Equal(Access.Locked, State(session, Element.Part("borrowerAddress", "city")).Access);
        Assert.Equal(Requirement.ToSave, State(session, Element.Part("borrowerContact", "family")).Requirement);
        Assert.Equal(Requirement.Optional, State(session, Element.Part("borrowerContact", "given")).Requirement);
        Assert.Equal(new ElementState(true, Access.Open, Requirement.Optional, false, false), State(session, Element.Field("borrowerAddress")));
    }

    [Fact]
    public void What_is_typed_into_a_locked_part_is_set_aside_and_the_rest_counts()
    {
        var session = LoanFile.Open(LoanFile.Under("Always lock Borrower address › City."), LoanFile.Saved(("borrowerAddress", "street=Kai 3, city=Vell")));

        session.Change("borrowerAddress", LoanFile.Fitted("borrowerAddress", "street=Kai 4, city=Oststrand"));

        Assert.Equal(LoanFile.Fitted("borrowerAddress", "street=Kai 4, city=Vell"), session["borrowerAddress"]);
        Assert.Equal(LoanFile.Fitted("borrowerAddress", "street=Kai 4, city=Vell"), session.Changes()["borrowerAddress"]);
    }

    [Fact]
    public void A_requirement_on_a_value_of_parts_is_one_on_each_part_that_is_not_optional()
    {
        var session = LoanFile.Open(LoanFile.Under("Always require Borrower address to save."), LoanFile.Saved(("borrowerAddress", "street=Kai 3")));

        Assert.Equal(Requirement.ToSave, State(session, Element.Part("borrowerAddress", "city")).Requirement);
        Assert.Equal(Requirement.Optional, State(session, Element.Part("borrowerAddress", "country")).Requirement);
        Assert.Equal(Element.Part("borrowerAddress", "city"), session.Missing().Single(m => m.Field == "borrowerAddress").Element);
    }

    [Fact]
    public void The_whole_form_can_be_locked()
    {
        var session = LoanFile.Open(LoanFile.Under("While Stage is Returned, lock form Loan file.", "Always unlock Valuer."), setting: LoanFile.AtTerms with { Stage = "returned" });

        // The nearest claim counts, wherever it stands in the list.
        Assert.Equal(Access.Locked, State(session, Element.Field("title")).Access);
        Assert.Equal(Access.Open, State(session, Element.Field("valuer")).Access);
    }

    [Fact]
    public void Jumping_ahead_hides_what_lies_between_and_nothing_else()
    {
        var session = LoanFile.Open(LoanFile.Under("While Mode is Carried by hand, jump ahead to tab Closing."));

        session.Change("mode", new Choice("hand"));

        Assert.False(State(session, Element.Field("arrival")).IsVisible);
        Assert.False(State(session, Element.Section("customs")).IsVisible);
        Assert.True(State(session, Element.Field("mode")).IsVisible);
        Assert.True(State(session, Element.Field("title")).IsVisible);
        Assert.True(State(session, Element.Tab("closing")).IsVisible);

        session.Change("mode", new Choice("van"));
        Assert.True(State(session, Element.Field("arrival")).IsVisible);
    }

    [Fact]
    public void Ending_the_form_hides_the_rest_of_it_and_says_why()
    {
        var session = LoanFile.Open(LoanFile.Under("While Borrower type is Company, end the form with “We lend to no company such as {Borrower}.”."));

        session.Change([KeyValuePair.Create<string, Value>("borrower", new Text("Vell & Sons")), KeyValuePair.Create<string, Value>("borrowerType", new Choice("company"))]);

        Assert.False(State(session, Element.Field("borrowerContact")).IsVisible);
        Assert.False(State(session, Element.Tab("closing")).IsVisible);
        Assert.True(State(session, Element.Field("borrower")).IsVisible);
        Assert.Equal((true, "We lend to no company such as Vell & Sons."), session.Messages().Select(m => (m.EndsForm, m.Text)).Single());
    }

    [Fact]
    public void Choices_are_narrowed_by_the_highest_rule_that_does_so()
    {
        var session = LoanFile.Open(LoanFile.Under(
            "While Borrower type is Private collector, narrow Purpose to Exhibition or Research.",
            "Always narrow Purpose to Research or Education."));
        var purpose = session.Program.Definition.RecordType.Fields.Select(f => f.Key).ToList().IndexOf("purpose");
        Assert.Equal(["research", "education"], session.Offers(purpose)!);

        session.Change("borrowerType", new Choice("private"));

        Assert.Equal(["exhibition", "research"], session.Offers(purpose)!);
    }

    [Fact]
    public void A_message_names_values_as_people_read_them_and_goes_away_with_its_reason()
    {
        var session = LoanFile.Open(LoanFile.Under(
            "While Insured value is at least EUR 50,000, warn with “{Insured value} for {Material}, {Valuer} says.” at Insured value."));
        session.Change([KeyValuePair.Create<string, Value>("insuredValue", new Number(60_000)), KeyValuePair.Create<string, Value>("material", new Choice("paper"))]);

        Assert.Equal(
            new SaidMessage(0, Severity.Warning, "EUR 60,000 for Work on paper, blank says.", Element.Field("insuredValue"), "loanFile"), session.Messages().Single());

        session.Change("insuredValue", new Number(1));
        Assert.Empty(session.Messages());
    }

    [Fact]
    public void No_message_stands_beside_what_is_not_seen()
    {
        var session = LoanFile.Open(LoanFile.Under("Always warn with “Look!” at Fee and hide section Fee."));

        Assert.Empty(session.Messages());
    }

    [Fact]
    public void A_suggestion_lasts_until_it_is_taken()
    {
        var session = LoanFile.Open(LoanFile.Under("While Insured value is at least EUR 100,000, suggest setting Courier needed to yes because “Of {Insured value}.”."));
        Assert.Empty(session.Suggestions());

        session.Change("insuredValue", new Number(100_000));
        Assert.Equal(new Suggestion(0, "courierNeeded", new YesNo(true), "Of EUR 100,000."), session.Suggestions().Single());

        session.Change("courierNeeded", new YesNo(true));
        Assert.Empty(session.Suggestions());
    }

    [Fact]
    public void Nothing_is_suggested_for_a_field_that_cannot_be_changed() =>
        Assert.Empty(LoanFile.Open(LoanFile.Under("Always suggest setting Fee to EUR 3 because “so”.", "Always lock Fee.")).Suggestions());

    [Fact]
    public void A_value_is_set_when_its_case_comes_into_force_and_may_be_edited_after()
    {
        var session = LoanFile.Open(LoanFile.Under("While Fee waived is yes, set Fee to EUR 0."), LoanFile.Saved(("fee", 200)));

        session.Change("feeWaived", new YesNo(true));
        Assert.Equal(new Number(0), session["fee"]);
        session.Change("fee", new Number(5));
        Assert.Equal(new Number(5), session["fee"]);

        session.Change("feeWaived", Value.Blank);
        session.Change("fee", new Number(200));
        Assert.Equal(new Number(200), session["fee"]);
    }

    [Fact]
    public void A_value_is_not_set_again_in_a_record_saved_with_the_case_in_force()
    {
        var session = LoanFile.Open(LoanFile.Under("While Fee waived is yes, set Fee to EUR 0."), LoanFile.Saved(("fee", 5), ("feeWaived", true)));

        Assert.Equal(new Number(5), session["fee"]);
    }

    [Fact]
    public void On_a_new_record_a_value_is_set_by_a_case_that_is_in_force_from_the_start()
    {
        var session = LoanFile.Open(LoanFile.Under("Always set Purpose to Exhibition."), setting: LoanFile.AtTerms with { IsNew = true });

        Assert.Equal(new Choice("exhibition"), session["purpose"]);
    }

    [Fact]
    public void A_calculated_value_follows_its_sources_and_is_locked()
    {
        var session = LoanFile.Open(LoanFile.Under(
            "Always calculate Loan days as {if «End date» >= «Start date» then («End date» - «Start date»).days + 1 else null}.",
            "While Loan days is more than 90 days, require Extension reason to save.",
            "Always show Extension reason."));

        session.Change([
            KeyValuePair.Create("startDate", LoanFile.Fitted("startDate", "2027-02-01")), KeyValuePair.Create("endDate", LoanFile.Fitted("endDate", "2027-05-31"))]);

        Assert.Equal(new Number(120), session["loanDays"]);
        Assert.Equal(Access.Locked, State(session, Element.Field("loanDays")).Access);
        Assert.Equal(Requirement.ToSave, State(session, Element.Field("extensionReason")).Requirement);

        session.Change("endDate", LoanFile.Fitted("endDate", "2027-01-01"));
        Assert.Equal(Value.Blank, session["loanDays"]);
    }

    [Fact]
    public void What_is_calculated_is_rounded_to_the_digits_that_the_field_keeps_halves_away_from_zero()
    {
        var session = LoanFile.Open(LoanFile.Under("Always calculate Fee as {«Insured value» / 8}."));

        session.Change("insuredValue", new Number(1.08m));

        Assert.Equal(new Number(0.14m), session["fee"]);
    }

    [Fact]
    public void Hiding_that_resets_gives_the_default_back()
    {
        var session = LoanFile.Open(LoanFile.Under("While Material is Ceramic, hide Light limit and reset."), LoanFile.Saved(("lightLimit", 50)));

        session.Change("material", new Choice("ceramic"));
        Assert.Equal(new Number(200), session["lightLimit"]);

        session.Change("material", Value.Blank);
        Assert.Equal(new Number(50), session["lightLimit"]);
    }

    [Fact]
    public void Values_come_over_a_link_as_soon_as_it_is_made()
    {
        var session = LoanFile.Open(LoanFile.Under("While Object has changed and Object › Insured value is filled in, set Insured value to the value of Object › Insured value."));

        session.Change("object", new Link(7));
        Assert.Equal(new Number(80_000), session["insuredValue"]);

        session.Change("object", new Link(8));
        Assert.Equal(Value.Blank, session["insuredValue"]);
    }

    [Theory]
    [InlineData("calculate Light limit as the value of Gross weight", 2.5, 3)]
    [InlineData("set Light limit to the value of Gross weight", 2.5, 3)]
    [InlineData("calculate Light limit as {«Gross weight» / 2}", 3, 2)]
    public void What_a_rule_gives_is_rounded_to_the_fields_digits(string effect, decimal from, decimal given)
    {
        var verdict = LoanFile.Decide(
            LoanFile.Under($"While Title is filled in, show Gross weight and {effect}."), RecordValues.Empty, changes: [("title", "x"), ("grossWeight", from)]);

        Assert.Empty(verdict.Refusals);
        Assert.Equal(new Number(given), verdict.Values["lightLimit"]);
    }

    [Fact]
    public void A_literal_is_rounded_as_well()
    {
        var definition = LoanFile.Under("While Title is filled in, set Light limit to 49.5.");

        Assert.Equal(new Number(50), LoanFile.Decide(definition, RecordValues.Empty, changes: ("title", "x")).Values["lightLimit"]);
    }

    [Fact]
    public void A_unit_that_the_text_says_is_not_said_twice()
    {
        var session = LoanFile.Open(LoanFile.Under("Always tell “{Loan days} days, that is {Loan days}.”."), LoanFile.Saved(("loanDays", 10)));

        Assert.Equal("10 days, that is 10 days.", session.Messages().Single().Text);
    }

    [Fact]
    public void A_rule_for_other_forms_or_channels_does_nothing_here()
    {
        var definition = LoanFile.Under("Only on Quick enquiry: always lock Title.", "Only through an import: always lock Borrower.");

        var main = LoanFile.Open(definition);
        var quick = LoanFile.Open(definition, setting: LoanFile.AtTerms with { Channel = Channel.Import, Form = "quickEnquiry" });

        Assert.Equal((Access.Open, Access.Open), (State(main, Element.Field("title")).Access, State(main, Element.Field("borrower")).Access));
        Assert.Equal((Access.Locked, Access.Locked), (State(quick, Element.Field("title")).Access, State(quick, Element.Field("borrower")).Access));
        Assert.Equal((false, -1), (quick.Program.IsOnForm("fee", "quickEnquiry"), quick.NumberOf(Element.Section("fee"))));
    }

    [Fact]
    public void A_table_gives_each_combination_its_states_and_values()
    {
        var session = LoanFile.Open(LoanFile.Under(
            "By first table on Mode | Insured value for section Customs | Light limit | value of Fee: is Van | any → hidden | required to save | EUR 100; is one of Air or Sea | is at least EUR 1,000 → shown | — | EUR 900; any | any → — | locked | EUR 300."));
        // The last row was in force when the record was saved, so nothing is set by it.
        Assert.Equal((Value.Blank, Access.Locked), (session["fee"], State(session, Element.Field("lightLimit")).Access));

        session.Change("mode", new Choice("van"));
        Assert.Equal((new Number(100), Requirement.ToSave), (session["fee"], State(session, Element.Field("lightLimit")).Requirement));
        Assert.False(State(session, Element.Field("portOfEntry")).IsVisible);

        session.Change("mode", new Choice("air"));
        session.Change("insuredValue", new Number(1000));
        Assert.Equal((new Number(900), Access.Open), (session["fee"], State(session, Element.Field("lightLimit")).Access));
        Assert.True(State(session, Element.Field("portOfEntry")).IsVisible);
    }

    private static ElementState State(Session session, Element element) => session.StateOf(element);
}
