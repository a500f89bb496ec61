using Dibujo.Server.Accounts;
using Microsoft.AspNetCore.SignalR;

namespace Dibujo.Server.Live;

/// <summary>Looks at each call whether what the connection was let in by still holds; closes it where it does not.</summary>
internal sealed class RightsAtCalls(Rights rights) : IHubFilter
{
    public async ValueTask<object?> InvokeMethodAsync(HubInvocationContext invocationContext, Func<HubInvocationContext, ValueTask<object?>> next)
    {
        var context = invocationContext.Context;
        if (await rights.NowAsync(context.User!, context.ConnectionAborted) is not { } person || !person.RoleKeys().SequenceEqual(context.User!.RoleKeys(), StringComparer.Ordinal))
        {
            context.Abort();
            throw new HubException("You are not signed in any more, or may do something else by now.");
        }

        return await next(invocationContext);
    }
}
