using System.Collections.Immutable;
using Dibujo.Core.Compilation;
using Dibujo.Core.Evaluation;
using Dibujo.Core.Explanation;
using Dibujo.Core.Forms;
using Dibujo.Core.Rules;
using Dibujo.Core.Values;
using Dibujo.Core.Workflows;

namespace Dibujo.Core.Saving;

/// <summary>Decides over submissions. What the sender claims about states counts for nothing: the record is evaluated here.</summary>
public sealed class Judge(RuleProgram program)
{
    /// <summary>Accepts the submission, or refuses it with all reasons.</summary>
    /// <param name="saved">The record as it is stored.</param>
    /// <param name="setting">Where the record is and who asks; the attempted move is taken from the submission.</param>
    /// <param name="submission">What is asked for.</param>
    public Verdict Decide(RecordValues saved, Setting setting, Submission submission)
    {
        var refusals = ImmutableArray.CreateBuilder<Refusal>();
        var changes = Fit(submission.Changes, refusals);
        var move = FindMove(setting, submission.Move, refusals);
        var session = new Session(program, saved, setting with { Move = move?.Key });
        session.Change(changes);
        CheckReached(session, saved, changes, refusals);
        CheckFilledIn(session, move is null ? Requirement.ToSave : Requirement.ToMoveOn, refusals);
        var values = session.Values();
        if (move is not null)
        {
            // Nobody is moved into a stage in which the record cannot be saved.
            var entered = new Session(program, values, setting with { Stage = move.To, Move = null, IsNew = false });
            values = entered.Values();
            CheckFilledIn(entered, Requirement.ToSave, refusals);
        }

        return refusals.Count == 0
            ? new([], values, move?.To ?? setting.Stage)
            : new([.. refusals.DistinctBy(r => (r.Reason, r.Field))], saved, setting.Stage);
    }

    private Dictionary<string, Value> Fit(ImmutableDictionary<string, Value> raw, ImmutableArray<Refusal>.Builder refusals)
    {
        var changes = new Dictionary<string, Value>(StringComparer.Ordinal);
        foreach (var (key, value) in raw)
        {
            if (!program.IsOnForm(key))
            {
                refusals.Add(new(RefusalReason.UnknownField, key,
                    $"The form {program.Form.Label} has no field “{key}”. Leave it out."));
                continue;
            }

            var field = program.Definition.RecordType.Find(key)!;
            if (field.Type.Fit(value) is not { } fitted)
            {
                refusals.Add(new(RefusalReason.WrongType, key, $"{field.Label} cannot hold this. Give {field.Type.Noun}."));
                continue;
            }

            if (field.Type.Violation(fitted) is { } violation)
            {
                refusals.Add(new(RefusalReason.Limit, key, violation));
            }

            changes[key] = fitted;
        }

        return changes;
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

    private static void CheckReached(
        Session session, RecordValues saved, Dictionary<string, Value> changes, ImmutableArray<Refusal>.Builder refusals)
    {
        var explainer = new Explainer(session);
        foreach (var key in changes.Where(c => !c.Value.Equals(saved[c.Key])).Select(c => c.Key))
        {
            var element = Element.Field(key);
            var state = session.StateOf(element);
            if (!state.IsVisible)
            {
                var rule = explainer.Decider(element, Facet.Visibility);
                refusals.Add(new(RefusalReason.Hidden, key, $"This field is hidden{By(rule)}, so it cannot be changed.", rule?.Key));
            }
            else if (state.Access == Access.Locked)
            {
                var rule = explainer.Decider(element, Facet.Access);
                refusals.Add(new(RefusalReason.Locked, key, $"This field is locked{By(rule)}, so it cannot be changed.", rule?.Key));
            }
            else if (state.IsSetAside)
            {
                refusals.Add(new(RefusalReason.Unreachable, key,
                    "No form leads from the saved record to this change. Make the change that opens the field and save it first."));
            }
        }
    }

    private void CheckFilledIn(Session session, Requirement least, ImmutableArray<Refusal>.Builder refusals)
    {
        Explainer? explainer = null;
        foreach (var (i, field) in program.Definition.RecordType.Fields.Index())
        {
            var state = session.StateOf(i);
            if (state.Effective >= least && session.ValueOf(i).IsBlank)
            {
                explainer ??= new(session);
                var toSave = state.Effective == Requirement.ToSave;
                var rule = explainer.Decider(Element.Field(field.Key), Facet.Requirement);
                refusals.Add(new(
                    toSave ? RefusalReason.NeededToSave : RefusalReason.NeededToMoveOn,
                    field.Key,
                    $"Needed {(toSave ? "to save" : "to move on")}{By(rule)}. Fill it in.",
                    rule?.Key));
            }
        }
    }

    private static string By((string Key, string Words)? rule) => rule is { } known ? $" by {known.Words}" : "";
}
