using System.Collections.Immutable;
using Dibujo.Core.Evaluation;
using Dibujo.Core.Forms;
using Dibujo.Core.Records;
using Dibujo.Core.Values;
using Dibujo.Server.RecordTypes;
using Dibujo.Server.Writing;
using Dibujo.Store.Records;

namespace Dibujo.Server.Records;

/// <summary>A record for the person who asks.</summary>
/// <param name="Id">Its number; 0 for one that is not stored yet.</param>
/// <param name="RecordType">Key of its record type.</param>
/// <param name="Form">Key of the form on which it is shown.</param>
/// <param name="Forms">Keys of the forms that apply to it now.</param>
/// <param name="Edition">Number of the edition under which it is shown.</param>
/// <param name="Version">To be sent back with the next save.</param>
/// <param name="Values">Its saved values; for a new record, its defaults.</param>
/// <param name="Setting">Where it is and who looks at it.</param>
/// <param name="Linked">The records to which its links lead.</param>
/// <param name="States">The states of the elements by the server's own evaluation, until the browser's engine has loaded.</param>
/// <param name="ChangedAt">When it was last saved, in UTC.</param>
/// <param name="ChangedBy">Who saved it last.</param>
internal sealed record RecordView(
    int Id,
    string RecordType,
    string Form,
    ImmutableArray<string> Forms,
    int Edition,
    int Version,
    IReadOnlyDictionary<string, Value> Values,
    Setting Setting,
    ImmutableArray<LinkedRecord> Linked,
    ImmutableArray<StateView> States,
    DateTime? ChangedAt,
    string? ChangedBy)
{
    /// <summary>A record that is stored, as it is open.</summary>
    internal static RecordView Of(StoredRecord record, Edition edition, WholeRecord open, RecordLookup lookup) =>
        Of(edition, open, record.Id, record.Version, lookup, record.ChangedAt, record.ChangedBy);

    /// <summary>
    /// A record that has just been saved: on the form through which it was, or where that applies no longer on the first
    /// that does.
    /// </summary>
    /// <param name="write">What was stored.</param>
    /// <param name="setting">Where the record is now, for the person who saved it.</param>
    /// <param name="lookup">Linked records.</param>
    internal static RecordView After(JudgedWrite write, Setting setting, RecordLookup lookup)
    {
        write.Open.Become(write.Record.Values.FittedTo(write.Edition.Definition.RecordType), setting with { Form = write.Through.Form });
        write.Open.GoToFirstThatApplies();
        return Of(write.Record, write.Edition, write.Open, lookup);
    }

    /// <summary>A record that is about to be begun.</summary>
    internal static RecordView New(Edition edition, WholeRecord open, RecordLookup lookup) => Of(edition, open, 0, 0, lookup, null, null);

    private static RecordView Of(Edition edition, WholeRecord open, int id, int version, RecordLookup lookup, DateTime? at, string? by)
    {
        var session = open.AtHand;
        var (type, values) = (edition.Definition.RecordType, session.Saved);
        return new(
            id, type.Key, session.Form.Key, [.. open.RelevantForms().Select(form => form.Key)],
            edition.Number, version, values.ByField, session.Setting, lookup.From(type, values),
            [
                .. from number in Enumerable.Range(0, edition.Program.ElementCount)
                   let element = edition.Program.ElementAt(number)
                   where session.NumberOf(element) == number
                   select new StateView(element, session.StateOf(number).Bits),
            ],
            at, by);
    }
}

/// <summary>An element's state as bits, see <see cref="ElementState.Bits"/>.</summary>
internal sealed record StateView(Element Element, int Bits);
