using System.Collections.Immutable;
using Dibujo.Core.Evaluation;
using Dibujo.Core.Explanation;
using Dibujo.Core.Forms;
using Dibujo.Core.Rules;
using Dibujo.Core.Values;

namespace Dibujo.Core.Saving;

/// <summary>What must be so in the end on one form, whoever brought it about.</summary>
/// <param name="session">The record on that form, as it would be stored.</param>
/// <param name="move">Key of the move to be made; null for a save alone.</param>
/// <param name="isAtHand">Whether the submission comes through this form.</param>
/// <param name="entered">Label of the stage that the record has entered, where that is what is judged.</param>
internal sealed class EndCheck(Session session, string? move, bool isAtHand, string? entered = null)
{
    /// <summary>Opened only where something is refused.</summary>
    private readonly Lazy<Explainer> explainer = new(() => new(session));

    private string? Form => isAtHand ? null : session.Form.Key;

    private string There => entered is null ? "" : $" at the stage {entered}";

    /// <summary>Everything that is needed for this and missing.</summary>
    internal IEnumerable<Refusal> Missing() => session.Missing().Where(m => m.IsNeededFor(move)).Select(missing =>
    {
        var rule = explainer.Value.Decider(missing.Element, Facet.Requirement);
        var toSave = missing.Level == Requirement.ToSave;
        var locked = session.StateOf(missing.Element) is { Access: Access.Locked };
        return new Refusal(
            toSave ? RefusalReason.NeededToSave : RefusalReason.NeededToMoveOn,
            missing.Field,
            missing.Message ?? $"{(missing.Element.Kind == ElementKind.Part ? "A part of this is needed" : "Needed")} {For(missing, toSave)}{There}.{Reason(rule)} {(locked ? "It is locked for you: ask a person who may fill it in." : "Fill it in.")}",
            rule?.Key,
            Form);
    });

    /// <summary>Every field that can be changed here and holds what a rule does not offer.</summary>
    internal IEnumerable<Refusal> NotOffered() =>
        from field in session.Program.Definition.RecordType.Fields.Index()
        let offers = session.Offers(field.Index)
        where offers is not null && session.StateOf(field.Index).IsEditable && Chosen(session.ValueOf(field.Index)).Except(offers.Value, StringComparer.Ordinal).Any()
        let rule = explainer.Value.Decider(Element.Field(field.Item.Key), Facet.Choices)
        select new Refusal(RefusalReason.NotOffered, field.Item.Key,
            $"“{field.Item.Type.Display(session.ValueOf(field.Index))}” is not offered here.{Reason(rule)} Choose another.", rule?.Key, Form);

    /// <summary>Every value that a rule gives and the field cannot keep.</summary>
    internal IEnumerable<Refusal> Violations() =>
        from field in session.Program.Definition.RecordType.Fields.Index()
        where session.ValueClaim(field.Index) is not null
        let violation = field.Item.Type.Violation(session.ValueOf(field.Index), session.SavedValueOf(field.Index))
        where violation is not null
        select new Refusal(RefusalReason.Limit, field.Item.Key, $"A rule gives this field a value that it cannot keep. {violation}", null, Form);

    /// <summary>Every message that stops this.</summary>
    internal IEnumerable<(SaidMessage Message, Refusal Refusal)> Stops() =>
        from message in session.Messages()
        where message.Severity == Severity.StopsSaving || (message.Severity == Severity.StopsMoving && move is not null)
        select (message, new Refusal(
            RefusalReason.Stopped,
            message.At is { Kind: ElementKind.Field, Key: var at } ? at : null,
            entered is null ? message.Text : $"At the stage {entered}: {message.Text}",
            session.Program.Definition.Rules[message.Rule].Key,
            Form));

    private static ImmutableArray<string> Chosen(Value value) => value switch
    {
        Choice choice => [choice.Key],
        Choices choices => choices.Keys,
        _ => [],
    };

    /// <summary>For which move, where it is needed for some alone.</summary>
    private string For(MissingField missing, bool toSave) => toSave ? "to save"
        : move is not null && missing.Moves.Contains(move, StringComparer.Ordinal) && session.Program.Definition.RecordType.FindMove(move) is { Label: var label } ? $"for “{label}”"
        : "to move on";

    /// <summary>What the rule is for, as its author says: a member knows nothing of its number, nor of a name that it got by itself.</summary>
    internal static string Reason((string Key, string? Reason)? rule) =>
        rule?.Reason?.Trim() is { Length: > 0 } reason ? $" {reason}{(reason[^1] is '.' or '!' or '?' ? "" : ".")}" : "";
}
