using System.Collections.Immutable;
using Dibujo.Core.Conditions;
using Dibujo.Core.Records;
using Dibujo.Core.Saving;
using Dibujo.Core.Values;
using Dibujo.Server.RecordTypes;
using Dibujo.Store.Records;

namespace Dibujo.Server.Writing;

/// <summary>From a verdict to the record that it makes and to what the history says of it.</summary>
internal static class RecordChange
{
    /// <summary>The record that comes of an accepted verdict.</summary>
    internal static StoredRecord Begun(Edition edition, Setting setting, Verdict verdict, DateTime at) => new()
    {
        RecordType = edition.Definition.RecordType.Key,
        Workflow = setting.Workflow,
        Stage = verdict.Stage,
        Title = verdict.Values[edition.Definition.RecordType.TitleField].Plain,
        Values = verdict.Values,
        ChangedAt = at,
        ChangedBy = setting.Person!,
    };

    /// <summary>The record with what an accepted verdict says. Values of fields that the edition does not know stay as they are.</summary>
    internal static StoredRecord Changed(StoredRecord record, Edition edition, Setting setting, Verdict verdict, DateTime at) => new()
    {
        Id = record.Id,
        RecordType = record.RecordType,
        Workflow = record.Workflow,
        Stage = verdict.Stage,
        Title = verdict.Values[edition.Definition.RecordType.TitleField].Plain,
        Values = new(Unknown(record, edition).Concat(verdict.Values.ByField)),
        Standing = record.Standing,
        StandingEdition = record.StandingEdition,
        StandingDay = record.StandingDay,
        Version = record.Version + 1,
        ChangedAt = at,
        ChangedBy = setting.Person!,
    };

    /// <summary>The values that the record had, as the edition reads them.</summary>
    internal static RecordValues Before(StoredRecord record, Edition edition) =>
        new(Unknown(record, edition).Concat(record.Values.FittedTo(edition.Definition.RecordType).ByField));

    /// <summary>What the save of a record is to be remembered by; null where nothing is other than before.</summary>
    /// <param name="record">The record as it is after.</param>
    /// <param name="edition">Number of the edition under which it was judged.</param>
    /// <param name="before">The values before; null for a record that has just been begun.</param>
    /// <param name="fromStage">The stage before.</param>
    /// <param name="through">The setting in which it came; null where nobody asked for it.</param>
    /// <param name="request">Who asked for it and how; null where nobody did.</param>
    internal static HistoryEntry? Entry(StoredRecord record, int edition, RecordValues? before, string fromStage, Setting? through = null, WriteRequest? request = null)
    {
        var changed = Different(before ?? RecordValues.Empty, record.Values);
        return before is not null && changed.IsEmpty && record.Stage == fromStage ? null : new()
        {
            RecordId = record.Id,
            Record = record.Id == 0 ? record : null,
            Version = record.Version,
            By = record.ChangedBy,
            At = record.ChangedAt,
            Edition = edition,
            Before = Only(before ?? RecordValues.Empty, changed),
            After = Only(record.Values, changed),
            Channel = through is null ? null : SubjectTypes.KeyOf(through.Channel),
            Form = through is { Channel: Channel.Form or Channel.List } ? through.Form : null,
            Ticket = request?.Ticket,
            Import = request?.Import,
            FromStage = fromStage,
            ToStage = record.Stage,
        };
    }

    /// <summary>The record as it was before that save of it.</summary>
    internal static StoredRecord Undone(StoredRecord record, HistoryEntry entry) => new()
    {
        Id = record.Id,
        RecordType = record.RecordType,
        Workflow = record.Workflow,
        Stage = entry.FromStage,
        Title = record.Title,
        Values = new(record.Values.ByField.Where(value => !entry.After.ByField.ContainsKey(value.Key)).Concat(entry.Before.ByField)),
        Version = entry.Version - 1,
        ChangedAt = record.ChangedAt,
        ChangedBy = record.ChangedBy,
    };

    /// <summary>Keys of the fields that hold something else.</summary>
    internal static ImmutableArray<string> Different(RecordValues before, RecordValues after) =>
        [.. before.ByField.Keys.Union(after.ByField.Keys, StringComparer.Ordinal).Where(field => !ValueConverter.AreAlike(before[field], after[field]))];

    /// <summary>Those fields, as far as they have values.</summary>
    internal static RecordValues Only(RecordValues values, ImmutableArray<string> fields) =>
        new(fields.Where(values.ByField.ContainsKey).Select(field => KeyValuePair.Create(field, values[field])));

    private static IEnumerable<KeyValuePair<string, Value>> Unknown(StoredRecord record, Edition edition) =>
        record.Values.ByField.Where(value => edition.Definition.RecordType.Find(value.Key) is null);
}
