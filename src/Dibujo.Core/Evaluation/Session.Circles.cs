using Dibujo.Core.Compilation;
using Dibujo.Core.Values;

namespace Dibujo.Core.Evaluation;

/// <content>Circles: fields whose values depend on each other.</content>
public sealed partial class Session
{
    private readonly bool[] isAdmitted;
    private readonly bool[] isExcluded;

    /// <summary>For each field, whether something has changed on which its value may depend, since it was offered one.</summary>
    private readonly bool[] isStale;

    /// <summary>The circle that is being settled, or was last, and how many of its fields are stale.</summary>
    private int settling = Nobody;
    private int staleCount;

    /// <summary>
    /// Settles a circle so that its values follow from the changes that count in the end, and from no others: a change
    /// that had to be set aside on the way is left out from the start, and the circle settled again.
    /// </summary>
    /// <returns>False if the values go round and round; then no change to the circle's fields counts.</returns>
    private bool SettleCircle(int index)
    {
        var circle = Program.Circles[index];
        settling = index;
        foreach (var field in circle.Fields)
        {
            isExcluded[field] = changes[field] is null;
        }

        while (Admit(circle))
        {
            if (!ExcludeSetAside(circle))
            {
                return true;
            }
        }

        foreach (var field in circle.Fields)
        {
            isExcluded[field] = true;
        }

        if (!Admit(circle))
        {
            KeepSaved(circle);
        }

        return false;
    }

    private bool ExcludeSetAside(Circle circle)
    {
        var excluded = false;
        foreach (var field in circle.Fields)
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
    private bool Admit(Circle circle)
    {
        foreach (var field in circle.Fields)
        {
            isAdmitted[field] = false;
        }

        bool more;
        do
        {
            if (!GoRound(circle))
            {
                return false;
            }

            more = false;
            foreach (var field in circle.Fields)
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

    /// <summary>Applies the circle's rules one after another in list order, and again, until nothing changes.</summary>
    /// <returns>False if a round ends as an earlier one did, since then so will the next, or after a bounded number of rounds.</returns>
    private bool GoRound(Circle circle)
    {
        Start(circle, withAdmitted: true);
        var bound = circle.Readings.Length + circle.Fields.Length + 2;
        Round? earlier = null;
        var next = 4;
        for (var round = 0; round < bound; round++)
        {
            var changed = false;
            foreach (var reading in circle.Readings)
            {
                changed |= PutInForce(reading, FirstCase(reading));
                changed |= Offer(circle);
            }

            changed |= Offer(circle);
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
                earlier = new(circle, this);
                next *= 2;
            }
        }

        return false;
    }

    /// <summary>What a round comes to: the cases in force and the values, from which the next round follows.</summary>
    private sealed class Round(Circle circle, Session session)
    {
        private readonly int[] cases = [.. circle.Readings.Select(reading => session.inForce[reading])];
        private readonly Value[] values = [.. circle.Fields.Select(field => session.values[field])];

        internal bool IsNow(Session session)
        {
            for (var i = 0; i < cases.Length; i++)
            {
                if (session.inForce[circle.Readings[i]] != cases[i])
                {
                    return false;
                }
            }

            for (var i = 0; i < values.Length; i++)
            {
                if (!session.values[circle.Fields[i]].Equals(values[i]))
                {
                    return false;
                }
            }

            return true;
        }
    }

    private bool Offer(Circle circle)
    {
        var changed = false;
        for (var i = 0; staleCount > 0 && i < circle.Fields.Length; i++)
        {
            var field = circle.Fields[i];
            if (!isStale[field])
            {
                continue;
            }

            isStale[field] = false;
            staleCount--;
            var value = Offered(field, Admitted(field));
            changed |= !values[field].Equals(value);
            Put(field, value);
        }

        return changed;
    }

    private void KeepSaved(Circle circle)
    {
        Start(circle, withAdmitted: false);
        foreach (var reading in circle.Readings)
        {
            PutInForce(reading, FirstCase(reading));
        }
    }

    /// <summary>No rule of the circle in force, and saved or admitted values: the same start whatever came before.</summary>
    private void Start(Circle circle, bool withAdmitted)
    {
        foreach (var field in circle.Fields)
        {
            Put(field, (withAdmitted ? Admitted(field) : null) ?? SavedValueOf(field));
            isStale[field] = true;
        }

        staleCount = circle.Fields.Length;

        foreach (var reading in circle.Readings)
        {
            PutInForce(reading, Nobody);
        }
    }

    /// <summary>Notes that something has changed on which the field's value may depend.</summary>
    private void MarkStale(int field)
    {
        pending[Program.CircleOfField[field]] = true;
        if (!isStale[field])
        {
            isStale[field] = true;
            staleCount += Program.CircleOfField[field] == settling ? 1 : 0;
        }
    }

    private Value? Admitted(int field) => isAdmitted[field] ? changes[field] : null;
}
