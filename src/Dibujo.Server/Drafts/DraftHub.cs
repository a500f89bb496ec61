using Dibujo.Server.Accounts;
using Dibujo.Server.Live;
using Microsoft.AspNetCore.Authorization;

namespace Dibujo.Server.Drafts;

/// <summary>Tells administrators who have a draft open that it was changed.</summary>
[Authorize(Policies.Administrators)]
internal sealed class DraftHub(LiveConnections live) : LiveHub(live)
{
    internal const string Address = "/live/drafts";

    /// <summary>Wants to be told of the draft of that record type.</summary>
    public new void Watch(string recordType) => base.Watch(Of(recordType));

    internal static string Of(string recordType) => $"draft {recordType}";
}
