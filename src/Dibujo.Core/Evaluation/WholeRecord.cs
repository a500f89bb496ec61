using Dibujo.Core.Forms;

namespace Dibujo.Core.Evaluation;

/// <summary>
/// One record as all its forms show it: the form at hand, which is worked on, and the others, each under the rules that
/// apply there, with the values as they would be if the record were saved now.
/// </summary>
/// <remarks>A move is judged over all of it. Follows the session at hand by itself; costs nothing where there is one form.</remarks>
public sealed class WholeRecord(Session atHand)
{
    private readonly Dictionary<string, Session> others = new(StringComparer.Ordinal);

    /// <summary>The record on the form at hand.</summary>
    public Session AtHand => atHand;

    /// <summary>The forms that apply to the record now, in the record type's order; the form at hand is always among them.</summary>
    public IEnumerable<Form> RelevantForms()
    {
        var relevant = Elsewhere().Select(other => other.Form).Append(atHand.Form).ToHashSet(ReferenceEqualityComparer.Instance);
        return atHand.Program.Definition.RecordType.Forms.Where(relevant.Contains);
    }

    /// <summary>What is asked for and not filled in on any form that applies: each field once, at the form at hand where it is asked for there.</summary>
    public IEnumerable<MissingField> Missing() =>
        atHand.Missing().Concat(Elsewhere().SelectMany(other => other.Missing())).DistinctBy(missing => missing.Field);

    /// <summary>The messages on the form at hand, and those that stop something on other forms and are not said here.</summary>
    public IEnumerable<SaidMessage> Messages() => atHand.Messages()
        .Concat(Elsewhere().SelectMany(other => other.Messages()).Where(message => message.Stops))
        .DistinctBy(message => (message.Rule, message.Text, message.At));

    /// <summary>Has linked records looked up again: see <see cref="Session.LookUpAgain"/>, which the session at hand needs as well.</summary>
    public void LookUpAgain() => others.Clear();

    /// <summary>The other forms that apply to the record now, each as a session that is up to date.</summary>
    internal IEnumerable<Session> Elsewhere() => atHand.Program.Definition.RecordType.Forms
        .Where(form => form != atHand.Form).Select(At).Where(other => other.IsRelevant);

    private Session At(Form form)
    {
        if (!others.TryGetValue(form.Key, out var other))
        {
            others[form.Key] = other = atHand.At(form.Key);
        }

        var setting = atHand.Setting with { Form = form.Key };
        if (other.Setting != setting)
        {
            other.Enter(setting);
        }

        other.TakeFrom(atHand);
        return other;
    }
}
