using System.Collections.Immutable;
using Dibujo.Core.Compilation;
using Dibujo.Core.Evaluation;
using Dibujo.Core.Explanation;
using Dibujo.Core.Forms;
using Dibujo.Core.Records;
using Dibujo.Core.Rules;
using Dibujo.Core.Values;
using Dibujo.Core.Workflows;

namespace Dibujo.Core.Saving;

/// <summary>Decides over submissions. What the sender claims about states counts for nothing: the record is evaluated here.</summary>
/// <param name="program">The rules, compiled for the form through which the submission comes.</param>
/// <param name="records">Where linked records and persons are found; by default nowhere, and nobody is doubted.</param>
public sealed class Judge(RuleProgram program, IRecordLookup? records = null)
{
    /// <summary>Accepts the submission, or refuses it with all reasons.</summary>
    /// <param name="saved">The record as it is stored; for a new one, its defaults.</param>
    /// <param name="setting">Where the record is and who asks; the attempted move is taken from the submission.</param>
    /// <param name="submission">What is asked for.</param>
    public Verdict Decide(RecordValues saved, Setting setting, Submission submission)
    {
        var refusals = ImmutableArray.CreateBuilder<Refusal>();
        var changes = new ChangeCheck(program, records).Fit(submission.Changes, refusals);
        var move = FindMove(setting, submission.Move, refusals);
        var session = new Session(program, saved, setting with { Move = move?.Key }, records);
        session.Change(changes);
        CheckReached(session, saved, changes, refusals);
        CheckEnd(session, move, refusals);
        var values = session.Values();
        if (move is not null)
        {
            // Nobody is moved into a stage in which the record cannot be saved.
            var left = setting with { Move = null, IsNew = false };
            var entered = new Session(program, values, left with { Stage = move.To }, records, before: left);
            values = entered.Values();
            CheckEnd(entered, null, refusals);
        }

        return refusals.Count == 0
            ? new([], values, move?.To ?? setting.Stage)
            : new([.. refusals.DistinctBy(r => (r.Reason, r.Field, r.Field is null ? r.Message : ""))], saved, setting.Stage);
    }

    private Move? FindMove(Setting setting, string? key, ImmutableArray<Refusal>.Builder refusals)
    {
        if (key is null)
        {
            return null;
        }

        var type = program.Definition.RecordType;
        var move = type.FindWorkflow(setting.Workflow)?.From(setting.Stage).FirstOrDefault(m => m.Key == key);
        if (move is null)
        {
            refusals.Add(new(RefusalReason.NoSuchMove, null,
                $"The stage {type.FindStage(setting.Stage)?.Label ?? setting.Stage} has no move “{key}”. Choose one that it offers."));
        }
        else if (!move.IsOpenTo(setting.Roles))
        {
            refusals.Add(new(RefusalReason.MoveNotAllowed, null,
                $"“{move.Label}” is not yours to do. Ask a person with the role {string.Join(" or ", move.Roles)}."));
        }

        return move;
    }

    private void CheckReached(
        Session session, RecordValues saved, Dictionary<string, Value> changes, ImmutableArray<Refusal>.Builder refusals)
    {
        var explainer = new Explainer(session);
        foreach (var (key, value) in changes.Where(c => !c.Value.Equals(saved[c.Key])))
        {
            var element = Element.Field(key);
            var state = session.StateOf(element);
            if (!state.IsEditable)
            {
                Refuse(element, state, "field");
            }
            else if (ChangedPart(session, key, saved[key], value) is { } part)
            {
                Refuse(part, session.StateOf(part), "part");
            }
            else if (state.IsSetAside)
            {
                refusals.Add(new(RefusalReason.Unreachable, key,
                    "No form leads from the saved record to this change. Make the change that opens the field and save it first."));
            }

            void Refuse(Element what, ElementState found, string noun)
            {
                var facet = found.IsVisible ? Facet.Access : Facet.Visibility;
                var rule = explainer.Decider(what, facet);
                refusals.Add(new(found.IsVisible ? RefusalReason.Locked : RefusalReason.Hidden, key,
                    $"This {noun} is {(found.IsVisible ? "locked" : "hidden")}{By(rule)}, so it cannot be changed.", rule?.Key));
            }
        }
    }

    /// <summary>A part that is changed though it is hidden or locked; null if there is none. What a rule did to it in the same way is no change.</summary>
    private Element? ChangedPart(Session session, string key, Value saved, Value value) =>
        ((program.Definition.RecordType.Find(key)!.Type as CompoundType)?.Parts ?? [])
            .Where(part => !Part(saved, part.Key).Equals(Part(value, part.Key)) && !Part(session[key], part.Key).Equals(Part(value, part.Key)))
            .Select(part => (Element?)Element.Part(key, part.Key))
            .FirstOrDefault(part => !session.StateOf(part!.Value).IsEditable);

    private static Value Part(Value whole, string part) => whole is Compound compound ? compound[part] : Value.Blank;

    /// <summary>What must be so in the end, whoever brought it about.</summary>
    private void CheckEnd(Session session, Move? move, ImmutableArray<Refusal>.Builder refusals)
    {
        Explainer? explainer = null;
        foreach (var missing in session.Missing().Where(m => m.IsNeededFor(move?.Key)))
        {
            explainer ??= new(session);
            var rule = explainer.Decider(missing.Element, Facet.Requirement);
            var toSave = missing.Level == Requirement.ToSave;
            refusals.Add(new(
                toSave ? RefusalReason.NeededToSave : RefusalReason.NeededToMoveOn,
                missing.Field,
                missing.Message ?? $"{(missing.Element.Kind == ElementKind.Part ? "A part of this is needed" : "Needed")} {(toSave ? "to save" : "to move on")}{By(rule)}. Fill it in.",
                rule?.Key));
        }

        foreach (var (i, field) in program.Definition.RecordType.Fields.Index())
        {
            if (session.Offers(i) is { } offers && session.StateOf(i).IsEditable && Chosen(session.ValueOf(i)).Except(offers, StringComparer.Ordinal).Any())
            {
                explainer ??= new(session);
                var rule = explainer.Decider(Element.Field(field.Key), Facet.Choices);
                refusals.Add(new(RefusalReason.NotOffered, field.Key,
                    $"“{field.Type.Display(session.ValueOf(i))}” is not offered here{By(rule)}. Choose another.", rule?.Key));
            }

            if (session.ValueClaim(i) is not null && field.Type.Violation(session.ValueOf(i)) is { } violation)
            {
                refusals.Add(new(RefusalReason.Limit, field.Key, $"A rule gives this field a value that it cannot keep. {violation}"));
            }
        }

        foreach (var message in session.Messages().Where(m => m.Severity == Severity.StopsSaving || (m.Severity == Severity.StopsMoving && move is not null)))
        {
            refusals.Add(new(RefusalReason.Stopped,
                message.At is { Kind: ElementKind.Field, Key: var at } ? at : null, message.Text, program.Definition.Rules[message.Rule].Key));
        }
    }

    private static ImmutableArray<string> Chosen(Value value) => value switch
    {
        Choice choice => [choice.Key],
        Choices choices => choices.Keys,
        _ => [],
    };

    private static string By((string Key, string Words)? rule) => rule is { } known ? $" by {known.Words}" : "";
}
