using System.Collections.Immutable;
using Dibujo.Core.Evaluation;
using Dibujo.Core.Explanation;
using Dibujo.Core.Forms;
using Dibujo.Core.Programs;
using Dibujo.Core.Records;
using Dibujo.Core.Rules;
using Dibujo.Core.Values;
using Dibujo.Core.Workflows;

namespace Dibujo.Core.Saving;

/// <summary>Decides over submissions. What the sender claims about states counts for nothing: the record is evaluated here.</summary>
/// <param name="program">The rules.</param>
/// <param name="records">Where linked records and persons are found; by default nowhere, and nobody is doubted.</param>
public sealed class Judge(RuleProgram program, IRecordLookup? records = null)
{
    /// <summary>Accepts the submission, or refuses it with all reasons.</summary>
    /// <param name="saved">The record as it is stored; for a new one, its defaults.</param>
    /// <param name="setting">Where the record is, who asks and through which form; the attempted move is taken from the submission.</param>
    /// <param name="submission">What is asked for.</param>
    public Verdict Decide(RecordValues saved, Setting setting, Submission submission)
    {
        var refusals = ImmutableArray.CreateBuilder<Refusal>();
        var move = FindMove(setting, submission.Move, refusals);
        return Decide(new(new Session(program, saved, setting with { Move = move?.Key }, records)), move, submission, refusals);
    }

    /// <summary>The same of a record that is open already, on the form through which the submission comes, and not changed yet.</summary>
    /// <param name="record">The record. It is used for judging: afterwards it is wherever that led to, until it becomes something else.</param>
    /// <param name="submission">What is asked for.</param>
    public Verdict Decide(WholeRecord record, Submission submission)
    {
        var refusals = ImmutableArray.CreateBuilder<Refusal>();
        var move = FindMove(record.AtHand.Setting, submission.Move, refusals);
        if (move is not null)
        {
            record.AtHand.Enter(record.AtHand.Setting with { Move = move.Key });
        }

        return Decide(record, move, submission, refusals);
    }

    private Verdict Decide(WholeRecord record, Move? move, Submission submission, ImmutableArray<Refusal>.Builder refusals)
    {
        var session = record.AtHand;
        var (saved, setting) = (session.Saved, session.Setting);
        if (!session.IsRelevant)
        {
            return new([Closed(session)], saved, setting.Stage);
        }

        var changes = new ChangeCheck(program, session.Form, records, DateOnly.FromDateTime(setting.Now)).Fit(saved, submission, refusals);
        session.Change(changes);
        CheckReached(session, saved, changes, refusals);
        var end = new EndCheck(session, move?.Key, isAtHand: true);
        refusals.AddRange(end.Missing().Concat(end.NotOffered()).Concat(end.Violations()).Concat(end.Stops().Select(stop => stop.Refusal)));
        if (move is not null || changes.Count > 0)
        {
            CheckElsewhere(record, move, refusals);
        }

        var values = move is null ? session.Values() : Enter(move, record, refusals);
        return refusals.Count == 0
            ? new([], values, move?.To ?? setting.Stage)
            : new([.. refusals.DistinctBy(r => (r.Reason, r.Field, r.Field is null ? r.Message : ""))], saved, setting.Stage);
    }

    /// <summary>A form that is hidden is no way to the record.</summary>
    private static Refusal Closed(Session session)
    {
        var rule = new Explainer(session).Decider(Element.Form(session.Form.Key), Facet.Visibility);
        return new(RefusalReason.Hidden, null,
            $"The form “{session.Form.Label}” does not apply to this record now.{EndCheck.Reason(rule)} Use another form.",
            rule?.Key, session.Form.Key);
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
                $"“{move.Label}” is not yours to do. Ask a person with the role {string.Join(" or ", move.Roles.Select(role => type.Roles.FirstOrDefault(r => r.Key == role)?.Label ?? role))}."));
        }

        return move;
    }

    private void CheckReached(
        Session session, RecordValues saved, Dictionary<string, Value> changes, ImmutableArray<Refusal>.Builder refusals)
    {
        // What a rule did to a field in the same way is no change of this person's.
        foreach (var (key, value) in changes.Where(c => !c.Value.Equals(saved[c.Key])))
        {
            var element = Element.Field(key);
            var state = session.StateOf(element);
            if (!state.IsEditable && session[key].Equals(value))
            {
                continue;
            }

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
                var rule = new Explainer(session).Decider(what, facet);
                refusals.Add(new(found.IsVisible ? RefusalReason.Locked : RefusalReason.Hidden, key,
                    $"This {noun} is {(found.IsVisible ? "locked" : "hidden")}, so it cannot be changed.{EndCheck.Reason(rule)}", rule?.Key));
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

    /// <summary>A move needs what every form that applies asks for; a save alone may not make anything worse on another form.</summary>
    private static void CheckElsewhere(WholeRecord record, Move? move, ImmutableArray<Refusal>.Builder refusals)
    {
        foreach (var other in record.Elsewhere())
        {
            var after = new EndCheck(other, move?.Key, isAtHand: false);
            var (missing, notOffered, stops) = (after.Missing().ToList(), after.NotOffered().ToList(), after.Stops().ToList());
            if (missing.Count + notOffered.Count + stops.Count == 0)
            {
                continue;
            }

            // What was said of it after the change has been written down by now.
            var said = stops.ConvertAll(stop => Shortcomings.Said(other, stop.Message));
            var was = Shortcomings.Of(record.AsSaved(other));
            refusals.AddRange(missing.Where(refusal => move is not null || !was.Missing.Contains(refusal.Field)));
            refusals.AddRange(notOffered.Where(refusal => !was.NotOffered.Contains(refusal.Field)));
            refusals.AddRange(stops.Where((_, i) => move is not null || !was.Stops.Contains(said[i])).Select(stop => stop.Refusal));
        }
    }

    /// <summary>The values with what comes into force at the stage entered. Nobody is moved into a stage in which the record cannot be saved.</summary>
    private RecordValues Enter(Move move, WholeRecord record, ImmutableArray<Refusal>.Builder refusals)
    {
        var entered = record.AtHand;
        var before = entered.Setting with { Move = null, IsNew = false };
        var (values, typed) = (entered.Values(), entered.Changes());
        entered.Replace(values, before with { Stage = move.To }, before);
        entered.Take(typed);
        var stage = program.Definition.RecordType.FindStage(move.To)?.Label;
        foreach (var at in record.Elsewhere().Prepend(entered))
        {
            var end = new EndCheck(at, null, isAtHand: at == entered, stage);
            refusals.AddRange(end.Missing());
            refusals.AddRange(end.Stops().Select(stop => stop.Refusal));
            if (at == entered)
            {
                refusals.AddRange(end.NotOffered().Concat(end.Violations()));
            }
        }

        return entered.Values();
    }
}
