using Dibujo.Server.Accounts;
using Microsoft.AspNetCore.Authorization;
using Microsoft.AspNetCore.SignalR;

namespace Dibujo.Server.Drafts;

/// <summary>Tells administrators who have a draft open that it was changed. What was changed they read themselves, so that a lost message loses nothing.</summary>
[Authorize(Policies.Administrators)]
internal sealed class DraftHub : Hub
{
    internal const string Address = "/live/drafts";

    /// <summary>Wants to be told of the draft of that record type.</summary>
    public Task Watch(string recordType) => Groups.AddToGroupAsync(Context.ConnectionId, recordType, Context.ConnectionAborted);
}
