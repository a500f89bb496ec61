using Dibujo.Core.Evaluation;
using Dibujo.Core.Records;
using Dibujo.Core.Rules;
using Dibujo.Core.Values;
using static Dibujo.Core.Tests.Small;

namespace Dibujo.Core.Tests.Evaluation;

/// <summary>How far the forms of a small loan are, and what is said of them.</summary>
public class FormProgressTests
{
    [Fact]
    public void A_form_begins_with_a_field_of_its_own_and_is_complete_once_nothing_that_it_asks_for_is_missing()
    {
        var rules = Under(new Case([Require("title", "grossWeight")]));

        Assert.Equal(new("file", Progress.NotBegun, 0, 2), Of(rules, Record()));
        Assert.Equal(new("file", Progress.Begun, 1, 2), Of(rules, Record(("title", "Kite"))));
        Assert.Equal(new("file", Progress.Complete, 2, 2), Of(rules, Record(("title", "Kite"), ("grossWeight", 3))));
    }

    [Fact]
    public void A_message_that_stops_the_record_keeps_its_form_from_being_complete()
    {
        var rules = Under(new Case([Require("title")]), While(Field("grossWeight", Core.Conditions.Test.AtLeast, 100), new Message(Severity.StopsMoving, "Too heavy.")));

        Assert.Equal(Progress.Complete, Of(rules, Record(("title", "Kite"))).Progress);
        Assert.Equal(Progress.Begun, Of(rules, Record(("title", "Kite"), ("grossWeight", 100))).Progress);
    }

    [Fact]
    public void What_only_a_named_move_asks_for_is_not_counted()
    {
        var rules = Under(new Case([Require("title"), new Require([Core.Forms.Element.Field("remarks")], Core.Forms.Requirement.ToMoveOn) { Moves = ["approve"] }]));

        Assert.Equal(new("file", Progress.Complete, 1, 1), Of(rules, Record(("title", "Kite"))));
    }

    [Fact]
    public void A_form_that_is_hidden_does_not_apply()
    {
        var rules = Under(new Case([new Hide([Core.Forms.Element.Form("quick")])]));

        Assert.Equal(Progress.NotRelevant, Of(rules, Record(("title", "Kite")), "quick").Progress);
        Assert.Equal(Progress.Complete, Of(NoRules(), Record(("title", "Kite")), "quick").Progress);
    }

    [Fact]
    public void What_a_default_gives_has_been_filled_in_by_nobody()
    {
        var type = Loan with { Fields = [.. Loan.Fields.Select(field => field.Key == "remarks" ? field with { Default = new FixedDefault(new Text("None yet.")) } : field)] };
        var program = new Definition(type, []).Compiled();

        Assert.Equal(Progress.NotBegun, FormProgress.Of(new WholeRecord(new Session(program, Record(("remarks", "None yet.")), AtEnquiry))).First().Progress);
        Assert.Equal(Progress.Begun, FormProgress.Of(new WholeRecord(new Session(program, Record(("remarks", "Some.")), AtEnquiry))).First().Progress);
    }

    [Fact]
    public void A_form_that_asks_for_nothing_is_complete_once_nothing_on_it_is_blank_whoever_filled_it_in()
    {
        var type = Loan with { Fields = [.. Loan.Fields.Select(field => field.Key == "remarks" ? field with { Default = new FixedDefault(new Text("None yet.")) } : field)] };
        var program = new Definition(type, []).Compiled();
        var filled = type.Fields.Aggregate(RecordValues.Empty, (record, field) => record.With(field.Key, field.Key == "remarks" ? new Text("None yet.") : ValueOf(field.Type)));

        Assert.Equal(Progress.Complete, FormProgress.Of(new WholeRecord(new Session(program, filled, AtEnquiry))).First().Progress);
        Assert.Equal(Progress.Begun, FormProgress.Of(new WholeRecord(new Session(program, filled.With("title", Value.Blank), AtEnquiry))).First().Progress);
    }

    private static Value ValueOf(FieldType type) => new Value[] { new Text("x"), new Number(1), new YesNo(true), new Date(new(2026, 1, 1)) }
        .Select(type.Fit).FirstOrDefault(value => value is not null) ?? (type is IOffersOptions choice ? type.Fit(new Text(choice.Options[0].Key))! : Compound.Empty.With("given", new Text("A")));

    [Fact]
    public void A_rule_can_look_at_whether_the_record_is_read()
    {
        var rules = LoanFile.Under("While Use is reading, hide Borrower.");
        var session = LoanFile.Open(rules);
        Assert.True(session.StateOf(Core.Forms.Element.Field("borrower")).IsVisible);

        session.Enter(session.Setting with { Use = Use.Reading });

        Assert.False(session.StateOf(Core.Forms.Element.Field("borrower")).IsVisible);
    }

    private static FormProgress Of(Definition rules, RecordValues record, string form = "file") =>
        FormProgress.Of(new WholeRecord(new Session(rules.Compiled(), record, AtEnquiry))).Single(one => one.Form == form);
}
