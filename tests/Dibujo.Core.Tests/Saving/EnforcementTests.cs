using System.Collections.Immutable;
using Dibujo.Core.Records;
using Dibujo.Core.Saving;
using Dibujo.Core.Values;

namespace Dibujo.Core.Tests.Saving;

/// <summary>What every kind of effect keeps from being saved, and what it does to what is saved.</summary>
public class EnforcementTests
{
    /// <summary>What a loan needs at rest, so that it can move on.</summary>
    private static readonly RecordValues Filled = LoanFile.Saved(
        ("title", "Lantern"), ("borrower", "Oststrand Gallery"), ("purpose", "research"), ("startDate", "2026-12-10"), ("object", 7));

    [Fact]
    public void The_administrators_own_words_are_the_reason() => Assert.Equal(
        new Refusal(RefusalReason.NeededToSave, "valuer", "Who says so?", "r0"),
        Only(LoanFile.Decide(LoanFile.Under("Always require Valuer to save saying “Who says so?”."), Filled)));

    [Fact]
    public void A_part_is_asked_for_by_name()
    {
        var definition = LoanFile.Under("While Stage is from Terms on, require Borrower contact to save.");

        var refusal = Only(LoanFile.Decide(definition, Loan(("borrowerContact", "given=Mara"))));

        Assert.Equal("borrowerContact", refusal.Field);
        Assert.StartsWith("A part of this is needed to save.", refusal.Message, StringComparison.Ordinal);
        Assert.True(LoanFile.Decide(definition, Loan(("borrowerContact", "given=Mara, family=Vell"))).IsAccepted);
    }

    [Fact]
    public void What_is_needed_for_one_move_does_not_stop_another()
    {
        var definition = LoanFile.Under("Always require What is to be reworked for Back to terms.");
        var atApproval = LoanFile.AtTerms with { Stage = "approval", Roles = ["director"] };

        Assert.True(LoanFile.Decide(definition, Filled, "dispatch", atApproval).IsAccepted);
        Assert.True(LoanFile.Decide(definition, Filled, null, atApproval).IsAccepted);
        Assert.Equal("rework", Only(LoanFile.Decide(definition, Filled, "rework", atApproval)).Field);
        Assert.Equal("terms", LoanFile.Decide(definition, Filled, "rework", atApproval, ("rework", "The crate.")).Stage);
    }

    [Fact]
    public void A_move_belongs_to_a_role_and_to_a_stage()
    {
        Assert.Equal(RefusalReason.MoveNotAllowed, Only(LoanFile.Decide(LoanFile.Under(), Filled, "dispatch", LoanFile.AtTerms with { Stage = "approval" })).Reason);
        Assert.Equal(RefusalReason.NoSuchMove, Only(LoanFile.Decide(LoanFile.Under(), Filled, "dispatch")).Reason);
    }

    [Theory]
    [InlineData("title", "one\nline", "one line")]
    [InlineData("title", "one\u2028line", "one line")]
    [InlineData("title", "a\tb", "tab")]
    [InlineData("title", "a\0b", "U+0000")]
    [InlineData("hazardNotes", "a\u001Bb", "U+001B")]
    [InlineData("borrowerContact", "given=a\nb, family=c", "one line")]
    [InlineData("hazardNotes", "two\nlines\tand a tab", null)]
    public void Text_that_nobody_could_see_as_it_is_is_refused_with_what_to_do(string field, string text, string? message)
    {
        var verdict = LoanFile.Decide(LoanFile.Under("Always show Hazard notes."), Filled, changes: (field, text));

        Assert.Equal(message is null, verdict.IsAccepted);
        Assert.All(verdict.Refusals, r => Assert.Contains(message!, r.Message, StringComparison.Ordinal));
    }

