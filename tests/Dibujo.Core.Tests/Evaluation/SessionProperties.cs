using System.Collections.Immutable;
using CsCheck;
using Dibujo.Core.Evaluation;
using Dibujo.Core.Forms;
using Dibujo.Core.Listing;
using Dibujo.Core.Saving;
using Dibujo.Core.Values;

namespace Dibujo.Core.Tests.Evaluation;

/// <summary>What holds for every definition, record and sequence of edits.</summary>
public class SessionProperties
{
    private static readonly int Worlds = Tries.Of("DIBUJO_WORLDS", 500);

    /// <summary>How many sessions have been opened on a thread.</summary>
    private static readonly ThreadLocal<int> Opened = new();

    static SessionProperties() => Session.Opened += _ => Opened.Value++;

    [Fact]
    public void A_session_agrees_with_the_plain_reading_of_the_model() => Gen.UInt.Sample(seed =>
    {
        var chance = new Chance(seed) { HasPartEffects = false };
        var definition = chance.Definition();
        var program = Chance.Compile(definition);
        if (program.Order.Cycles.Any(c => c.IsTrue))
        {
            return;
        }

        var saved = chance.Record();
        var session = new Session(program, saved, chance.Setting(), chance);
        var edits = chance.Edits();
        foreach (var (field, value) in edits)
        {
            session.Change(field, value);
        }

        var changes = edits.GroupBy(e => e.Key).ToDictionary(g => g.Key, g => g.Last().Value);
        var expected = new Oracle(definition, saved, changes, session.Setting, chance).States();
        foreach (var (field, (visible, access, requirement, value)) in expected)
        {
            var state = session.StateOf(Element.Field(field));
            Assert.Equal((visible, access, requirement, value), (state.IsVisible, state.Access, state.Requirement, session[field]));
        }
    }, iter: Worlds);

    [Fact]
    public void Rules_of_a_circle_are_applied_whole_one_after_another() => Gen.UInt.Sample(seed =>
    {
        var chance = new Chance(seed) { HasPartEffects = false };
        var definition = chance.Definition();
        var program = Chance.Compile(definition);
        if (!program.Order.Cycles.Any(c => c.IsTrue))
        {
            return;
        }

        var saved = chance.Record();
        var session = new Session(program, saved, chance.Setting(), chance);
        var oracle = new Oracle(definition, saved, new Dictionary<string, Value>(StringComparer.Ordinal), session.Setting, chance, Circles.Of(program));

        Assert.Equal(oracle.IsSettled, session.IsSettled);
        foreach (var (field, (visible, access, requirement, value)) in session.IsSettled ? oracle.States() : [])
        {
            var state = session.StateOf(Element.Field(field));
            Assert.Equal((visible, access, requirement, value), (state.IsVisible, state.Access, state.Requirement, session[field]));
        }
    }, iter: Worlds);

    [Fact]
    public void Incremental_equals_from_scratch_and_deltas_tell_all() => Gen.UInt.Sample(seed =>
    {
        var chance = new Chance(seed);
        var program = Chance.Compile(chance.Definition());
        var saved = chance.Record();
        var session = new Session(program, saved, chance.Setting(), chance);
        var told = States(session);
        var toldValues = Values(session);
        var changes = new Dictionary<string, Value>(StringComparer.Ordinal);
        for (var step = 0; step < 5; step++)
        {
            var edits = chance.Edits(most: 2);
            edits.ForEach(e => changes[e.Key] = e.Value);
            Follow(session.Change(edits));
            if (step == 2)
            {
                Follow(session.Enter(chance.Setting()));
            }

            var anew = new Session(program, saved, session.Setting, chance);
            anew.Change(changes);
            Assert.Equal(States(anew), States(session));
            Assert.Equal(Values(anew), Values(session));
            Assert.Equal(told, States(session));
            Assert.Equal(toldValues, Values(session));
        }

        void Follow(Delta delta)
        {
            foreach (var element in delta.Elements)
            {
                told[element] = session.StateOf(element);
            }

            foreach (var field in delta.Values)
            {
                toldValues[field] = session.ValueOf(field);
            }
        }
    }, iter: Worlds);

    [Fact]
    public void The_order_of_edits_does_not_matter() => Gen.UInt.Sample(seed =>
    {
        var chance = new Chance(seed);
        var program = Chance.Compile(chance.Definition());
        var saved = chance.Record();
        var setting = chance.Setting();
        var edits = chance.Edits().DistinctBy(e => e.Key).ToList();
        var one = new Session(program, saved, setting, chance);
        edits.ForEach(e => one.Change(e.Key, e.Value));
        chance.Shuffle(edits);
        var other = new Session(program, saved, setting, chance);
        edits.ForEach(e => other.Change(e.Key, e.Value));

        Assert.Equal(States(one), States(other));
        Assert.Equal(Values(one), Values(other));
    }, iter: Worlds);

