using System.Collections.Immutable;
using Dibujo.Core.Evaluation;
using Dibujo.Core.Forms;
using Dibujo.Core.Values;
using Dibujo.Server.RecordTypes;
using Dibujo.Store.Records;

namespace Dibujo.Server.Records;

/// <summary>A record for the person who asks.</summary>
/// <param name="Id">Its number; 0 for one that is not stored yet.</param>
/// <param name="RecordType">Key of its record type.</param>
/// <param name="Edition">Number of the edition under which it is shown.</param>
/// <param name="Version">To be sent back with the next save.</param>
/// <param name="Values">Its saved values.</param>
/// <param name="Setting">Where it is and who looks at it.</param>
/// <param name="States">The states of the elements by the server's own evaluation, until the browser's engine has loaded.</param>
/// <param name="ChangedAt">When it was last saved, in UTC.</param>
/// <param name="ChangedBy">Who saved it last.</param>
internal sealed record RecordView(
    int Id,
    string RecordType,
    int Edition,
    int Version,
    ImmutableDictionary<string, Value> Values,
    Setting Setting,
    ImmutableArray<StateView> States,
    DateTime? ChangedAt,
    string? ChangedBy)
{
    internal static RecordView Of(StoredRecord record, Edition edition, ImmutableArray<string> roles) => Of(
        edition, record.Id, record.RecordType, record.Version, record.Values.FittedTo(edition.Definition.RecordType),
        new Setting(record.Workflow, record.Stage) { Roles = roles }, record.ChangedAt, record.ChangedBy);

    internal static RecordView New(Edition edition, Setting setting) =>
        Of(edition, 0, edition.Definition.RecordType.Key, 0, RecordValues.Empty, setting, null, null);

    private static RecordView Of(
        Edition edition, int id, string recordType, int version, RecordValues values, Setting setting, DateTime? at, string? by)
    {
        var session = new Session(edition.Program, values, setting);
        return new(
            id, recordType, edition.Number, version, values.ByField, setting,
            [.. Enumerable.Range(0, edition.Program.ElementCount)
                .Select(i => new StateView(edition.Program.ElementAt(i), session.StateOf(i).Bits))],
            at, by);
    }
}

/// <summary>An element's state as bits, see <see cref="ElementState.Bits"/>.</summary>
internal sealed record StateView(Element Element, int Bits);
