using Dibujo.Server.Accounts;
using Microsoft.AspNetCore.SignalR;

namespace Dibujo.Server.Live;

/// <summary>Looks at calls whether what the connection was let in by still holds, and whether they are not too many; closes it where that is not so.</summary>
internal sealed class RightsAtCalls(Rights rights, LiveConnections live) : IHubFilter
{
    public async ValueTask<object?> InvokeMethodAsync(HubInvocationContext invocationContext, Func<HubInvocationContext, ValueTask<object?>> next)
    {
        var context = invocationContext.Context;
        if (live.Find(context.ConnectionId) is not { } connection || !connection.Count() || !await HoldsAsync(context, connection))
        {
            context.Abort();
            throw new HubException("You are not signed in any more, may do something else by now, or call too often.");
        }

        return await next(invocationContext);
    }

    private async Task<bool> HoldsAsync(HubCallerContext context, LiveConnection connection)
    {
        if (connection.IsTrusted)
        {
            return true;
        }

        if (await rights.NowAsync(context.User!, context.ConnectionAborted) is not { } person || !person.RoleKeys().SequenceEqual(context.User!.RoleKeys(), StringComparer.Ordinal))
        {
            return false;
        }

        connection.Trusted();
        return true;
    }
}
