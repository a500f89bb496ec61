using System.Collections.Immutable;
using CsCheck;
using Dibujo.Core.Conditions;
using Dibujo.Core.Records;
using Dibujo.Core.Reshaping;
using Dibujo.Core.Rules;
using Dibujo.Core.Values;

namespace Dibujo.Core.Tests.Reshaping;

/// <summary>What becomes of records when their record type changes, and that it was said before.</summary>
public class ReshapingTests
{
    private static readonly ImmutableArray<Option> Materials = [new("oil", "Oil on canvas"), new("paper", "Work on paper"), new("textile", "Textile")];

    private static readonly ImmutableArray<FieldType> Types =
    [
        new TextType(), new LongTextType(), new NumberType(2), new NumberType(), new MoneyType(), new YesNoType(), new DateType(), new DateTimeType(),
        new ChoiceType(Materials), new ChoicesType(Materials), new ChoiceType(Materials[..2]), new FullNameType(), new AddressType(), new LinkType("object"), new PersonType(),
    ];

    private static readonly Gen<Value> Values = Gen.OneOf(
        Gen.Const("yes").Select(text => (Value)new Text(text)), Any("Textile", "12.50", "1,200", "Ann Mary Lee", "Kai 3, 12, Vell, Nord", "a\nb", "2026-11-24", "x").Select(text => (Value)new Text(text)),
        Gen.Int[-3000, 3000].Select(number => (Value)new Number(number / 8m)), Gen.Int[1, 30].Select(number => (Value)new Link(number)),
        Gen.Bool.Select(yes => (Value)new YesNo(yes)), Any("oil", "paper", "textile").Select(key => (Value)new Choice(key)),
        Any<ImmutableArray<string>>(["oil"], ["oil", "textile"], ["paper", "oil"]).Select(keys => (Value)new Choices(keys)),
        Gen.DateOnly.Select(day => (Value)new Date(day)), Any(new DateTime(2026, 11, 24), new DateTime(2026, 11, 24, 9, 30, 0)).Select(at => (Value)new Moment(at)),
        Any("van Dyk", "Vell", "").Select(family => (Value)Compound.Empty.With("given", new Text("Mara Lou")).With("family", new Text(family))));

    [Fact]
    public void Another_type_and_the_former_one_again_lose_what_was_announced_and_nothing_else() => Gen.Select(Values, Any([.. Types]), Any([.. Types])).Sample((raw, one, other) =>
    {
        if (one.Fit(raw) is not { IsBlank: false } held || one.Violation(held) is not null)
        {
            return;
        }

        var (before, after) = (Of(one), Of(other));
        var announced = new Consequences(before, after, Few.Names);
        announced.Add(1, "One", Holding(held), "only", "open");
        var there = new RecordReshaping(before, after).Of(Holding(held), "only", "open", Few.Names).Values;
        var back = new RecordReshaping(after, before).Of(there, "only", "open", Few.Names).Values;

        var lost = announced.All().Sum(consequence => consequence.Altered + consequence.Lost);
        Assert.True(other.Fit(there["it"]) is not null, "what is there then fits its field");
        Assert.Equal(lost == 0, held.Equals(one.Fit(back["it"]) ?? Value.Blank));
    }, iter: Tries.Of("DIBUJO_WORLDS", 5000));

    [Theory]
    [InlineData("text", "1,200.50", "number", "1200.50")]
    [InlineData("text", "about 3", "number", "")]
    [InlineData("text", "Work on paper", "choice", "paper")]
    [InlineData("text", "YES", "yesNo", "yes")]
    [InlineData("text", "Ann Mary Lee", "fullName", "Lee, Ann Mary")]
    [InlineData("choice", "paper", "text", "Work on paper")]
    [InlineData("longText", "a\r\nb", "text", "a b")]
    [InlineData("number", "2.505", "scale2", "2.51")]
    [InlineData("dateTime", "2026-11-24T09:30", "date", "2026-11-24")]
    public void Values_are_read_as_people_mean_them(string from, string held, string to, string then)
    {
        var (one, other) = (Named(from), Named(to));
        var value = one.Fit(decimal.TryParse(held, System.Globalization.CultureInfo.InvariantCulture, out var number) && from == "number" ? new Number(number) : new Text(held))!;

        Assert.Equal(then, Conversion.Of(value, one, other, Few.Names).Plain);
    }

