using Dibujo.Core.Programs;
using Dibujo.Core.Records;
using Dibujo.Core.Values;

namespace Dibujo.Core.Evaluation;

/// <content>From saved values and changes to the values that the form has.</content>
public sealed partial class Session
{
    /// <summary>Evaluates the saved values without the changes, to know what was in force then, and then everything as it is now.</summary>
    private void Begin(Setting? before)
    {
        Array.Fill(inForceWhenSaved, Nobody);
        givesValues = false;
        if (effects.HasSets && !Setting.IsNew)
        {
            var held = (Value?[])changes.Clone();
            Array.Clear(changes);
            SettleEverything(before ?? (Setting with { Move = null }));
            held.CopyTo(changes, 0);
            Array.Copy(inForce, inForceWhenSaved, inForce.Length);
        }

        givesValues = true;
        SettleEverything(Setting);
    }

    private void SettleEverything(Setting setting)
    {
        values.Restore();
        values.Enter(setting, values.Put);
        for (var slot = slots.FirstDerived; slot < slots.Count; slot++)
        {
            values.Put(slot, values.Derived(slot));
        }

        for (var slot = 0; slot < clauses.Dispatches.Length; slot++)
        {
            clauses.Dispatches[slot]?.Decide(in values.OperandOf(slot), truth.AsSpan(clauses.FirstOfDispatch[slot]));
        }

        for (var clause = clauses.FirstSingle; clause < groups.First; clause++)
        {
            truth[clause] = evaluator.Holds(clause);
        }

        DecideGroups();

        for (var variant = 0; variant < inForce.Length; variant++)
        {
            inForce[variant] = FirstCase(variant);
        }

        isContested = false;

        // Where nobody changed a value and no rule gives another it is the saved one.
        Program.Order.IsGivenValues.CopyTo(pending, 0);
        for (var field = 0; field < changes.Length; field++)
        {
            if (changes[field] is not null)
            {
                pending[Program.Order.CycleOfField[field]] = true;
            }
        }

        Array.Clear(unsettled);
        Settle();
    }

    private void ReadSetting(Setting setting)
    {
        values.Enter(setting, Put);
        // The order of stages may be another one, though the stage is the same.
        Reconsider(slots.Of(SettingSlot.Stage));
    }

    /// <summary>Brings the values of every cycle up to date that something has touched, in dependency order.</summary>
    private void Settle()
    {
        TryVariants();
        for (var i = 0; i < pending.Length; i++)
        {
            if (!pending[i])
            {
                continue;
            }

            if (Program.Order.Cycles[i] is { IsTrue: false, Fields: [var field, ..] })
            {
                Put(field, Offered(field, changes[field]));
            }
            else
            {
                unsettled[i] = !SettleCycle(i);
            }

            TryVariants();
            pending[i] = false;
        }
    }

    private void Put(int slot, Value value)
    {
        if (values[slot].Equals(value))
        {
            return;
        }

        values.Put(slot, value);
        if (slot < layout.FieldCount)
        {
            reporter.Touch(slot);
        }

        Reconsider(slot);
    }

    /// <summary>Computes what follows from a slot, decides the clauses on it anew, and queues the variants for which that makes a difference.</summary>
    private void Reconsider(int slot)
    {
        foreach (var following in slots.Following[slot])
        {
            Put(following, values.Derived(following));
        }

        foreach (var field in effects.FieldsOfSlot[slot])
        {
            MarkStale(field);
        }

        if (clauses.Dispatches[slot] is { } dispatch)
        {
            dispatch.Decide(in values.OperandOf(slot), decided);
            var first = clauses.FirstOfDispatch[slot];
            for (var i = 0; i < dispatch.Count; i++)
            {
                Note(first + i, decided[i]);
            }
        }

        foreach (var clause in clauses.SinglesOfSlot[slot])
        {
            Note(clause, evaluator.Holds(clause));
        }
    }
}
