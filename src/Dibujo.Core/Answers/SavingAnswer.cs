using System.Collections.Immutable;
using Dibujo.Core.Evaluation;
using Dibujo.Core.Saving;

namespace Dibujo.Core.Answers;

/// <summary>What rules say of a record, and what would come of its moves, as answers.</summary>
public static class SavingAnswer
{
    /// <summary>A message.</summary>
    public static void Write(this AnswerWriter to, SaidMessage message) => to.Object(() =>
    {
        to.Number("rule", message.Rule);
        to.Enum("severity", message.Severity);
        to.Text("text", message.Text);
        if (message.At is { } at)
        {
            to.Element("at", at);
        }

        to.Text("form", message.Form);
        to.Truth("endsForm", message.EndsForm);
    });

    /// <summary>A suggestion.</summary>
    public static void Write(this AnswerWriter to, Suggestion suggestion) => to.Object(() =>
    {
        to.Number("rule", suggestion.Rule);
        to.Text("field", suggestion.Field);
        to.Value("value", suggestion.Value);
        to.Text("reason", suggestion.Reason);
    });

    /// <summary>What would come of moves, and how far each form is filled in.</summary>
    public static void Write(this AnswerWriter to, ImmutableArray<Outlook> outlooks, IEnumerable<FormProgress> forms) => to.Object(() =>
    {
        to.List("forms", forms, form => to.Object(() =>
        {
            to.Text("form", form.Form);
            to.Enum("progress", form.Progress);
            to.Number("filled", form.Filled);
            to.Number("asked", form.Asked);
        }));
        to.Json.WritePropertyName("moves");
        to.Write(outlooks);
    });

    /// <summary>What would come of moves.</summary>
    public static void Write(this AnswerWriter to, ImmutableArray<Outlook> outlooks) => to.List(outlooks, outlook => to.Object(() =>
    {
        to.Text("move", outlook.Move);
        to.List("refusals", outlook.Refusals, refusal => to.Object(() =>
        {
            to.Enum("reason", refusal.Reason);
            to.TextIfAny("field", refusal.Field);
            to.Text("message", refusal.Message);
            to.TextIfAny("rule", refusal.Rule);
            to.TextIfAny("form", refusal.Form);
        }));
    }));
}
