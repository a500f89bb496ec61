using System.Collections.Immutable;
using Dibujo.Core.Compilation;
using Dibujo.Core.Evaluation;
using Dibujo.Core.Forms;
using Dibujo.Core.Records;
using Dibujo.Core.Rules;
using Dibujo.Core.Saving;
using Dibujo.Core.Sentences;
using Dibujo.Core.Values;

namespace Dibujo.Core.Tests.Saving;

/// <summary>A record is one set of values, and its forms are doors to it: no door leads around a rule.</summary>
public class FormsOfOneRecordTests
{
    private static readonly RecordType Type = new(
        "loan", "Loan", "title",
        [
            new("title", "Title", new TextType()), new("borrower", "Borrower", new TextType()), new("crate", "Crate", new YesNoType()),
            new("weight", "Weight", new NumberType()), new("damage", "Damage", new TextType()), new("checked", "Checked on", new DateType()),
        ],
        [
            new("file", "Loan file", [new("main", "Request", [new("basics", "Basics", ["title", "borrower"]), new("crating", "Crating", ["crate", "weight"])])]),
            new("quick", "Quick enquiry", [new("short", "Enquiry", [new("few", "A few words", ["title", "weight"])])]),
            new("departure", "Condition on departure", [new("state", "State", [new("look", "A look at it", ["damage", "checked"])])]),
        ],
        [new("way", "Way", [new("enquiry", "Enquiry"), new("approval", "Approval"), new("returned", "Returned")],
            [new("ask", "Ask", "enquiry", "approval"), new("return", "Return", "approval", "returned")])]);

    private static readonly Setting AtEnquiry = new("way", "enquiry", Now: new(2026, 11, 24, 9, 0, 0));

    [Fact]
    public void A_move_needs_what_every_form_that_applies_asks_for()
    {
        string[] rules = ["Always require Borrower to move on.", "Always require Damage to move on."];

        var refusals = Decide(rules, "departure", "ask").Refusals;

        Assert.Equal([("damage", null), ("borrower", "file")], refusals.Select(r => (r.Field, r.Form)));
        Assert.Contains("Loan file, Borrower: Needed to move on", refusals[1].Sentence(Type), StringComparison.Ordinal);
        Assert.True(Decide(rules, "quick", null, ("title", "Lantern")).IsAccepted);
    }

    [Fact]
    public void A_message_that_stops_moving_is_not_escaped_on_another_form() => Assert.Equal(
        (RefusalReason.Stopped, "Not yet.", "file"),
        Decide(["Only on Loan file: always stop moving with “Not yet.”."], "departure", "ask").Refusals.Select(r => (r.Reason, r.Message, r.Form)).Single());

    [Fact]
    public void A_form_that_does_not_apply_asks_for_nothing_and_is_closed()
    {
        string[] rules = ["Always require Damage to move on.", "While Stage is before Approval, hide form Condition on departure."];

        Assert.True(Decide(rules, "file", "ask").IsAccepted);
        var refusal = Decide(rules, "departure", null, ("damage", "A scratch")).Refusals.Single();
        Assert.Equal((RefusalReason.Hidden, (string?)null), (refusal.Reason, refusal.Field));
        Assert.Contains("does not apply to this record now.", refusal.Message, StringComparison.Ordinal);
        Assert.Equal(["file", "quick"], new WholeRecord(Open(rules, "file")).RelevantForms().Select(f => f.Key));
    }

    [Fact]
    public void Locking_a_form_closes_that_door_and_locking_the_record_closes_all()
    {
        Assert.False(Decide(["Always lock form Loan file."], "file", null, ("title", "Lantern")).IsAccepted);
        Assert.True(Decide(["Always lock form Loan file."], "quick", null, ("title", "Lantern")).IsAccepted);
        foreach (var form in Type.Forms)
        {
            Assert.Equal([RefusalReason.Locked], Decide(["Always lock the record."], form.Key, null, (form.Fields().First(), "x")).Refusals.Select(r => r.Reason));
        }
    }

    [Theory]
    [InlineData("Always lock section Crating.")]
    [InlineData("Always lock tab Request.")]
    public void What_is_said_of_a_section_or_tab_holds_for_its_fields_at_every_door(string rule)
    {
        Assert.Equal(Access.Locked, Open([rule], "quick").StateOf(Element.Field("weight")).Access);
        Assert.Equal(Requirement.ToSave, Open([rule.Replace("lock", "require", StringComparison.Ordinal).TrimEnd('.') + " to save."], "quick").StateOf(Element.Field("weight")).Requirement);
    }

    [Fact]
    public void Of_two_groups_that_a_field_stands_in_the_highest_rule_decides()
    {
        string[] rules = ["Always unlock section A few words.", "Always lock section Crating."];

        Assert.Equal(Access.Open, Open(rules, "file").StateOf(Element.Field("weight")).Access);
        Assert.Equal(Access.Locked, Open([.. rules.Reverse()], "quick").StateOf(Element.Field("weight")).Access);
        // The field itself comes before its groups, and groups before the form at hand.
        Assert.Equal(Access.Open, Open([rules[1], "Always unlock Weight."], "quick").StateOf(Element.Field("weight")).Access);
        Assert.Equal(Access.Locked, Open(["Always unlock form Quick enquiry.", rules[1]], "quick").StateOf(Element.Field("weight")).Access);
    }

