using CsCheck;
using Dibujo.Core.Drafts;
using Dibujo.Core.Rules;

namespace Dibujo.Core.Tests.Drafts;

/// <summary>Steps of several people in one draft.</summary>
public class DraftingTests
{
    /// <summary>A few of eight rules, in any order; those with the same key may say different things.</summary>
    private static readonly Gen<Definition> Drafts =
        Gen.Select(Gen.Shuffle("abcdefgh".ToCharArray()), Gen.Int[0, 8], Gen.Char['0', '2'].Array[8]).Select((keys, count, marks) =>
            new Definition(Small.Loan, [.. keys.Take(count).Select((key, i) => Rule($"{key}", $"{key}{marks[i]}"))]));

    [Fact]
    public void A_step_between_two_drafts_makes_one_of_the_other() => Gen.Select(Drafts, Drafts).Sample((before, after) =>
    {
        var drafting = Drafting.Of(before, DraftStep.Between(before, after, 1), _ => 1, 1);

        Assert.Equal(Names(after), Names(drafting.Definition));
        Assert.Empty(drafting.Colliding);
    });

    [Fact]
    public void A_rule_that_is_moved_far_is_the_only_one_that_is_placed()
    {
        Definition Of(string keys) => new(Small.Loan, [.. keys.Select(key => Rule($"{key}", $"{key}"))]);

        Assert.Equal("a", Assert.Single(DraftStep.Between(Of("abcdefgh"), Of("bcdefgha"), 1).Edits).Key);
        Assert.Equal("h", Assert.Single(DraftStep.Between(Of("abcdefgh"), Of("habcdefg"), 1).Edits).Key);
    }

    [Fact]
    public void A_step_that_is_sent_twice_is_made_once() => Gen.Select(Drafts, Drafts).Sample((before, after) =>
    {
        var step = DraftStep.Between(before, after, 1);
        var once = Drafting.Of(before, step, _ => 1, 1);
        var twice = Drafting.Of(once.Definition, step, _ => 2, 2);

        Assert.Equal(Names(once.Definition), Names(twice.Definition));
        Assert.Empty(twice.Colliding);
    });

    [Fact]
    public void Edits_of_different_rules_are_all_made_in_either_order() => Gen.Select(Drafts, Gen.Bool.Array[8]).Sample((draft, whose) =>
    {
        DraftStep Of(bool person, string mark) => new([.. draft.Rules.Where((_, i) => whose[i] == person).Select(rule => new RuleEdit(rule.Key, 0, rule with { Name = mark }))]);
        Definition After(params DraftStep[] steps) => steps.Aggregate(draft, (now, step) => Drafting.Of(now, step, _ => 0, 0).Definition);

        var (ada, ina) = (Of(true, "Ada’s"), Of(false, "Ina’s"));

        Assert.Equal(Names(After(ada, ina)), Names(After(ina, ada)));
        Assert.All(After(ada, ina).Rules, rule => Assert.EndsWith("’s", rule.Name, StringComparison.Ordinal));
    });

    [Fact]
    public void An_edit_of_a_rule_that_somebody_else_changed_is_not_made()
    {
        var draft = new Definition(Small.Loan, [Rule("a", "theirs"), Rule("b", "b")]);

        var drafting = Drafting.Of(draft, new([new("a", 1, Rule("a", "mine")), new("b", 1, Rule("b", "mine"))]), key => key == "a" ? 2 : 0, 0);

        Assert.Equal(["theirs", "mine"], drafting.Definition.Rules.Select(rule => rule.Name));
        Assert.Equal("mine", Assert.Single(drafting.Colliding).Rule!.Name);
    }

    [Fact]
    public void A_rule_that_somebody_else_changed_is_not_taken_away_but_may_be_moved()
    {
        var draft = new Definition(Small.Loan, [Rule("a", "theirs"), Rule("b", "b")]);

        Assert.Single(Drafting.Of(draft, new([new("a", 1, IsRemoved: true)]), _ => 2, 0).Colliding);
        Assert.Equal(["b", "a"], Drafting.Of(draft, new([new("a", 1, IsPlaced: true, After: "b")]), _ => 2, 0).Definition.Rules.Select(rule => rule.Key));
    }

    private static IEnumerable<string> Names(Definition definition) => definition.Rules.Select(rule => rule.Name);

    private static Rule Rule(string key, string name) => new(key, name);
}
