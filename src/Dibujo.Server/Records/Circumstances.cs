using System.Security.Claims;
using Dibujo.Core.Records;
using Dibujo.Server.Accounts;
using Dibujo.Store.Records;

namespace Dibujo.Server.Records;

/// <summary>The setting in which a request finds a record: who asks, by which way, and when.</summary>
internal sealed class Circumstances(TimeProvider clock)
{
    /// <summary>
    /// The way by which a request comes. A program is known by its token, and nobody else can claim to be one; of a person's
    /// own two ways, the form and the list, the page says which.
    /// </summary>
    internal static Channel ChannelOf(ClaimsPrincipal user, bool inList = false) =>
        TokenSignIn.IsProgram(user) ? Channel.Api : inList ? Channel.List : Channel.Form;

    /// <summary>Of a record that is stored.</summary>
    internal Setting Of(StoredRecord record, ClaimsPrincipal user, Channel channel) =>
        Around(new Setting(record.Workflow, record.Stage, Channel: channel), user);

    /// <summary>Of a new record: the first stage of that workflow, or of the record type's first; null for an unknown one.</summary>
    internal Setting? OfNew(RecordType type, string? workflow, ClaimsPrincipal user, Channel channel)
    {
        var way = workflow is null ? type.Workflows[0] : type.FindWorkflow(workflow);
        return way is null ? null : Around(new Setting(way.Key, way.Stages[0].Key, IsNew: true, Channel: channel), user);
    }

    private Setting Around(Setting setting, ClaimsPrincipal user) =>
        (setting with { Person = user.Identity!.Name, Roles = user.RoleKeys() }).At(clock.GetLocalNow().DateTime);
}
