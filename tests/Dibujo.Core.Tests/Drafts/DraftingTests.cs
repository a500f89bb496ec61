using System.Collections.Immutable;
using CsCheck;
using Dibujo.Core.Drafts;
using Dibujo.Core.Records;
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

    /// <summary>What somebody may do to a record type, each to a part of its own.</summary>
    private static readonly ImmutableArray<Func<RecordType, string, RecordType>> Deeds =
    [
        (type, by) => type with { Label = $"Loan by {by}" },
        (type, by) => type with { Fields = [.. type.Fields.Select(field => field.Key == "title" ? field with { Label = $"Title by {by}" } : field)] },
        (type, by) => type with { Fields = type.Fields.Add(new($"new{by}", by, new TextType())) },
        (type, by) => type with { Forms = [type.Forms[0] with { Label = $"File by {by}" }, .. type.Forms[1..]] },
        (type, by) => type with { Workflows = [type.Workflows[0] with { Stages = type.Workflows[0].Stages.Insert(1, new($"stage{by}", by)) }, .. type.Workflows[1..]] },
        (type, by) => type with { Roles = type.Roles.Add(new($"role{by}", by)) },
    ];

    [Fact]
    public void Two_who_draw_different_parts_of_a_record_type_choose_nothing_and_keep_both() => Gen.Bool.Array[6].Sample(whose =>
    {
        RecordType By(bool person, string name) => Deeds.Where((_, i) => whose[i] == person).Aggregate(Small.Loan, (type, deed) => deed(type, name));
        var all = Deeds.Select((deed, i) => (deed, Name: whose[i] ? "Ada" : "Bo")).Aggregate(Small.Loan, (type, one) => one.deed(type, one.Name));
        var draft = new Definition(By(false, "Bo"), []);

        var made = Drafting.Of(draft, new DraftStep([], By(true, "Ada"), 1, RecordTypeWas: Small.Loan), _ => 0, 2);

        Assert.Null(made.WaitingType);
        Assert.Equal(Written(all), Written(made.Definition.RecordType));
    });

    [Fact]
    public void Of_two_who_made_something_different_of_the_same_part_that_part_waits_and_the_rest_is_made()
    {
        var draft = new Definition(Deeds[4](Deeds[1](Small.Loan, "Bo"), "Bo"), []);
        var mine = Deeds[3](Deeds[1](Small.Loan, "Ada"), "Ada");

        var made = Drafting.Of(draft, new DraftStep([], mine, 1, RecordTypeWas: Small.Loan), _ => 0, 2);

        Assert.Equal(("Title by Bo", "File by Ada"), (made.Definition.RecordType.Find("title")!.Label, made.Definition.RecordType.Forms[0].Label));
        Assert.Equal(("Title by Ada", "File by Ada"), (made.WaitingType!.Find("title")!.Label, made.WaitingType.Forms[0].Label));
        Assert.Contains(made.WaitingType.Workflows[0].Stages, stage => stage.Key == "stageBo");
    }

    [Fact]
    public void A_field_that_one_takes_away_and_the_other_changes_stays_and_waits()
    {
        var draft = new Definition(Deeds[1](Small.Loan, "Bo"), []);

        var made = Drafting.Of(draft, new DraftStep([], Small.Loan with { Fields = [.. Small.Loan.Fields.Where(field => field.Key != "title")] }, 1, RecordTypeWas: Small.Loan), _ => 0, 2);

        Assert.Equal("Title by Bo", made.Definition.RecordType.Find("title")!.Label);
        Assert.NotNull(made.WaitingType);
    }

    private static string Written(RecordType type) => System.Text.Encoding.UTF8.GetString(Core.Json.JsonText.Write(type));

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