    [Fact]
    public void What_the_live_form_lets_a_person_save_the_server_accepts_and_nothing_else() => Gen.UInt.Sample(seed =>
    {
        var chance = new Chance(seed);
        var (session, saved) = Edited(chance);
        var isComplete = !session.Missing().Any(m => m.IsNeededFor(null))
            && !session.Messages().Any(m => m.Severity == Core.Rules.Severity.StopsSaving)
            && !session.Program.Definition.RecordType.Fields.Index().Any(f => IsAmiss(session, f.Index, f.Item));

        var verdict = new Judge(session.Program, chance).Decide(saved, session.Setting, new(session.Changes().ToImmutableDictionary()));

        if (!session.IsRelevant || verdict.Refusals.Any(r => r.Reason == RefusalReason.Hidden && r.Field is null))
        {
            Assert.False(verdict.IsAccepted);
            return;
        }

        Assert.Equal(isComplete, !verdict.Refusals.Any(r => r.Form is null));
        Assert.DoesNotContain(verdict.Refusals, r => r.Reason is RefusalReason.Hidden or RefusalReason.Locked or RefusalReason.Unreachable);
        if (verdict.IsAccepted)
        {
            Assert.Equal(session.Values(), verdict.Values);
        }
    }, iter: Worlds);

    [Fact]
    public void What_the_live_form_sets_aside_the_server_refuses() => Gen.UInt.Sample(seed =>
    {
        var chance = new Chance(seed);
        var (session, saved) = Edited(chance);
        var fields = session.Program.Definition.RecordType.Fields;
        var edits = chance.Edits().DistinctBy(e => e.Key).Where(e => session.Program.IsOnForm(e.Key, session.Setting.Form)).ToImmutableDictionary();
        session = new(session.Program, saved, session.Setting, chance);
        session.Change(edits);
        // Where a field stays as it is saved there is nothing to refuse, nor where a rule did the same to it.
        var setAside = fields.Index().Where(f => session.StateOf(f.Index).IsSetAside && !edits[f.Item.Key].Equals(saved[f.Item.Key])
                && (session.StateOf(f.Index).IsEditable || !session.ValueOf(f.Index).Equals(edits[f.Item.Key])))
            .Select(f => f.Item.Key).ToHashSet();

        var verdict = new Judge(session.Program, chance).Decide(saved, session.Setting, new(edits));

        if (verdict.Refusals.Any(r => r.Reason == RefusalReason.Hidden && r.Field is null))
        {
            return;
        }

        Assert.Equal(setAside, verdict.Refusals.Where(r => r.Reason is RefusalReason.Hidden or RefusalReason.Locked or RefusalReason.Unreachable)
            .Select(r => r.Field!).ToHashSet());
    }, iter: Worlds);

    [Fact]
    public void A_save_never_changes_what_is_hidden_or_locked_except_by_a_rules_own_effect() => Gen.UInt.Sample(seed =>
    {
        var (session, saved) = Edited(new(seed) { HasPartEffects = false });
        foreach (var (i, field) in session.Program.Definition.RecordType.Fields.Index())
        {
            if (!session.StateOf(i).IsEditable && session.ValueClaim(i) is null)
            {
                var value = session.ValueOf(i);
                Assert.True(value.Equals(saved[field.Key]) || value.IsBlank || value.Equals(field.Default?.In(session.Setting, field.Type)), field.Key);
            }
        }
    }, iter: Worlds);

    [Fact]
    public void What_the_pages_say_of_a_move_is_what_the_server_says() => Gen.UInt.Sample(seed =>
    {
        var chance = new Chance(seed);
        var (session, saved) = Edited(chance);
        session.Enter(session.Setting with { Move = "on" });
        var whole = new WholeRecord(session);
        var missing = whole.Missing().Where(m => m.IsNeededFor("on")).Select(m => m.Field).ToHashSet();
        var stopped = whole.Messages().Where(m => m.Stops).Select(m => m.Text).ToHashSet();

        var verdict = new Judge(session.Program, chance).Decide(saved, session.Setting, new(session.Changes().ToImmutableDictionary(), "on"));

        if (session.Setting.Stage != "first" || verdict.Refusals.Any(r => r.Reason == RefusalReason.Hidden && r.Field is null))
        {
            return;
        }

        // The stage that is entered may ask for more, which the server says with its name.
        var here = verdict.Refusals.Where(r => !r.Message.Contains("at the stage", StringComparison.OrdinalIgnoreCase)).ToList();
        Assert.Subset(missing, here.Where(r => r.Reason is RefusalReason.NeededToSave or RefusalReason.NeededToMoveOn).Select(r => r.Field!).ToHashSet());
        Assert.Subset(verdict.Refusals.Where(r => r.Reason is RefusalReason.NeededToSave or RefusalReason.NeededToMoveOn).Select(r => r.Field!).ToHashSet(), missing);
        Assert.Subset(verdict.Refusals.Select(r => r.Message).ToHashSet(), stopped);
    }, iter: Worlds);