    [Fact]
    public void However_many_fields_are_sent_the_answer_is_short()
    {
        var changes = Enumerable.Range(0, 5000).Select(i => ($"field{i}", (object?)"x")).ToArray();
        var (program, _) = Core.Compilation.ProgramCompiler.Compile(LoanFile.Under());

        var verdict = new Judge(program!).Decide(Filled, LoanFile.AtTerms, new(changes.ToImmutableDictionary(c => c.Item1, c => (Value)new Text("x"))));

        Assert.Contains("5000 fields are changed", Only(verdict).Message, StringComparison.Ordinal);
    }

    [Theory]
    [InlineData("stop saving with", null, false)]
    [InlineData("stop saving with", "ask", false)]
    [InlineData("stop moving with", null, true)]
    [InlineData("stop moving with", "ask", false)]
    [InlineData("warn with", "ask", true)]
    [InlineData("tell", "ask", true)]
    public void Messages_stop_what_they_say_they_stop(string says, string? move, bool accepted)
    {
        var verdict = LoanFile.Decide(LoanFile.Under($"While Fee is more than EUR 100, {says} “{{Fee}} is too much.” at Fee."), Filled, move, null, ("fee", 101));

        Assert.Equal(accepted, verdict.IsAccepted);
        Assert.All(verdict.Refusals, r => Assert.Equal((RefusalReason.Stopped, "fee", "EUR 101 is too much."), (r.Reason, r.Field, r.Message)));
    }

    [Fact]
    public void A_choice_that_is_not_offered_cannot_be_saved_but_one_saved_in_a_locked_field_stays()
    {
        var definition = LoanFile.Under("Always narrow Material to Ceramic or Metal.");

        Assert.Equal(RefusalReason.NotOffered, Only(LoanFile.Decide(definition, Filled, changes: ("material", "oil"))).Reason);
        Assert.True(LoanFile.Decide(definition, Filled, changes: ("material", "metal")).IsAccepted);
        Assert.True(LoanFile.Decide(LoanFile.Under("Always narrow Material to Ceramic and lock Material."), Loan(("material", "oil"))).IsAccepted);
    }

    [Theory]
    [InlineData("Always hide section Fee.", "fee", 5, RefusalReason.Hidden)]
    [InlineData("Always lock tab Closing.", "fee", 5, RefusalReason.Locked)]
    [InlineData("Always lock Borrower address › City.", "borrowerAddress", "street=a, city=b", RefusalReason.Locked)]
    [InlineData("Always hide Borrower address › City.", "borrowerAddress", "street=a, city=b", RefusalReason.Hidden)]
    [InlineData("Always calculate Fee as {3}.", "fee", 5, RefusalReason.Locked)]
    [InlineData("While Title is filled in, jump ahead to tab Closing.", "mode", "van", RefusalReason.Hidden)]
    [InlineData("While Title is filled in, end the form with “That is all.”.", "fee", 5, RefusalReason.Hidden)]
    public void What_no_form_lets_anyone_change_is_refused(string sentence, string field, object value, RefusalReason reason) =>
        Assert.Equal((reason, field), Short(Only(LoanFile.Decide(LoanFile.Under(sentence), Filled, changes: (field, value)))));

    [Fact]
    public void What_a_rule_calculates_is_saved_with_what_it_is_calculated_from()
    {
        var verdict = LoanFile.Decide(LoanFile.Under("Always calculate Fee as {«Insured value» * 0.02}."), Filled, changes: ("insuredValue", 5000));

        Assert.Equal(new Number(100), verdict.Values["fee"]);
    }

    [Fact]
    public void A_calculated_value_beyond_the_fields_limit_is_refused()
    {
        var definition = LoanFile.Under("Always calculate Crate length as {«Crate width» * 100}.");

        Assert.Equal((RefusalReason.Limit, "crateLength"), Short(Only(LoanFile.Decide(definition, Filled, changes: ("crateWidth", 11)))));
    }

