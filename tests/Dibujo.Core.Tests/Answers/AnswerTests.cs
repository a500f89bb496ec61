using System.Collections.Immutable;
using System.Text.Json;
using System.Text.Json.Nodes;
using System.Text.Json.Serialization.Metadata;
using CsCheck;
using Dibujo.Core.Answers;
using Dibujo.Core.Evaluation;
using Dibujo.Core.Explanation;
using Dibujo.Core.Forms;
using Dibujo.Core.Json;
using Dibujo.Core.Records;
using Dibujo.Core.Rules;
using Dibujo.Core.Saving;
using Dibujo.Core.Sentences;
using Dibujo.Core.Values;

namespace Dibujo.Core.Tests.Answers;

/// <summary>What is written by hand is what the serializer would write.</summary>
public class AnswerTests
{
    [Fact]
    public void Rules_sentences_and_vocabularies() => Gen.UInt.Sample(seed =>
    {
        var definition = new Chance(seed) { HasOddLabels = true }.Definition();
        var type = definition.RecordType;

        Assert.All(definition.Rules, rule => Same(rule, CoreJson.Default.Rule, to => to.Write(rule)));
        var sentences = Sentence.OfAll(definition.Rules, type);
        Same(sentences, CoreJson.Default.ImmutableArrayImmutableArraySentencePart, to => to.Write(sentences));
        var vocabulary = Vocabulary.Of(type);
        Same(vocabulary, CoreJson.Default.Vocabulary, to => to.Write(vocabulary));
        var text = Sentence.Plain(sentences[0]);
        foreach (var cut in new[] { text, text[..(text.Length / 2)] })
        {
            var reading = SentenceReading.Of(cut, type, definition.Rules[0]);
            Same(reading, CoreJson.Default.SentenceReading, to => to.Write(reading));
            var offers = SentenceReading.Complete(cut, cut.Length, type);
            Same(offers, CoreJson.Default.ImmutableArraySentenceOffer, to => to.Write(offers));
        }
    }, iter: 150);

    [Fact]
    public void Explanations_and_outlooks() => Gen.UInt.Sample(seed =>
    {
        var chance = new Chance(seed);
        var definition = chance.Definition();
        var session = new Session(Chance.Compile(definition), chance.Record(), chance.Setting(), chance);
        session.Change(chance.Edits());
        var explainer = new Explainer(session);

        foreach (var field in definition.RecordType.Fields)
        {
            var explanation = explainer.Explain(Element.Field(field.Key));
            Same(explanation, CoreJson.Default.ElementExplanation, to => to.Write(explanation));
        }

        foreach (var place in Enumerable.Range(0, definition.Rules.Length))
        {
            var clauses = explainer.Clauses(place);
            Same(clauses, CoreJson.Default.ImmutableArrayClauseExplanation, to => to.Write(clauses));
        }

        var outlooks = Outlook.Of(session, chance);
        Same(outlooks, CoreJson.Default.ImmutableArrayOutlook, to => to.Write(outlooks));
        Same([.. session.Messages()], CoreJson.Default.ImmutableArraySaidMessage, to => to.List(session.Messages(), to.Write));
        Same([.. session.Suggestions()], CoreJson.Default.ImmutableArraySuggestion, to => to.List(session.Suggestions(), to.Write));
    }, iter: 150);

    [Fact]
    public void Whoever_follows_a_record_by_what_is_told_knows_what_it_is_like() => Gen.UInt.Sample(seed =>
    {
        var chance = new Chance(seed);
        var definition = chance.Definition();
        var followed = new FollowedRecord(Chance.Compile(definition), chance.Record(), chance.Setting(), chance, followsForms: true);
        var known = new Follower(definition);
        known.Follow(followed.All());
        known.Agree(followed.Whole.AtHand);
        foreach (var (field, value) in chance.Edits())
        {
            known.Follow(followed.Change(definition.RecordType.Fields.Index().First(f => f.Item.Key == field).Index, value));
            known.Agree(followed.Whole.AtHand);
        }

        known.Follow(followed.Enter(chance.Setting()));
        known.Agree(followed.Whole.AtHand);
        var other = definition with { Rules = [chance.NextRule(50), .. definition.Rules.Skip(1)] };
        known.Follow(followed.Rebase(Chance.Compile(other)));
        known.Agree(followed.Whole.AtHand);
    }, iter: 500);