    [Fact]
    public void Another_form_sees_the_record_as_if_it_had_been_opened_after_the_typing() => Gen.UInt.Sample(seed =>
    {
        var chance = new Chance(seed) { HasValueEffects = false };
        var (session, _) = Edited(chance);
        var whole = new WholeRecord(session);
        _ = whole.Missing().ToList();
        var edits = chance.Edits();
        session.Change(edits);

        Assert.Equal(whole.Missing().Select(m => (m.Field, m.Form)), new WholeRecord(session).Missing().Select(m => (m.Field, m.Form)));
        Assert.Equal(whole.RelevantForms(), new WholeRecord(session).RelevantForms());
    }, iter: Worlds);

    [Fact]
    public void A_record_is_opened_once_for_each_form_to_be_judged_stored_and_shown_and_is_like_one_that_is_opened_anew() => Gen.UInt.Sample(seed =>
    {
        var chance = new Chance(seed);
        var (session, saved) = Edited(chance);
        var (program, setting) = (session.Program, session.Setting);
        var submission = new Submission(chance.Edits().DistinctBy(e => e.Key).ToImmutableDictionary(), seed % 3 == 0 ? "on" : null);
        var before = Opened.Value;

        var record = new WholeRecord(new Session(program, saved, setting, chance));
        var verdict = new Judge(program, chance).Decide(record, submission);
        var standing = Standing.Of(record, verdict.Values, setting);
        record.Become(verdict.Values, setting with { Stage = verdict.Stage });
        var forms = record.RelevantForms().ToList();

        var opened = Opened.Value - before;
        var alone = new Judge(program, chance).Decide(saved, setting, submission);
        var anew = new Session(program, verdict.Values, setting with { Stage = verdict.Stage }, chance);
        Assert.Equal(alone.Refusals.ToList(), verdict.Refusals.ToList());
        Assert.Equal(alone.Values, verdict.Values);
        Assert.Equal(States(anew), States(record.AtHand));
        Assert.Equal(Values(anew), Values(record.AtHand));
        Assert.Equal(new WholeRecord(anew).RelevantForms(), forms);
        Assert.Equal(Standing.Of(program, verdict.Values, setting, chance), standing);
        Assert.True(opened <= program.Definition.RecordType.Forms.Length, $"{opened} were opened");
    }, iter: Worlds);

    [Fact]
    public void Evaluating_again_changes_nothing() => Gen.UInt.Sample(seed =>
    {
        var (session, _) = Edited(new(seed));
        var states = States(session);
        var values = Values(session);

        foreach (var delta in new[] { session.Enter(session.Setting), session.LookUpAgain() })
        {
            Assert.Empty(delta.Elements);
            Assert.Empty(delta.Values);
        }

        session.EvaluateAnew();
        Assert.Equal(states, States(session));
        Assert.Equal(values, Values(session));
    }, iter: Worlds);

    private static bool IsAmiss(Session session, int field, Core.Records.Field what)
    {
        var keys = session.ValueOf(field) switch
        {
            Choice choice => [choice.Key],
            Choices choices => choices.Keys,
            _ => [],
        };
        return (session.ValueClaim(field) is not null && what.Type.Violation(session.ValueOf(field)) is not null)
            || (session.StateOf(field).IsEditable && session.Offers(field) is { } offers && !keys.All(key => offers.Contains(key)));
    }

    private static (Session Session, RecordValues Saved) Edited(Chance chance)
    {
        var program = Chance.Compile(chance.Definition());
        var saved = chance.Record();
        var session = new Session(program, saved, chance.Setting() with { Move = null }, chance);
        session.Change(chance.Edits());
        return (session, saved);
    }

    private static ElementState[] States(Session session) =>
        [.. Enumerable.Range(0, session.Program.ElementCount).Select(session.StateOf)];

    private static Value[] Values(Session session) =>
        [.. Enumerable.Range(0, session.Program.Definition.RecordType.Fields.Length).Select(session.ValueOf)];
}