    [Fact]
    public void A_value_set_at_the_stage_entered_is_in_the_same_save()
    {
        var definition = LoanFile.Under("While Stage is Approval, set Valuation date to today and empty Valuer.");

        var verdict = LoanFile.Decide(definition, Loan(("valuer", "Theo"), ("valuationDate", "2020-01-01")), "ask");

        Assert.Equal(("approval", LoanFile.Fitted("valuationDate", "2026-11-24"), Value.Blank), (verdict.Stage, verdict.Values["valuationDate"], verdict.Values["valuer"]));
    }

    [Fact]
    public void A_value_is_not_set_again_by_a_save_at_the_stage_where_it_was_set()
    {
        var definition = LoanFile.Under("While Stage is Approval, set Valuation date to today.");
        var saved = Loan(("valuationDate", "2020-01-01"));

        Assert.Equal(saved["valuationDate"], LoanFile.Decide(definition, saved, setting: LoanFile.AtTerms with { Stage = "approval" }, changes: ("valuer", "Theo")).Values["valuationDate"]);
    }

    [Theory]
    [InlineData("object", 8, RefusalReason.LeadsNowhere)]
    [InlineData("conservator", "nobody", RefusalReason.LeadsNowhere)]
    [InlineData("lightLimit", 2001, RefusalReason.Limit)]
    [InlineData("lightLimit", 3.5, RefusalReason.Limit)]
    [InlineData("flightNumber", "more than twelve", RefusalReason.Limit)]
    public void Limits_and_links_hold_without_any_rule(string field, object value, RefusalReason reason) => Assert.Equal(
        reason, Only(LoanFile.Decide(LoanFile.Under(), Filled, changes: (field, value is double number ? (decimal)number : value))).Reason);

    [Theory]
    [InlineData("Agreed with the registrar", "Needed for “Dispatch”. Agreed with the registrar. Fill it in.")]
    [InlineData("Who pays?", "Needed for “Dispatch”. Who pays? Fill it in.")]
    [InlineData(null, "Needed for “Dispatch”. Fill it in.")]
    public void A_refusal_names_the_move_and_says_what_the_rule_is_for_and_neither_its_number_nor_its_name(string? reason, string message)
    {
        var definition = LoanFile.Under("Always require Valuer for Dispatch.");
        definition = definition with { Rules = [definition.Rules[0] with { Reason = reason }] };

        Assert.Equal(message, LoanFile.Decide(definition, Filled, move: "dispatch", setting: LoanFile.AtTerms with { Stage = "approval" }).Refusals.Single(refusal => refusal.Field == "valuer").Message);
    }

    [Theory]
    [InlineData("object", 8, 9)]
    [InlineData("conservator", "nobody", "no one")]
    public void What_led_nowhere_before_may_be_handed_in_as_it_stands(string field, object held, object other)
    {
        var saved = Loan((field, held));

        Assert.True(LoanFile.Decide(LoanFile.Under(), saved, changes: (field, held)).IsAccepted);
        Assert.Equal(RefusalReason.LeadsNowhere, Only(LoanFile.Decide(LoanFile.Under(), saved, changes: (field, other))).Reason);
    }

    [Fact]
    public void Rules_for_an_import_hold_for_an_import()
    {
        var definition = LoanFile.Under("Only through an import: while Borrower is blank, stop saving with “No borrower.” at Borrower.");

        Assert.True(LoanFile.Decide(definition, Loan(("borrower", null))).IsAccepted);
        Assert.Equal("No borrower.", Only(LoanFile.Decide(definition, Loan(("borrower", null)), setting: LoanFile.AtTerms with { Channel = Channel.Import })).Message);
    }

    private static (RefusalReason Reason, string? Field) Short(Refusal refusal) => (refusal.Reason, refusal.Field);

    private static Refusal Only(Verdict verdict)
    {
        Assert.False(verdict.IsAccepted);
        return Assert.Single(verdict.Refusals);
    }

    private static RecordValues Loan(params (string Field, object? Value)[] values) =>
        values.Aggregate(Filled, (record, v) => record.With(v.Field, LoanFile.Fitted(v.Field, v.Value)));
}
