using System.Collections.Immutable;
using Dibujo.Core.Compilation;
using Dibujo.Core.Evaluation;
using Dibujo.Core.Forms;
using Dibujo.Core.Values;
using Dibujo.Server.RecordTypes;
using Dibujo.Store.Records;

namespace Dibujo.Server.Records;

/// <summary>A record for the person who asks.</summary>
/// <param name="Id">Its number; 0 for one that is not stored yet.</param>
/// <param name="RecordType">Key of its record type.</param>
/// <param name="Form">Key of the form on which it is shown.</param>
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
    int Edition,
    int Version,
    IReadOnlyDictionary<string, Value> Values,
    Setting Setting,
    ImmutableArray<LinkedRecord> Linked,
    ImmutableArray<StateView> States,
    DateTime? ChangedAt,
    string? ChangedBy)
{
    internal static RecordView Of(StoredRecord record, Edition edition, RuleProgram program, Setting setting, RecordLookup lookup) => Of(
        edition, program, record.Id, record.Version, record.Values.FittedTo(edition.Definition.RecordType),
        setting, lookup, record.ChangedAt, record.ChangedBy);

    internal static RecordView New(Edition edition, RuleProgram program, Setting setting, RecordLookup lookup) =>
        Of(edition, program, 0, 0, edition.Definition.RecordType.Defaults(setting), setting, lookup, null, null);

    private static RecordView Of(
        Edition edition, RuleProgram program, int id, int version, RecordValues values, Setting setting, RecordLookup lookup, DateTime? at, string? by)
    {
        var type = edition.Definition.RecordType;
        var session = new Session(program, values, setting, lookup);
        return new(
            id, type.Key, program.Form.Key, edition.Number, version, values.ByField, setting,
            lookup.From(type, values),
            [.. Enumerable.Range(0, program.ElementCount).Select(i => new StateView(program.ElementAt(i), session.StateOf(i).Bits))],
            at, by);
    }
}

/// <summary>An element's state as bits, see <see cref="ElementState.Bits"/>.</summary>
internal sealed record StateView(Element Element, int Bits);
