using System.Collections.Immutable;
using Dibujo.Core.Forms;
using Dibujo.Core.Values;
using Dibujo.Core.Workflows;

namespace Dibujo.Core.Records;

/// <summary>A kind of record: what it holds, how it is laid out and which stages it travels through.</summary>
/// <param name="Key">Short name in addresses and files.</param>
/// <param name="Label">What people call one such record.</param>
/// <param name="TitleField">Key of the field by which a record is called in lists.</param>
/// <param name="Fields">Everything a record can hold, in no particular order.</param>
/// <param name="Forms">The layouts; the first is the main form.</param>
/// <param name="Workflows">The ways a record may travel; a record is in one of them.</param>
public sealed record RecordType(
    string Key,
    string Label,
    string TitleField,
    ImmutableArray<Field> Fields,
    ImmutableArray<Form> Forms,
    ImmutableArray<Workflow> Workflows)
{
    /// <summary>The roles that persons may have, for rules and moves to refer to.</summary>
    public ImmutableArray<Role> Roles { get; init => field = value.OrEmpty(); } = [];

    /// <summary>The other record types to which links lead, as far as rules look at them; a link may also lead to this type itself.</summary>
    public ImmutableArray<LinkedType> Linked { get; init => field = value.OrEmpty(); } = [];

    /// <summary>What people here call fields, choices, stages and roles beside their names.</summary>
    public ImmutableArray<OtherWord> OtherWords { get; init => field = value.OrEmpty(); } = [];

    /// <summary>What becomes of the records kept under the edition before, in the order in which it was decided; a draft's is used up as it is published.</summary>
    public ImmutableArray<Reshape> Reshaping { get; init => field = value.OrEmpty(); } = [];

    /// <summary>The fields of the record type of that key: this one or one of <see cref="Linked"/>; null for an unknown one.</summary>
    public ImmutableArray<Field>? FieldsOf(string recordType) => recordType == Key
        ? Fields
        : Linked.FirstOrDefault(l => string.Equals(l.Key, recordType, StringComparison.Ordinal))?.Fields;

    /// <summary>What a new record holds in that setting before anyone has filled in anything.</summary>
    public RecordValues Defaults(Setting setting) => new(Fields.Where(f => f.Default is not null)
        .Select(f => KeyValuePair.Create(f.Key, f.Default!.In(setting, f.Type))).Where(f => !f.Value.IsBlank));

    /// <summary>
    /// Values that are given along with a setting, fitted to the fields; what fits none is left out. A new record has its
    /// defaults where nothing else is given, not even a blank.
    /// </summary>
    public RecordValues Begin(Setting setting, IReadOnlyDictionary<string, Value> given)
    {
        var fitted = new RecordValues(given).FittedTo(this);
        return !setting.IsNew ? fitted : Defaults(setting).ByField.Where(value => !given.ContainsKey(value.Key))
            .Aggregate(fitted, (record, value) => record.With(value.Key, value.Value));
    }

    /// <summary>Every element that a rule can name: fields with their parts, then the forms with what is on them, then the record.</summary>
    public IEnumerable<Element> Elements() =>
        Fields.SelectMany(f => (f.Type as CompoundType)?.Parts.Select(p => Element.Part(f.Key, p.Key)).Prepend(Element.Field(f.Key)) ?? [Element.Field(f.Key)])
            .Concat(Forms.SelectMany(form => form.Tabs.SelectMany(tab =>
                tab.Sections.Select(s => Element.Section(s.Key)).Prepend(Element.Tab(tab.Key))).Prepend(Element.Form(form.Key))))
            .Append(Element.Record).Distinct();

    /// <summary>The move of that key in any workflow, or null: a key means the same move in all of them.</summary>
    public Move? FindMove(string move) => Workflows.SelectMany(w => w.Moves).FirstOrDefault(m => m.Key == move);

    /// <summary>The field of that key, or null.</summary>
    public Field? Find(string field) => Fields.FirstOrDefault(f => string.Equals(f.Key, field, StringComparison.Ordinal));

    /// <summary>The workflow of that key, or null.</summary>
    public Workflow? FindWorkflow(string workflow) =>
        Workflows.FirstOrDefault(w => string.Equals(w.Key, workflow, StringComparison.Ordinal));

    /// <summary>The first stage of that key in any workflow, or null: a key means the same stage in all of them.</summary>
    public Stage? FindStage(string stage) => Workflows.SelectMany(w => w.Stages).FirstOrDefault(s => s.Key == stage);
}

/// <summary>Another record type, as far as it is known here: what a linked record holds.</summary>
/// <param name="Key">Its key.</param>
/// <param name="Label">What people call it.</param>
/// <param name="Fields">Its fields.</param>
public sealed record LinkedType(string Key, string Label, ImmutableArray<Field> Fields)
{
    /// <summary>
    /// The same fields as the record type has them by now. One that has another key there keeps the one by which rules here call it; one
    /// that is no more is left out, so that rules that look at it have a problem.
    /// </summary>
    /// <param name="there">The record type itself.</param>
    /// <param name="formerKeys">For every key that one of its fields once had, the key that it has now.</param>
    public LinkedType As(RecordType there, IReadOnlyDictionary<string, string> formerKeys) => new(Key, there.Label,
    [
        .. from field in Fields
           let now = there.Find(field.Key) ?? (formerKeys.TryGetValue(field.Key, out var later) ? there.Find(later) : null)
           where now is not null
           select new Field(field.Key, now.Label, now.Type, Retired: now.Retired),
    ]);
}
