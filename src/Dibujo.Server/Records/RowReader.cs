using System.Collections.Immutable;
using Dibujo.Core.Evaluation;
using Dibujo.Core.Forms;
using Dibujo.Core.Listing;
using Dibujo.Core.Records;
using Dibujo.Core.Values;
using Dibujo.Server.RecordTypes;
using Dibujo.Store.Records;

namespace Dibujo.Server.Records;

/// <summary>Records as rows of a list, one after another. Those at the same stage are evaluated in one session, which costs a fraction of opening one for each.</summary>
/// <param name="edition">The rules in force.</param>
/// <param name="columns">Keys of the columns; one that is named again counts once.</param>
/// <param name="lookup">Linked records.</param>
internal sealed class RowReader(Edition edition, ImmutableArray<string> columns, RecordLookup lookup)
{
    private readonly Dictionary<(string Workflow, string Stage, string Form), Session> sessions = [];

    /// <summary>Each column that is a field, with the form on which it stands first: through that it is seen and changed.</summary>
    private readonly List<(Field Field, string Form)> fields =
    [
        .. from column in columns.Distinct(StringComparer.Ordinal)
           let field = edition.Definition.RecordType.Find(column)
           where field is not null
           let forms = edition.Definition.RecordType.Forms
           let form = forms.FirstOrDefault(one => one.Fields().Contains(column, StringComparer.Ordinal)) ?? forms[0]
           select (field, form.Key),
    ];

    private readonly bool asksForStanding = columns.Any(column => column == ListColumn.Missing || column.StartsWith(Standing.KeyOf(""), StringComparison.Ordinal));

    /// <summary>The edition under which they are seen.</summary>
    internal Edition Edition => edition;

    /// <summary>The record as that person sees it now.</summary>
    /// <param name="record">The record as it is stored.</param>
    /// <param name="setting">Where it is and who looks at it: the same person and moment each time.</param>
    internal ListRow Of(StoredRecord record, Setting setting)
    {
        var type = edition.Definition.RecordType;
        var values = record.Values.FittedTo(type);
        var shown = fields.Select(one => KeyValuePair.Create(one.Field.Key, values[one.Field.Key])).Where(one => !one.Value.IsBlank).ToList();
        return new(
            record.Id, record.Version, record.Title, record.Workflow, record.Stage, record.ChangedAt, record.ChangedBy,
            new RecordValues(shown).ByField,
            [.. States(values, setting).Select(one => new CellView(one.Field.Key, one.State.Bits))],
            asksForStanding ? Standing.Of(edition.Program, values, setting, lookup).ByField : RecordValues.Empty.ByField,
            lookup.From(type, new(shown.Where(one => one.Value is Link))).ToImmutableDictionary(linked => $"{linked.RecordType} {linked.Number}", linked => linked.Title));
    }

    /// <summary>Keys of the columns that the person can type into now.</summary>
    internal ImmutableArray<string> Editable(StoredRecord record, Setting setting) =>
        [.. States(record.Values.FittedTo(edition.Definition.RecordType), setting).Where(one => one.State.IsEditable).Select(one => one.Field.Key)];

    private List<(Field Field, ElementState State)> States(RecordValues values, Setting setting)
    {
        var used = new Dictionary<string, Session>(StringComparer.Ordinal);
        return fields.ConvertAll(one =>
        {
            if (!used.TryGetValue(one.Form, out var session))
            {
                used[one.Form] = session = Open(values, setting with { Form = one.Form });
            }

            return (one.Field, session.StateOf(session.NumberOf(Element.Field(one.Field.Key))));
        });
    }

    private Session Open(RecordValues values, Setting setting)
    {
        var key = (setting.Workflow, setting.Stage, setting.Form!);
        if (sessions.TryGetValue(key, out var session))
        {
            session.Replace(values);
            return session;
        }

        return sessions[key] = new(edition.Program, values, setting, lookup);
    }
}
