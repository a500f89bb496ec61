using Dibujo.Core.Values;

namespace Dibujo.Core.Evaluation;

/// <content>Values that stand already, whatever the form at hand lets a person do.</content>
public sealed partial class Session
{
    /// <summary>For each field whether its change was made elsewhere, so that it counts here though the field may be hidden, locked or not on the form.</summary>
    private readonly bool[] isTaken;

    /// <summary>
    /// Takes over every value that the record has at another form, as typed there or given there by rules. What is saved
    /// stays what was saved, so that what has changed is the same at both.
    /// </summary>
    internal void TakeFrom(Session other)
    {
        reporter.Begin();
        for (var field = 0; field < changes.Length; field++)
        {
            Take(field, other.values[field]);
        }

        Settle();
        reporter.Report();
    }

    /// <summary>Takes what a person typed for standing, though the fields may be closed by now; it beats what rules would set.</summary>
    internal void Take(IReadOnlyDictionary<string, Value> typed)
    {
        reporter.Begin();
        foreach (var (key, value) in typed)
        {
            Take(Program.Fields[key], value);
        }

        Settle();
        reporter.Report();
    }

    private void Take(int field, Value value)
    {
        var change = value.Equals(SavedValueOf(field)) && !effects.IsGiven[field] ? null : value;
        if (isTaken[field] == change is not null && Equals(changes[field], change))
        {
            return;
        }

        changes[field] = change;
        isTaken[field] = change is not null;
        pending[Program.Order.CycleOfField[field]] = true;
        reporter.Touch(field);
    }
}
