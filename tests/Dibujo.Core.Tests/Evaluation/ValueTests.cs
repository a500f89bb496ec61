using Dibujo.Core.Conditions;
using Dibujo.Core.Evaluation;
using Dibujo.Core.Forms;
using Dibujo.Core.Records;
using Dibujo.Core.Rules;
using Dibujo.Core.Values;
using static Dibujo.Core.Tests.Small;

namespace Dibujo.Core.Tests.Evaluation;

public class ValueTests
{
    [Fact]
    public void A_change_to_what_gets_hidden_is_set_aside_and_returns()
    {
        var session = Under(While(Field("crateNeeded", Test.Is, false), Hide("grossWeight"))).Open(Record(("grossWeight", 10)));
        session.Type("grossWeight", 25);

        session.Type("crateNeeded", false);
        Assert.Equal(new Number(10), session["grossWeight"]);
        Assert.True(session.State("grossWeight").IsSetAside);
        Assert.DoesNotContain("grossWeight", session.Changes().Keys);

        session.Type("crateNeeded", true);
        Assert.Equal(new Number(25), session["grossWeight"]);
        Assert.Contains("grossWeight", session.Changes().Keys);
    }

    [Fact]
    public void Hiding_that_clears_counts_at_once_and_comes_undone_at_once()
    {
        var session = Under(
            While(Field("crateNeeded", Test.Is, false), HideAndClear("section insurance")),
            While(Field("certificate", Test.FilledIn), Require("remarks"))).Open(Record(("certificate", "Q-17")));
        Assert.Equal(Requirement.ToMoveOn, session.State("remarks").Requirement);

        session.Type("crateNeeded", false);
        Assert.Equal(Value.Blank, session["certificate"]);
        Assert.Equal(Requirement.Optional, session.State("remarks").Requirement);

        session.Type("crateNeeded", null);
        Assert.Equal(new Text("Q-17"), session["certificate"]);
    }

    [Fact]
    public void A_fields_own_lock_binds_once_its_value_is_saved()
    {
        var closing = Under(While(Field("material", Test.Is, "paper"), Lock("material", "title")));

        var typing = closing.Open();
        typing.Type("material", "paper");
        Assert.Equal(Access.Open, typing.State("material").Access);
        Assert.Equal(Access.Locked, typing.State("title").Access);

        var saved = closing.Open(Record(("material", "paper")));
        Assert.Equal(Access.Locked, saved.State("material").Access);
        saved.Type("material", "textile");
        Assert.Equal(new Choice("paper"), saved["material"]);
        Assert.True(saved.State("material").IsSetAside);
    }

    [Fact]
    public void A_field_does_not_vanish_with_its_container_under_the_typing_hand()
    {
        var session = Under(While(Field("crateNeeded", Test.Is, false), Hide("section crate"))).Open();

        session.Type("crateNeeded", false);

        Assert.True(session.State("crateNeeded").IsVisible);
        Assert.True(session.State("section crate").IsVisible);
        Assert.False(session.State("grossWeight").IsVisible);
        Assert.Equal(No, session["crateNeeded"]);
    }

    [Fact]
    public void Two_fields_that_hide_each_other_settle()
    {
        var session = Under(
            While(Field("certificate", Test.FilledIn), Hide("remarks")),
            While(Field("remarks", Test.FilledIn), Hide("certificate"))).Open();

        session.Type("remarks", "see letter");
        Assert.False(session.State("certificate").IsVisible);
        Assert.True(session.State("remarks").IsVisible);
        Assert.True(session.IsSettled);

        session.Type("remarks", null);
        session.Type("certificate", "Q-1");
        Assert.False(session.State("remarks").IsVisible);
    }

    [Fact]
    public void A_cycle_that_does_not_settle_keeps_saved_values_and_says_so()
    {
        // Typing a weight locks the answer that makes the weight visible.
        var session = Under(
            While(Field("crateNeeded", Test.IsNot, true), Hide("grossWeight")),
            While(Field("grossWeight", Test.FilledIn), Lock("crateNeeded"))).Open();

        session.Type("crateNeeded", true);
        session.Type("grossWeight", 3);

        Assert.False(session.IsSettled);
        Assert.Equal(["crateNeeded", "grossWeight"], session.UnsettledFields);
        Assert.Equal(Value.Blank, session["crateNeeded"]);

        session.Type("grossWeight", null);
        Assert.True(session.IsSettled);
        Assert.Equal(Yes, session["crateNeeded"]);
    }

    [Fact]
    public void A_cycle_settles_however_far_down_the_list_it_is_decided()
    {
        var session = Ring(40, blank: 39);

        Assert.True(session.IsSettled);
        Assert.All(Enumerable.Range(0, 39), i => Assert.Equal(i % 2 == 1, session[$"f{i}"].IsBlank));
    }

    [Fact]
    public void A_long_cycle_that_goes_round_and_round_comes_to_an_end()
    {
        var session = Ring(41, blank: null);

        Assert.False(session.IsSettled);
        Assert.All(Enumerable.Range(0, 41), i => Assert.Equal(new Text("x"), session[$"f{i}"]));
    }

    /// <summary>Each field hides and clears the one before it, and the first the last.</summary>
    private static Session Ring(int count, int? blank)
    {
        string[] keys = [.. Enumerable.Range(0, count).Select(i => $"f{i}")];
        var type = Loan with
        {
            TitleField = "f0",
            Fields = [.. keys.Select(key => new Field(key, key, new TextType()))],
            Forms = [new("file", "File", [new("tab", "Tab", [new("section", "Section", [.. keys])])])],
        };
        var rules = keys.Select((key, i) => new Rule($"r{i}", key)
        {
            Cases = [While(Field(keys[(i + 1) % count], Test.FilledIn), HideAndClear(key))],
        });
        return new Definition(type, [.. rules]).Open(
            new RecordValues(keys.Where((_, i) => i != blank).Select(key => KeyValuePair.Create(key, (Value)new Text("x")))));
    }
}
