using System.Collections.Immutable;
using Dibujo.Core.Conditions;
using Dibujo.Core.Rules;
using Dibujo.Core.Saving;
using Dibujo.Core.Values;
using static Dibujo.Core.Tests.Small;

namespace Dibujo.Core.Tests.Saving;

public class JudgeTests
{
    [Fact]
    public void A_change_must_be_reachable_from_the_saved_record()
    {
        // Gross weight shows while a crate is needed or the length is given, and the length shows with the weight:
        // once both are there they hold each other up, but from the saved record no form leads there.
        var definition = Under(
            While(All(Field("crateNeeded", Test.IsNot, true), Field("crateLength", Test.Blank)), Hide("grossWeight")),
            While(Field("grossWeight", Test.Blank), Hide("crateLength")));

        Assert.Equal(["hidden crateLength", "hidden grossWeight"], Refused(definition, Record(), ("grossWeight", 3), ("crateLength", 4)));
        Assert.Empty(Refused(definition, Record(), ("crateNeeded", true), ("grossWeight", 3), ("crateLength", 4)));
    }

    [Fact]
    public void A_rules_own_clearing_is_stored_with_the_save()
    {
        var verdict = Decide(
            Under(While(Field("crateNeeded", Test.Is, false), HideAndClear("grossWeight"))), Record(("grossWeight", 12)), null, ("crateNeeded", false));

        Assert.True(verdict.IsAccepted);
        Assert.Equal(Value.Blank, verdict.Values["grossWeight"]);
    }

    [Fact]
    public void What_is_needed_to_save_at_the_stage_entered_must_be_there()
    {
        var definition = Under(While(Stage(Test.Is, "terms"), RequireToSave("certificate")));

        Assert.Empty(Refused(definition, Record()));
        Assert.Equal("certificate", Assert.Single(Decide(definition, Record(), "assess").Refusals).Field);
        Assert.Equal("terms", Decide(definition, Record(("certificate", "Q-1")), "assess").Stage);
    }

    [Fact]
    public void A_change_made_at_the_stage_left_is_not_undone_by_a_lock_at_the_stage_entered()
    {
        var verdict = Decide(Under(While(Stage(Test.FromOn, "terms"), Lock("title"))), Record(), "assess", ("title", "Lantern"));

        Assert.True(verdict.IsAccepted);
        Assert.Equal(new Text("Lantern"), verdict.Values["title"]);
    }

    [Fact]
    public void Clearing_that_comes_into_force_at_the_stage_entered_is_in_the_same_save()
    {
        var verdict = Decide(Under(While(Stage(Test.Is, "terms"), HideAndClear("remarks"))), Record(("remarks", "draft")), "assess");

        Assert.Equal(Value.Blank, verdict.Values["remarks"]);
    }

    [Fact]
    public void A_locked_field_that_is_needed_to_move_on_stops_the_move_but_not_the_save()
    {
        var definition = Under(Otherwise(Lock("title"), Require("title")), Otherwise(Lock("remarks"), RequireToSave("remarks")));

        Assert.True(Decide(definition, Record(), null).IsAccepted);
        Assert.Equal(["neededToMoveOn remarks", "neededToMoveOn title"], Reasons(Decide(definition, Record(), "assess")));
    }

    [Fact]
    public void A_refusal_leaves_everything_as_it_was_and_gives_all_reasons()
    {
        var verdict = Decide(Under(Otherwise(RequireToSave("title"))), Record(("remarks", "as before")), "nonsense", ("remarks", "changed"), ("grossWeight", 9000));

        Assert.Equal(["limit grossWeight", "neededToSave title", "noSuchMove "], Reasons(verdict).Order(StringComparer.Ordinal));
        Assert.Equal(new Text("as before"), verdict.Values["remarks"]);
    }

    [Fact]
    public void A_retired_choice_may_stay_but_not_be_chosen()
    {
        Assert.Equal(["limit material"], Refused(NoRules(), Record(), ("material", "wax")));
        Assert.Empty(Refused(NoRules(), Record(("material", "wax")), ("title", "Lantern")));
    }

    private static string[] Refused(Definition definition, RecordValues saved, params (string Field, object Value)[] changes) =>
        Reasons(Decide(definition, saved, null, changes));

    private static string[] Reasons(Verdict verdict) =>
        [.. verdict.Refusals.Select(r => $"{System.Text.Json.JsonNamingPolicy.CamelCase.ConvertName(r.Reason.ToString())} {r.Field}").Order(StringComparer.Ordinal)];

    private static Verdict Decide(Definition definition, RecordValues saved, string? move, params (string Field, object Value)[] changes) =>
        new Judge(definition.Compiled()).Decide(
            saved, AtEnquiry, new(changes.ToImmutableDictionary(c => c.Field, c => ValueOf(c.Value)), move));
}
