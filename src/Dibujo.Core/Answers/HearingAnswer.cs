using System.Collections.Immutable;
using Dibujo.Core.Records;
using Dibujo.Core.Speech;

namespace Dibujo.Core.Answers;

/// <summary>What came of a rule that was said, as an answer.</summary>
public static class HearingAnswer
{
    /// <summary>Another word for something; null for none.</summary>
    public static void Write(this AnswerWriter to, OtherWord? word)
    {
        if (word is null)
        {
            to.Json.WriteNullValue();
            return;
        }

        to.Object(() =>
        {
            to.Text("said", word.Said);
            to.TextIfAny("field", word.Field);
            to.TextIfAny("choice", word.Choice);
            to.TextIfAny("stage", word.Stage);
            to.TextIfAny("role", word.Role);
        });
    }

    /// <summary>Rule and sentence, guesses, what stands for what, what may come next, and a question or a misunderstanding where there is one.</summary>
    public static void Write(this AnswerWriter to, Hearing hearing) => to.Object(() =>
    {
        if (hearing.Rule is { } rule)
        {
            to.Json.WritePropertyName("rule");
            to.Write(rule);
        }

        to.TextIfAny("sentence", hearing.Sentence);
        to.List("guesses", hearing.Guesses, guess => to.Object(() =>
        {
            to.Number("start", guess.Start);
            to.Number("end", guess.End);
            to.Text("meant", guess.Meant);
            to.Wordages("others", guess.Others);
        }));
        to.Json.WritePropertyName("offers");
        to.Write(hearing.Offers);
        to.List("aligned", hearing.Aligned, one => to.Object(() =>
        {
            to.Number("start", one.Start);
            to.Number("end", one.End);
            to.Text("part", one.Part);
        }));
        if (hearing.Question is { } question)
        {
            to.Json.WritePropertyName("question");
            to.Object(() =>
            {
                to.Number("start", question.Start);
                to.Number("end", question.End);
                to.Text("said", question.Said);
                to.Wordages("options", question.Options);
            });
        }

        if (hearing.Misunderstanding is { } unheard)
        {
            to.Json.WritePropertyName("misunderstanding");
            to.Object(() =>
            {
                to.Number("place", unheard.Place);
                to.Text("message", unheard.Message);
                to.Wordages("nearest", unheard.Nearest);
            });
        }
    });

    private static void Wordages(this AnswerWriter to, string name, ImmutableArray<Wordage> all) => to.List(name, all, one => to.Object(() =>
    {
        to.Text("label", one.Label);
        to.Text("text", one.Text);
    }));
}
