using Dibujo.Core.Forms;
using Dibujo.Core.Programs;
using Dibujo.Core.Records;
using Dibujo.Core.Values;

namespace Dibujo.Core.Evaluation;

/// <summary>
/// One record as all its forms show it: the form at hand, which is worked on, and the others, each under the rules that
/// apply there, with the values as they would be if the record were saved now.
/// </summary>
/// <remarks>
/// A move is judged over all of it. Follows the session at hand by itself; costs nothing where there is one form. A session is opened
/// once for each form that is asked for, and serves for all that the record becomes.
/// </remarks>
public sealed class WholeRecord
{
    private readonly Dictionary<string, Session> others = new(StringComparer.Ordinal);

    /// <summary>The record as it is worked on in that session, which may go from form to form.</summary>
    public WholeRecord(Session atHand) => AtHand = atHand;

    /// <summary>The record on the form at hand.</summary>
    public Session AtHand { get; private set; }

    private IEnumerable<Form> Others => AtHand.Program.Definition.RecordType.Forms.Where(form => form != AtHand.Form);

    /// <summary>The record open on the first form that applies to it; where none does, on the main form, which then refuses.</summary>
    /// <param name="program">The rules.</param>
    /// <param name="saved">The record as it is stored; for a new one, its defaults.</param>
    /// <param name="setting">Where it is and who looks at it.</param>
    /// <param name="records">Where linked records are found; by default nowhere.</param>
    public static WholeRecord OnFirstThatApplies(RuleProgram program, RecordValues saved, Setting setting, IRecordLookup? records = null)
    {
        var forms = program.Definition.RecordType.Forms;
        var record = new WholeRecord(new Session(program, saved, setting with { Form = forms[0].Key }, records));
        record.GoToFirstThatApplies();
        return record;
    }

    /// <summary>The forms that apply to the record now, in the record type's order; the form at hand is always among them.</summary>
    public IEnumerable<Form> RelevantForms()
    {
        var relevant = Elsewhere().Select(other => other.Form).Append(AtHand.Form).ToHashSet(ReferenceEqualityComparer.Instance);
        return AtHand.Program.Definition.RecordType.Forms.Where(relevant.Contains);
    }

    /// <summary>What is asked for and not filled in on any form that applies: each field once, at the form at hand where it is asked for there.</summary>
    public IEnumerable<MissingField> Missing() =>
        AtHand.Missing().Concat(Elsewhere().SelectMany(other => other.Missing())).DistinctBy(missing => missing.Field);

    /// <summary>The messages on the form at hand, and those that stop something on other forms and are not said here.</summary>
    public IEnumerable<SaidMessage> Messages() => AtHand.Messages()
        .Concat(Elsewhere().SelectMany(other => other.Messages()).Where(message => message.Stops))
        .DistinctBy(message => (message.Rule, message.Text, message.At));

    /// <summary>Has linked records looked up again: see <see cref="Session.LookUpAgain"/>, which the session at hand needs as well.</summary>
    public void LookUpAgain() => others.Clear();

    /// <summary>Makes it the record as it has been saved, without a change, as somebody sees it on the form that the setting names.</summary>
    public void Become(RecordValues saved, Setting setting)
    {
        var form = AtHand.Program.FindDoor(setting.Form)!.Form;
        if (form != AtHand.Form)
        {
            var next = others.Remove(form.Key, out var known) ? known : AtHand.At(form.Key);
            others[AtHand.Form.Key] = AtHand;
            AtHand = next;
        }

        AtHand.Replace(saved, setting);
    }

    /// <summary>Where the form at hand does not apply, goes to the first that does; where none does, to the main form. Changes are not taken along.</summary>
    public void GoToFirstThatApplies()
    {
        var (saved, setting) = (AtHand.Saved, AtHand.Setting);
        var forms = AtHand.Program.Definition.RecordType.Forms;
        for (var i = 0; !AtHand.IsRelevant && i < forms.Length; i++)
        {
            Become(saved, setting with { Form = forms[i].Key });
        }

        if (!AtHand.IsRelevant)
        {
            Become(saved, setting with { Form = forms[0].Key });
        }
    }

    /// <summary>The other forms that apply to the record now, each as a session that is up to date.</summary>
    internal IEnumerable<Session> Elsewhere() => Others.Select(form =>
    {
        var other = OpenedAt(form);
        other.TakeFrom(AtHand);
        return other;
    }).Where(other => other.IsRelevant);

    /// <summary>One of the other forms with the record as it is saved, without any change or move, until it is asked for again.</summary>
    internal Session AsSaved(Session other)
    {
        other.Replace(AtHand.Saved, other.Setting with { Move = null });
        return other;
    }

    private Session OpenedAt(Form form)
    {
        if (!others.TryGetValue(form.Key, out var other))
        {
            return others[form.Key] = AtHand.At(form.Key);
        }

        var setting = AtHand.Setting with { Form = form.Key };
        if (!ReferenceEquals(other.Saved, AtHand.Saved))
        {
            other.Replace(AtHand.Saved, setting);
        }
        else if (other.Setting != setting)
        {
            other.Enter(setting);
        }

        return other;
    }
}
