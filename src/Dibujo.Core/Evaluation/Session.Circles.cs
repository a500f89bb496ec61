using Dibujo.Core.Compilation;
using Dibujo.Core.Values;

namespace Dibujo.Core.Evaluation;

/// <content>Circles: fields whose values depend on each other.</content>
public sealed partial class Session
{
    private readonly bool[] isAdmitted;
    private readonly bool[] isExcluded;

    /// <summary>
    /// Settles a circle so that its values follow from the changes that count in the end, and from no others: a change
    /// that had to be set aside on the way is left out from the start, and the circle settled again.
    /// </summary>
    /// <returns>False if the values go round and round; then no change to the circle's fields counts.</returns>
    private bool SettleCircle(Circle circle)
    {
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
            if (!isExcluded[field] && IsSetAside(field))
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
                if (!isExcluded[field] && !isAdmitted[field] && IsOpen(field))
                {
                    more = isAdmitted[field] = true;
                }
            }
        }
        while (more);
        return true;
    }

    /// <summary>Applies the circle's rules one after another in list order, and again, until nothing changes.</summary>
    private bool GoRound(Circle circle)
    {
        Start(circle, withAdmitted: true);
        var bound = circle.Readings.Length + circle.Fields.Length + 2;
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
        }

        return false;
    }

    private bool Offer(Circle circle)
    {
        var changed = false;
        foreach (var field in circle.Fields)
        {
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
        }

        foreach (var reading in circle.Readings)
        {
            PutInForce(reading, Nobody);
        }
    }

    private Value? Admitted(int field) => isAdmitted[field] ? changes[field] : null;
}
