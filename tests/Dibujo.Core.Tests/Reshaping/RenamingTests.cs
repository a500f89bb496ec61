using System.Collections.Immutable;
using CsCheck;
using Dibujo.Core.Compilation;
using Dibujo.Core.Conditions;
using Dibujo.Core.Evaluation;
using Dibujo.Core.Forms;
using Dibujo.Core.Packs;
using Dibujo.Core.Records;
using Dibujo.Core.Reshaping;
using Dibujo.Core.Rules;
using Dibujo.Core.Values;

namespace Dibujo.Core.Tests.Reshaping;

/// <summary>A field under another key is the same field: for every rule, example, form and record.</summary>
public class RenamingTests
{
    private static readonly int Worlds = Tries.Of("DIBUJO_WORLDS", 500);

    [Fact]
    public void Every_record_is_in_the_same_states_after_a_field_got_another_key() => Gen.Select(Gen.UInt, Gen.Int[0, 12]).Sample((seed, at) =>
    {
        var chance = new Chance(seed);
        var before = chance.Definition();
        var (from, to) = ($"f{at}", "another");
        var after = By(before, new FieldRenamed(from, to));

        Assert.Null(after.RecordType.Find(from));
        Assert.DoesNotContain($"\"{from}\"", System.Text.Encoding.UTF8.GetString(Json.JsonText.Write(after with { RecordType = after.RecordType with { Reshaping = [] } })), StringComparison.Ordinal);
        var saved = chance.Record();
        var carried = new RecordReshaping(before.RecordType, after.RecordType).Of(saved, "long", "first", Few.Names).Values;
        var setting = chance.Setting();
        var one = new Session(Chance.Compile(before), saved, setting, chance);
        var other = new Session(Chance.Compile(after), carried, setting, chance);
        Compare();
        foreach (var (field, value) in chance.Edits())
        {
            one.Change(field, value);
            other.Change(Renamed(field), value);
            Compare();
        }

        void Compare()
        {
            foreach (var element in before.RecordType.Elements().Where(element => element.Kind is ElementKind.Field or ElementKind.Part))
            {
                var then = element.Kind == ElementKind.Field ? Element.Field(Renamed(element.Key))
                    : element.Key.StartsWith(from + ".", StringComparison.Ordinal) ? Element.Part(to, element.Key[(from.Length + 1)..]) : element;
                var (state, expected) = (other.StateOf(then), one.StateOf(element));
                Assert.Equal((expected.IsVisible, expected.Access, expected.Requirement), (state.IsVisible, state.Access, state.Requirement));
            }

            Assert.All(before.RecordType.Fields, field => Assert.Equal(one[field.Key], other[Renamed(field.Key)]));
            Assert.Equal(one.Messages().Select(message => message.Text), other.Messages().Select(message => message.Text));
        }

        string Renamed(string field) => field == from ? to : field;
    }, iter: Worlds);

    [Fact]
    public void A_key_and_back_again_is_nothing_at_all() => Gen.Select(Gen.UInt, Gen.Int[0, 12]).Sample((seed, at) =>
    {
        var before = new Chance(seed).Definition();
        var after = By(By(By(before, new FieldRenamed($"f{at}", "one")), new FieldRenamed("one", "other")), new FieldRenamed("other", $"f{at}"));

        Assert.Equal(Json.JsonText.Write(before), Json.JsonText.Write(after));
    }, iter: Worlds);

    [Fact]
    public void Nothing_but_the_key_differs_in_a_comparison() => Gen.Select(Gen.UInt, Gen.Int[0, 12]).Sample((seed, at) =>
    {
        var before = new Chance(seed).Definition();
        var differences = Comparison.Between(before, By(before, new FieldRenamed($"f{at}", "another"))).Differences;

        var only = Assert.Single(differences);
        Assert.Equal((Change.Changed, "another", $"Its key was f{at}."), (only.Change, only.Key, Assert.Single(only.Beside)));
    }, iter: Worlds / 5);

    [Fact]
    public void A_pack_that_goes_out_and_comes_in_again_is_the_same() => Gen.UInt.Sample(seed =>
    {
        var definition = new Chance(seed) { HasOddLabels = true }.Definition();
        var (pack, mistake) = PackFile.Read(PackFile.Write(Pack.Of(definition)));

        Assert.Null(mistake);
        Assert.Equal(Json.JsonText.Write(definition), Json.JsonText.Write(pack!.ToDefinition()));
        Assert.Empty(Comparison.Between(definition, pack.ToDefinition()).Differences);
    }, iter: Worlds);

    [Fact]
    public void Formulas_messages_links_tables_and_examples_follow()
    {
        var type = new RecordType("loan", "Loan", "title",
            [new("title", "Title", new TextType()), new("value", "Value", new MoneyType()), new("of", "Extension of", new LinkType("loan")), new("total", "Total", new NumberType(2))],
            [new("main", "Main", [new("t", "T", [new("s", "S", ["title", "value", "of", "total"])])])],
            [new("only", "Only", [new("open", "Open")], [])]);
        var rule = new Rule("sum", "Sum")
        {
            Cases =
            [
                new([new Calculate("total", new ExpressionComparand("value + of.value + count([\"value\"]) + sum(value, 2)")), new Message(Severity.Note, "{value} of {of}")],
                    new Clause(new LinkedSubject(["of", "of"], "value"), Test.FilledIn)),
            ],
        };
        var example = new Example("it adds", new("only", "open"))
        {
            Values = ImmutableDictionary<string, Value>.Empty.Add("value", new Number(3)),
            Linked = [new("loan", 1, ImmutableDictionary<string, Value>.Empty.Add("value", new Number(4)))],
            Expect = [new(Element.Field("value"), Visible: true)],
        };

        var after = By(new(type, [rule]) { Examples = [example] }, new FieldRenamed("value", "worth"));

        var then = after.Rules[0].Cases[0];
        Assert.Equal("worth + of.worth + count([\"value\"]) + sum(worth, 2)", Assert.IsType<ExpressionComparand>(Assert.IsType<Calculate>(then.Effects[0]).From).Expression);
        Assert.Equal("{worth} of {of}", Assert.IsType<Message>(then.Effects[1]).Text);
        Assert.Equal(new LinkedSubject(["of", "of"], "worth"), Assert.IsType<Clause>(then.While).Subject);
        Assert.Equal(["worth"], after.Examples[0].Values.Keys);
        Assert.Equal(["worth"], after.Examples[0].Linked[0].Values.Keys);
        Assert.Equal(Element.Field("worth"), after.Examples[0].Expect[0].Element);
        Assert.Empty(ProgramCompiler.Compile(after).Problems);
    }

    [Theory]
    [InlineData("f0", "f1", "already")]
    [InlineData("gone", "new", "no field")]
    [InlineData("f0", "if", "cannot be a key")]
    [InlineData("f0", "two words", "cannot be a key")]
    [InlineData("f0", "", "cannot be a key")]
    public void A_key_that_cannot_be_is_refused(string from, string to, string why) =>
        Assert.Contains(why, Reshaped.By(new Chance(1).Definition(), new FieldRenamed(from, to)).Mistake, StringComparison.Ordinal);

    private static Definition By(Definition definition, Reshape reshape)
    {
        var (after, mistake) = Reshaped.By(definition, reshape);
        Assert.Null(mistake);
        return after!;
    }
}
