using Dibujo.Core.Compilation;
using Dibujo.Core.Values;

namespace Dibujo.Core.Evaluation;

/// <content>Circles: fields whose values depend on each other.</content>
public sealed partial class Session
{
    private readonly bool[] isAdmitted;

    /// <summary>
    /// Settles a circle from the saved values on: changes are admitted as their fields come to be visible and open, as
    /// they would be for a person who types them in; so no change counts that no form could have reached.
    /// </summary>
    /// <returns>False if the values go round and round; then the fields keep their saved values.</returns>
    private bool SettleCircle(Circle circle)
    {
        foreach (var field in circle.Fields)
        {
            isAdmitted[field] = false;
        }

        do
        {
            if (!GoRound(circle))
            {
                KeepSaved(circle);
                return false;
            }
        }
        while (AdmitMore(circle));
        return true;
    }

    private bool AdmitMore(Circle circle)
    {
        var more = false;
        foreach (var field in circle.Fields)
        {
            if (changes[field] is not null && !isAdmitted[field] && IsOpen(field))
            {
                more = isAdmitted[field] = true;
            }
        }

        return more;
    }

    /// <summary>Applies the circle's rules one after another in list order, and again, until nothing changes.</summary>
    private bool GoRound(Circle circle)
    {
        StartFrom(circle, field => isAdmitted[field] ? changes[field]! : saved[field]);
        var bound = circle.Readings.Length + circle.Fields.Length + 2;
        for (var round = 0; round < bound; round++)
        {
            var changed = false;
            foreach (var reading in circle.Readings)
            {
                changed |= PutInForce(reading, FirstCase(reading));
                foreach (var field in circle.Fields)
                {
                    var value = Offered(field, isAdmitted[field] ? changes[field] : null);
                    changed |= !live[field].Equals(value);
                    SetLive(field, value);
                }
            }

            if (!changed)
            {
                return true;
            }
        }

        return false;
    }

    private void KeepSaved(Circle circle)
    {
        StartFrom(circle, field => saved[field]);
        foreach (var reading in circle.Readings)
        {
            PutInForce(reading, FirstCase(reading));
        }
    }

    /// <summary>No rule of the circle in force, and these values: the same start whatever came before.</summary>
    private void StartFrom(Circle circle, Func<int, Value> value)
    {
        foreach (var field in circle.Fields)
        {
            SetLive(field, value(field));
        }

        foreach (var reading in circle.Readings)
        {
            PutInForce(reading, Nobody);
        }
    }
}
