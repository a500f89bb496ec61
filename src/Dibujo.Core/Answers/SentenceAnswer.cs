using System.Collections.Immutable;
using Dibujo.Core.Checking;
using Dibujo.Core.Programs;
using Dibujo.Core.Sentences;

namespace Dibujo.Core.Answers;

/// <summary>Sentences, what may be put into them, and what is wrong with them, as answers.</summary>
public static class SentenceAnswer
{
    /// <summary>Rules in words.</summary>
    public static void Write(this AnswerWriter to, ImmutableArray<ImmutableArray<SentencePart>> sentences) =>
        to.List(sentences, parts => to.List(parts, to.Part));

    /// <summary>What came of reading a sentence.</summary>
    public static void Write(this AnswerWriter to, SentenceReading reading) => to.Object(() =>
    {
        if (reading.Rule is { } rule)
        {
            to.Json.WritePropertyName("rule");
            to.Write(rule);
        }

        if (reading.Problem is { } problem)
        {
            to.Json.WritePropertyName("problem");
            to.Object(() =>
            {
                to.Number("place", problem.Place);
                to.Text("found", problem.Found);
                to.Texts("expected", problem.Expected);
                to.Text("message", problem.Message);
            });
        }
    });

    /// <summary>What may stand at the cursor.</summary>
    public static void Write(this AnswerWriter to, ImmutableArray<SentenceOffer> offers) => to.List(offers, offer => to.Object(() =>
    {
        to.Text("text", offer.Text);
        to.Enum("kind", offer.Kind);
        to.Number("start", offer.Start);
        to.Truth("isHint", offer.IsHint);
    }));

    /// <summary>What may be put into the blanks of a sentence.</summary>
    public static void Write(this AnswerWriter to, Vocabulary vocabulary) => to.Object(() =>
    {
        to.List("subjects", vocabulary.Subjects, offer => to.Object(() =>
        {
            to.Json.WritePropertyName("subject");
            to.Write(offer.Subject);
            to.Text("label", offer.Label);
            to.List("tests", offer.Tests, test => to.Object(() =>
            {
                to.Enum("test", test.Test);
                to.Text("words", test.Words);
                to.Enum("shape", test.Shape);
            }));
            to.Enum("input", offer.Input);
            to.List("values", offer.Values, value => to.Object(() =>
            {
                to.Text("key", value.Key);
                to.Text("label", value.Label);
                to.Truth("retired", value.Retired);
            }));
            to.Texts("fields", offer.Fields);
            to.TextIfAny("unit", offer.Unit);
            to.TextIfAny("recordType", offer.RecordType);
            to.Truth("retired", offer.Retired);
        }));
        to.List("targets", vocabulary.Targets, target => to.Object(() =>
        {
            to.Element("element", target.Element);
            to.Text("label", target.Label);
        }));
    });

    /// <summary>Problems.</summary>
    public static void Write(this AnswerWriter to, ImmutableArray<Problem> problems) => to.List(problems, problem => to.Object(() =>
    {
        to.Text("place", problem.Place);
        to.Text("what", problem.What);
        to.Text("mend", problem.Mend);
    }));

    /// <summary>What is wrong with a draft: <c>type</c>, problems of the record type, and <c>rules</c>, place and problems in turn.</summary>
    public static void Write(this AnswerWriter to, ImmutableArray<Problem> type, ImmutableArray<RuleProblems> rules) => to.Object(() =>
    {
        to.Json.WritePropertyName("type");
        to.Write(type);
        to.List("rules", rules, of =>
        {
            to.Json.WriteNumberValue(of.Place);
            to.Write(of.Problems);
        });
    });

    /// <summary>The elements that a form knows: each with the number by which changes call it.</summary>
    public static void Write(this AnswerWriter to, RuleProgram program, string form) =>
        to.List(program.NumbersOn(form), number => to.Object(() =>
        {
            to.Number("number", number);
            to.Enum("kind", program.ElementAt(number).Kind);
            to.Text("key", program.ElementAt(number).Key);
        }));

    private static void Part(this AnswerWriter to, SentencePart part) => to.Object(() =>
    {
        to.Enum("kind", part.Kind);
        to.Text("text", part.Text);
        to.Text("place", part.Place);
        to.Truth("glued", part.Glued);
    });
}