    [Fact]
    public void A_record_carried_over_to_other_rules_is_as_if_it_had_been_opened_under_them() => Gen.UInt.Sample(seed =>
    {
        var chance = new Chance(seed);
        var definition = chance.Definition();
        var (saved, setting) = (chance.Record(), chance.Setting());
        var edits = chance.Edits();
        var begun = new Session(Chance.Compile(definition), saved, setting, chance);
        begun.Change(edits);
        var program = Chance.Compile(definition with { Rules = [.. definition.Rules.Reverse()] });

        var carried = begun.On(program);
        var fresh = new Session(program, saved, setting, chance);
        fresh.Change(edits);

        Assert.Equal(fresh.Values(), carried.Values());
        Assert.All(Enumerable.Range(0, program.ElementCount), element => Assert.Equal(fresh.StateOf(element), carried.StateOf(element)));
    }, iter: 500);

    [Fact]
    public void A_value_that_a_field_cannot_hold_changes_nothing_and_is_said()
    {
        var followed = new FollowedRecord(Chance.Compile(LoanFile.Under()), RecordValues.Empty, LoanFile.AtTerms, new NoRecords(), followsForms: false);
        followed.All();
        var title = followed.Whole.AtHand.Program.Definition.RecordType.Fields.Index().First(f => f.Item.Key == "title").Index;

        var told = JsonNode.Parse(followed.Change(title, new YesNo(true)))!;

        Assert.Equal(title, told["refused"]!.GetValue<int>());
        Assert.Contains("This field takes text", told["violations"]![1]!.GetValue<string>(), StringComparison.Ordinal);
        Assert.Equal(0, told["changed"]!.GetValue<int>());
    }

    private static void Same<T>(T item, JsonTypeInfo<T> info, Action<AnswerWriter> write)
    {
        var (expected, actual) = (JsonSerializer.Serialize(item, info), AnswerWriter.Write(write));
        Assert.True(JsonNode.DeepEquals(JsonNode.Parse(expected), JsonNode.Parse(actual)), $"{expected}\n{actual}");
    }

    /// <summary>What somebody knows who hears nothing but what is told.</summary>
    private sealed class Follower(Definition definition)
    {
        private readonly Dictionary<int, int> states = [];
        private readonly Dictionary<int, string> values = [];
        private readonly Dictionary<int, int> cases = [];
        private readonly Dictionary<int, string> offers = [];

        internal void Follow(string answer)
        {
            var told = JsonNode.Parse(answer)!;
            Pairs(told["elements"]!, (element, bits) => states[element] = bits!.GetValue<int>());
            Pairs(told["values"]!, (field, value) => values[field] = value?.ToJsonString() ?? "null");
            Pairs(told["cases"]!, (rule, inForce) => cases[rule] = inForce!.GetValue<int>());
            Pairs(told["offers"] ?? new JsonArray(), (field, keys) => offers[field] = keys?.ToJsonString() ?? "null");
        }

        internal void Agree(Session session)
        {
            Assert.All(states, state => Assert.Equal(session.StateOf(state.Key).Bits, state.Value));
            Assert.Equal(session.Program.ElementCount, states.Count);
            Assert.All(definition.RecordType.Fields.Index(), field =>
            {
                var expected = JsonSerializer.SerializeToNode(session.ValueOf(field.Index), CoreJson.Default.Value);
                Assert.True(JsonNode.DeepEquals(expected, JsonNode.Parse(values[field.Index])), field.Item.Key);
                var left = session.Offers(field.Index) is { } keys ? new JsonArray([.. keys.Select(key => (JsonNode)key)]).ToJsonString() : "null";
                Assert.Equal(left, offers.GetValueOrDefault(field.Index, "null"));
            });
            Assert.All(Enumerable.Range(0, session.Program.Definition.Rules.Length), rule => Assert.Equal(session.CaseInForce(rule), cases[rule]));
        }

        private static void Pairs(JsonNode list, Action<int, JsonNode?> take)
        {
            for (var i = 0; i < list.AsArray().Count; i += 2)
            {
                take(list[i]!.GetValue<int>(), list[i + 1]);
            }
        }
    }
}