    [Theory]
    [InlineData("yes", "yes")]
    [InlineData("Mara Lou", "")]
    [InlineData("12.50", "")]
    public void Nothing_becomes_a_person_whom_there_is_not(string held, string then) =>
        Assert.Equal(then, Conversion.Of(new Text(held), new TextType(), new PersonType(), Few.Names).Plain);

    [Theory]
    [InlineData(15, "15")]
    [InlineData(16, "")]
    public void Nothing_becomes_a_link_to_a_record_that_there_is_not(int held, string then) =>
        Assert.Equal(then, Conversion.Of(new Number(held), new NumberType(), new LinkType("object"), Few.Names).Plain);

    [Fact]
    public void Several_choices_are_written_in_the_order_in_which_they_are_offered() => Assert.Equal(
        "Work on paper, Textile", Conversion.Of(new Choices(["textile", "paper"]), new ChoicesType(Materials), new TextType(), Few.Names).Plain);

    /// <summary>Whether a record is counted, and whether it gets an entry in its history, is one question: whether what is stored differs.</summary>
    [Theory]
    [InlineData("text", "5", "number", 1)]
    [InlineData("text", "yes", "person", 0)]
    [InlineData("text", "2026-11-24", "date", 0)]
    [InlineData("date", "2026-11-24", "text", 0)]
    [InlineData("text", "24 Nov 2026", "date", 1)]
    public void A_record_changes_if_what_is_stored_of_it_does(string from, string held, string to, int changed)
    {
        var (before, after) = (Of(Named(from)), Of(Named(to)));
        var told = new Consequences(before, after, Few.Names);
        told.Add(1, "One", Holding(new Text(held)), "only", "open");

        Assert.Equal(changed, told.Changed);
    }

    [Fact]
    public void A_merged_choice_is_the_other_one_in_rules_and_records()
    {
        var type = Of(new ChoiceType(Materials));
        var rule = new Rule("r", "Rule")
        {
            Cases =
            [
                new([new Narrow("it", ["paper", "textile"])], new Clause(new FieldSubject("it"), Test.OneOf) { Comparands = [new Literal(new Text("paper")), new Literal(new Text("textile"))] }),
                new([new SetValue("it", new Literal(new Text("textile"))), new Message(Severity.Note, "textile")], new Clause(new FieldSubject("note"), Test.Is) { Comparands = [new Literal(new Text("textile"))] }),
                new([new Calculate("note", new ExpressionComparand("if it = \"textile\" then \"textile\" else \"\""))]),
            ],
        };

        var after = Reshaped.By(new(type, [rule]), new ChoiceMerged("it", "textile", "paper")).Definition!;

        var cases = after.Rules[0].Cases;
        Assert.Equal("paper", Assert.Single(Assert.IsType<Narrow>(cases[0].Effects[0]).Options));
        Assert.Single(Assert.IsType<Clause>(cases[0].While).Comparands);
        Assert.Equal(new Literal(new Text("paper")), Assert.IsType<SetValue>(cases[1].Effects[0]).To);
        Assert.Equal(new Literal(new Text("textile")), Assert.IsType<Clause>(cases[1].While).Comparands[0]);
        Assert.Equal("if it = \"paper\" then \"textile\" else \"\"", Assert.IsType<ExpressionComparand>(Assert.IsType<Calculate>(cases[2].Effects[0]).From).Expression);
        Assert.Equal(["oil", "paper"], Assert.IsType<ChoiceType>(after.RecordType.Find("it")!.Type).Options.Select(option => option.Key));
        Assert.Equal(new Text("paper"), new RecordReshaping(type, after.RecordType).Of(Holding(new Text("textile")), "only", "open", Few.Names).Values["it"]);
    }

