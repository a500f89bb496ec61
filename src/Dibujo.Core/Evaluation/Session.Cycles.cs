using Dibujo.Core.Programs;
using Dibujo.Core.Values;

namespace Dibujo.Core.Evaluation;

/// <content>Cycles: fields whose values depend on each other.</content>
public sealed partial class Session
{
    private readonly bool[] isAdmitted;
    private readonly bool[] isExcluded;

    /// <summary>For each field, whether something has changed on which its value may depend, since it was offered one.</summary>
    private readonly bool[] isStale;

    /// <summary>For each field of the cycle that is being settled, the value that it is about to get; null where it keeps what it has.</summary>
    private readonly Value?[] offered;

    /// <summary>The cycle that is being settled, or was last, and how many of its fields are stale.</summary>
    private int settling = Nobody;
    private int staleCount;

    /// <summary>
    /// Settles a cycle so that its values follow from the changes that count in the end, and from no others: a change
    /// that had to be set aside on the way is left out from the start, and the cycle settled again.
    /// </summary>
    /// <returns>False if the values go round and round; then no change to the cycle's fields counts.</returns>
    private bool SettleCycle(int index)
    {
        var cycle = Program.Order.Cycles[index];
        settling = index;
        foreach (var field in cycle.Fields)
        {
            isExcluded[field] = changes[field] is null;
        }

        while (Admit(cycle))
        {
            if (!ExcludeSetAside(cycle))
            {
                return true;
            }
        }

        foreach (var field in cycle.Fields)
        {
            isExcluded[field] = true;
        }

        if (!Admit(cycle))
        {
            KeepSaved(cycle);
        }

        return false;
    }

    private bool ExcludeSetAside(Cycle cycle)
    {
        var excluded = false;
        foreach (var field in cycle.Fields)
        {
            // What a rule has done to the field in the same way needs not be set aside.
            if (!isExcluded[field] && IsSetAside(field) && !values[field].Equals(changes[field]))
            {
                excluded = isExcluded[field] = true;
            }
        }

        return excluded;
    }

    /// <summary>
    /// Goes round from the saved values on, admitting changes as their fields come to be visible and open, as they would
    /// be for a person who types them in: so no change counts that no form could have reached.
    /// </summary>
    private bool Admit(Cycle cycle)
    {
        foreach (var field in cycle.Fields)
        {
            isAdmitted[field] = false;
        }

        bool more;
        do
        {
            if (!GoRound(cycle))
            {
                return false;
            }

            more = false;
            foreach (var field in cycle.Fields)
            {
                if (!isExcluded[field] && !isAdmitted[field] && (isTaken[field] || IsOpen(field)))
                {
                    more = isAdmitted[field] = true;
                }
            }
        }
        while (more);
        return true;
    }

    /// <summary>Applies the cycle's rules one after another in list order, and again, until nothing changes.</summary>
    /// <returns>False if a round ends as an earlier one did, since then so will the next, or after a bounded number of rounds.</returns>
    private bool GoRound(Cycle cycle)
    {
        Start(cycle, withAdmitted: true);
        var bound = cycle.Variants.Length + cycle.Fields.Length + 2;
        Round? earlier = null;
        var next = 4;
        for (var round = 0; round < bound; round++)
        {
            var changed = false;
            for (var i = 0; i < cycle.Variants.Length; i++)
            {
                var variant = cycle.Variants[i];
                changed |= PutInForce(variant, FirstCase(variant));
                if (i + 1 == cycle.Variants.Length || variants[cycle.Variants[i + 1]].Rule != variants[variant].Rule)
                {
                    // A rule applies whole: nothing that it does counts before each of its variants has been decided.
                    changed |= Offer(cycle);
                }
            }

            changed |= Offer(cycle);
            if (!changed)
            {
                return true;
            }

            if (earlier?.IsNow(this) == true)
            {
                return false;
            }

            if (round == next)
            {
                // An ever longer way back, so that a turn of any length is found (Brent, BIT 1980).
                earlier = new(cycle, this);
                next *= 2;
            }
        }

        return false;
    }

    /// <summary>What a round comes to: the cases in force and the values, from which the next round follows.</summary>
    private sealed class Round(Cycle cycle, Session session)
    {
        private readonly int[] cases = [.. cycle.Variants.Select(variant => session.inForce[variant])];
        private readonly Value[] values = [.. cycle.Fields.Select(field => session.values[field])];

        internal bool IsNow(Session session)
        {
            for (var i = 0; i < cases.Length; i++)
            {
                if (session.inForce[cycle.Variants[i]] != cases[i])
                {
                    return false;
                }
            }

            for (var i = 0; i < values.Length; i++)
            {
                if (!session.values[cycle.Fields[i]].Equals(values[i]))
                {
                    return false;
                }
            }

            return true;
        }
    }

    /// <summary>Gives every stale field its value, all by what the fields held before: none of them sees what another just got.</summary>
    private bool Offer(Cycle cycle)
    {
        if (staleCount == 0)
        {
            return false;
        }

        foreach (var field in cycle.Fields)
        {
            offered[field] = isStale[field] ? Offered(field, Admitted(field)) : null;
            isStale[field] = false;
        }

        staleCount = 0;
        var changed = false;
        foreach (var field in cycle.Fields)
        {
            if (offered[field] is { } value)
            {
                changed |= !values[field].Equals(value);
                Put(field, value);
            }
        }

        return changed;
    }

    private void KeepSaved(Cycle cycle)
    {
        Start(cycle, withAdmitted: false);
        foreach (var variant in cycle.Variants)
        {
            PutInForce(variant, FirstCase(variant));
        }
    }

    /// <summary>No rule of the cycle in force, and saved or admitted values: the same start whatever came before.</summary>
    private void Start(Cycle cycle, bool withAdmitted)
    {
        foreach (var field in cycle.Fields)
        {
            Put(field, (withAdmitted ? Admitted(field) : null) ?? SavedValueOf(field));
            isStale[field] = true;
        }

        staleCount = cycle.Fields.Length;

        foreach (var variant in cycle.Variants)
        {
            PutInForce(variant, Nobody);
        }
    }

    /// <summary>Notes that something has changed on which the field's value may depend.</summary>
    private void MarkStale(int field)
    {
        pending[Program.Order.CycleOfField[field]] = true;
        if (!isStale[field])
        {
            isStale[field] = true;
            staleCount += Program.Order.CycleOfField[field] == settling ? 1 : 0;
        }
    }

    private Value? Admitted(int field) => isAdmitted[field] ? changes[field] : null;
}
