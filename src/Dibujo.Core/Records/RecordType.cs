using System.Collections.Immutable;
using Dibujo.Core.Forms;
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

    /// <summary>The field of that key, or null.</summary>
    public Field? Find(string field) => Fields.FirstOrDefault(f => string.Equals(f.Key, field, StringComparison.Ordinal));

    /// <summary>The workflow of that key, or null.</summary>
    public Workflow? FindWorkflow(string workflow) =>
        Workflows.FirstOrDefault(w => string.Equals(w.Key, workflow, StringComparison.Ordinal));

    /// <summary>The first stage of that key in any workflow, or null: a key means the same stage in all of them.</summary>
    public Stage? FindStage(string stage) => Workflows.SelectMany(w => w.Stages).FirstOrDefault(s => s.Key == stage);
}