    [Fact]
    public void Records_at_a_stage_that_is_removed_go_where_it_says()
    {
        var type = Of(new TextType()) with
        {
            Workflows = [new("only", "Only", [new("open", "Open"), new("terms", "Terms"), new("done", "Done")],
                [new("a", "Offer", "open", "terms"), new("b", "Agree", "terms", "done"), new("c", "Drop", "open", "done")])],
        };

        var after = Reshaped.By(new(type, []), new StageRemoved("only", "terms", "done")).Definition!.RecordType;

        Assert.Equal(["open", "done"], after.Workflows[0].Stages.Select(stage => stage.Key));
        Assert.Equal(["c"], after.Workflows[0].Moves.Select(move => move.Key));
        var reshaping = new RecordReshaping(type, after);
        Assert.Equal("done", reshaping.Of(RecordValues.Empty, "only", "terms", Few.Names).Stage);
        Assert.Equal("open", reshaping.Of(RecordValues.Empty, "only", "open", Few.Names).Stage);
        Assert.Equal("terms", reshaping.Of(RecordValues.Empty, "other", "terms", Few.Names).Stage);
    }

    [Fact]
    public void A_type_that_changes_along_with_the_key_and_the_choices_meets_the_same_values()
    {
        var before = Of(new ChoiceType(Materials));
        var merged = Reshaped.By(new(before, []), new ChoiceMerged("it", "textile", "paper")).Definition!;
        var renamed = Reshaped.By(merged, new FieldRenamed("it", "made")).Definition!.RecordType;
        var after = renamed with { Fields = renamed.Fields.Replace(renamed.Find("made")!, renamed.Find("made")! with { Type = new TextType() }) };

        Assert.Equal(new Text("Work on paper"), new RecordReshaping(before, after).Of(Holding(new Text("paper")), "only", "open", Few.Names).Values["made"]);
        var told = new Consequences(before, after, Few.Names);
        told.Add(7, "Seven", Holding(new Text("textile")), "only", "open");
        Assert.Equal(
            ["It: Textile becomes Work on paper.", "It has the key made in place of it.", "It is one choice no longer, but a line of text."],
            told.All().Select(consequence => consequence.What));
    }

    [Fact]
    public void What_a_former_field_of_the_same_key_held_does_not_come_back()
    {
        var before = Of(new TextType()) with { Fields = [new("note", "Note", new TextType())] };
        var after = Of(new TextType());

        Assert.True(new RecordReshaping(before, after).Of(Holding(new Text("ghost")), "only", "open", Few.Names).Values["it"].IsBlank);
    }

    [Fact]
    public void Of_a_field_that_goes_it_is_told_who_has_something_of_it_and_nothing_is_taken()
    {
        var before = Of(new TextType());
        var after = before with { Fields = [before.Fields[0]], Forms = [] };
        var told = new Consequences(before, after, Few.Names);
        told.Add(1, "One", Holding(new Text("oak")), "only", "open");
        told.Add(2, "Two", RecordValues.Empty, "only", "open");

        var only = Assert.Single(told.All());
        Assert.Equal((1, 0, 0), (only.Records, only.Lost, told.Changed));
        Assert.StartsWith("It is no longer a field.", only.What, StringComparison.Ordinal);
        Assert.Equal(Holding(new Text("oak")), new RecordReshaping(before, after).Of(Holding(new Text("oak")), "only", "open", Few.Names).Values);
    }

    [Fact]
    public void What_a_pack_tells_of_another_installation_is_not_done_twice()
    {
        var before = Of(new TextType());
        var after = Reshaped.By(new(before, []), new FieldRenamed("it", "made")).Definition!.RecordType;
        var there = new RecordReshaping(before, after).Of(Holding(new Text("oak")), "only", "open", Few.Names).Values;

        Assert.Equal(there, new RecordReshaping(after, after).Of(there, "only", "open", Few.Names).Values);
    }

    private static Gen<T> Any<T>(params T[] of) => Gen.Int[0, of.Length - 1].Select(i => of[i]);

    private static RecordValues Holding(Value value) => RecordValues.Empty.With("it", value);

    private static RecordType Of(FieldType type) => new("thing", "Thing", "note",
        [new("note", "Note", new TextType()), new("it", "It", type)],
        [new("main", "Main", [new("t", "T", [new("s", "S", ["note", "it"])])])],
        [new("only", "Only", [new("open", "Open")], [])]);

    private static FieldType Named(string name) => name switch
    {
        "text" => new TextType(),
        "longText" => new LongTextType(),
        "number" => new NumberType(3),
        "scale2" => new NumberType(2),
        "choice" => new ChoiceType(Materials),
        "yesNo" => new YesNoType(),
        "fullName" => new FullNameType(),
        "date" => new DateType(),
        "person" => new PersonType(),
        _ => new DateTimeType(),
    };
}