    [Fact]
    public void Visibility_is_a_chain_at_each_door_by_itself()
    {
        string[] rules = ["Always hide section Crating."];

        Assert.False(Open(rules, "file").StateOf(Element.Field("weight")).IsVisible);
        Assert.True(Open(rules, "quick").StateOf(Element.Field("weight")).IsVisible);
    }

    [Fact]
    public void A_save_may_not_make_anything_worse_on_another_form()
    {
        string[] rules = ["While Weight is at least 100, require Damage to save.", "While Weight is at least 200, stop saving with “Too heavy.” at Damage."];

        var needed = Decide(rules, "file", null, ("weight", 100)).Refusals.Single();
        Assert.Equal((RefusalReason.NeededToSave, "damage", "departure"), (needed.Reason, needed.Field, needed.Form));
        Assert.Contains(Decide(rules, "file", null, ("weight", 200)).Refusals, r => (r.Reason, r.Form) == (RefusalReason.Stopped, "departure"));
    }

    [Fact]
    public void What_was_missing_elsewhere_before_does_not_hold_up_a_save()
    {
        string[] rules = ["Always require Damage to save.", "Always stop saving with “{Title} is not checked.” at Checked on."];

        Assert.True(Decide(rules, "quick", null, ("title", "Lantern")).IsAccepted);
        Assert.False(Decide(rules, "departure", null, ("checked", "2026-11-24")).IsAccepted);
    }

    [Fact]
    public void What_is_skipped_on_one_form_stays_in_view_on_another()
    {
        string[] rules = ["While Title is “no”, end the form with “Not this.”."];
        var saved = Record(("title", "no"));

        Assert.False(Open(rules, "file", saved).StateOf(Element.Field("borrower")).IsVisible);
        Assert.False(Open(rules, "quick", saved).StateOf(Element.Field("weight")).IsVisible);
        Assert.True(Open(rules, "departure", saved).StateOf(Element.Field("damage")).IsVisible);
    }

    [Fact]
    public void Needed_to_save_but_locked_holds_up_a_move_and_no_save()
    {
        string[] rules = ["Always require Weight to save.", "Always lock Weight."];

        Assert.True(Decide(rules, "file", null, ("title", "Lantern")).IsAccepted);
        var refusal = Decide(rules, "file", "ask").Refusals.Single();
        Assert.Equal((RefusalReason.NeededToMoveOn, "weight"), (refusal.Reason, refusal.Field));
        Assert.Contains("It is locked for you", refusal.Message, StringComparison.Ordinal);
    }

    [Fact]
    public void What_the_stage_entered_asks_for_is_said_with_its_name()
    {
        var refusal = Decide(["While Stage is Approval, require Damage to save."], "file", "ask").Refusals.Single();

        Assert.Equal(("damage", "departure"), (refusal.Field, refusal.Form));
        Assert.StartsWith("Needed to save at the stage Approval.", refusal.Message, StringComparison.Ordinal);
    }

    [Theory]
    [InlineData("While Stage is Approval, set Title to “SET”.")]
    [InlineData("While Stage is Approval, set Title to “SET” and lock Title.")]
    public void What_was_typed_in_the_same_save_beats_what_the_move_sets(string rule)
    {
        Assert.Equal("typed", Decide([rule], "file", "ask", ("title", "typed")).Values["title"].Plain);
        Assert.Equal("SET", Decide([rule], "file", "ask").Values["title"].Plain);
        Assert.Equal("SET", Decide([rule], "file", "ask", ("borrower", "Oststrand")).Values["title"].Plain);
    }

    [Fact]
    public void The_record_cannot_be_hidden() => Assert.Contains(
        "cannot be hidden", Assert.Single(ProgramCompiler.Compile(Under("Always hide the record.")).Problems).What, StringComparison.Ordinal);

    private static Verdict Decide(string[] rules, string form, string? move, params (string Field, object Value)[] changes) =>
        new Judge(ProgramCompiler.Compile(Under(rules)).Program!).Decide(Record(), AtEnquiry with { Form = form }, new(Record(changes).ByField.ToImmutableDictionary(), move));

    private static Session Open(string[] rules, string form, RecordValues? saved = null) =>
        new(ProgramCompiler.Compile(Under(rules)).Program!, saved ?? Record(), AtEnquiry with { Form = form });

    private static RecordValues Record(params (string Field, object Value)[] values) =>
        new(values.Select(v => KeyValuePair.Create(v.Field, Type.Find(v.Field)!.Type.Fit(Small.ValueOf(v.Value))!)));

    private static Definition Under(params string[] sentences) => new(Type, [.. sentences.Select((sentence, i) =>
    {
        var (rule, problem) = SentenceReading.Of(sentence, Type, new Rule($"r{i}", "Rule"));
        Assert.True(rule is not null, problem?.Message);
        return rule;
    })]);
}
