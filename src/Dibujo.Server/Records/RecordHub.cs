using System.Security.Claims;
using Dibujo.Server.Accounts;
using Microsoft.AspNetCore.Authorization;
using Microsoft.AspNetCore.SignalR;

namespace Dibujo.Server.Records;

/// <summary>
/// Tells people who have a record open, or a list of records, of what others do meanwhile: who else is there, what was saved,
/// that another edition is in force. What it is they read themselves, so that a lost message loses nothing.
/// </summary>
[Authorize(Policies.Members)]
internal sealed class RecordHub(Presence presence) : Hub
{
    internal const string Address = "/live/records";

    private const int LongestKey = 200;

    /// <summary>Wants to be told of records of that type, and of its editions.</summary>
    public Task Watch(string recordType) => recordType.Length > LongestKey
        ? throw new HubException("There is no such record type.")
        : Groups.AddToGroupAsync(Context.ConnectionId, OfType(recordType), Context.ConnectionAborted);

    /// <summary>Is at that record from now on, and at no other by this connection.</summary>
    public async Task Open(int record)
    {
        await LeaveAsync();
        presence.Come(Context.ConnectionId, record, Context.User!.FindFirstValue(ClaimTypes.Name)!);
        await Groups.AddToGroupAsync(Context.ConnectionId, Of(record), Context.ConnectionAborted);
        await TellAsync(record);
    }

    /// <inheritdoc/>
    public override async Task OnDisconnectedAsync(Exception? exception)
    {
        await LeaveAsync();
        await base.OnDisconnectedAsync(exception);
    }

    internal static string Of(int record) => $"record {record}";

    internal static string OfType(string recordType) => $"type {recordType}";

    private async Task LeaveAsync()
    {
        if (presence.Leave(Context.ConnectionId) is { } left)
        {
            await Groups.RemoveFromGroupAsync(Context.ConnectionId, Of(left));
            await TellAsync(left);
        }
    }

    private Task TellAsync(int record) => Clients.Group(Of(record)).SendAsync("Here", record, presence.At(record));
}
