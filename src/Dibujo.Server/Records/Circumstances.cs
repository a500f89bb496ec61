using Dibujo.Core.Records;
using Dibujo.Server.Writing;
using Dibujo.Store.Records;

namespace Dibujo.Server.Records;

/// <summary>The setting in which somebody finds a record, at this moment of the site's clock.</summary>
internal sealed class Circumstances(TimeProvider clock)
{
    /// <summary>Of a record that is stored.</summary>
    internal Setting Of(StoredRecord record, Author author) => Around(new Setting(record.Workflow, record.Stage), author);

    /// <summary>Of a new record: the first stage of that workflow, or of the record type's first; null for an unknown one.</summary>
    internal Setting? OfNew(RecordType type, string? workflow, Author author)
    {
        var way = workflow is null ? type.Workflows[0] : type.FindWorkflow(workflow);
        return way is null ? null : Around(new Setting(way.Key, way.Stages[0].Key, IsNew: true), author);
    }

    private Setting Around(Setting setting, Author author) =>
        (setting with { Person = author.Person, Roles = author.Roles, Channel = author.Channel }).At(clock.GetLocalNow().DateTime);
}
