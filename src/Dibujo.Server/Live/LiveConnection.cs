using System.Diagnostics;
using System.Security.Claims;
using System.Threading.Channels;
using Dibujo.Server.Accounts;
using Microsoft.AspNetCore.SignalR;

namespace Dibujo.Server.Live;

/// <summary>
/// One open connection to a hub, with what it waits to be told. Whoever tells something never waits for it: what it does not read
/// stands in a short queue, and when that is full the connection is dropped; it comes again and reads what it missed.
/// </summary>
internal sealed class LiveConnection
{
    private const int LongestQueue = 64;

    /// <summary>A page calls when somebody opens a record or a list: nobody does that so often.</summary>
    private const int MostCalls = 100;

    private static readonly TimeSpan CallsWithin = TimeSpan.FromSeconds(10);

    /// <summary>How long it is taken for granted that what has just been looked up is still so; what ends a right closes the connection anyway.</summary>
    private static readonly TimeSpan Trust = TimeSpan.FromSeconds(1);

    private readonly HubCallerContext context;
    private readonly Channel<(string What, object?[] Of)> queue = Channel.CreateBounded<(string, object?[])>(new BoundedChannelOptions(LongestQueue) { SingleReader = true });
    private volatile bool isEnded;
    private int calls;
    private long callsSince = Stopwatch.GetTimestamp();
    private long? lookedAt;

    internal LiveConnection(HubCallerContext context, ISingleClientProxy client)
    {
        this.context = context;
        Person = context.User!.Identity!.Name!;
        AccountId = context.User.AccountId();
        (SignIn, Token) = (context.User.FindFirstValue(Principals.SignInClaim), context.User.FindFirstValue(Principals.TokenClaim));
        _ = SendAsync(client);
    }

    /// <summary>By which it is known, here and at the other end.</summary>
    internal string Id => context.ConnectionId;

    /// <summary>Account name of whose it is.</summary>
    internal string Person { get; }

    /// <summary>Key of the account.</summary>
    internal string AccountId { get; }

    /// <summary>Number of the sign-in by which it was let in; null for a program's.</summary>
    internal string? SignIn { get; }

    /// <summary>Number of the token by which it was let in; null for a person's.</summary>
    internal string? Token { get; }

    /// <summary>Whether it is told nothing any more, though the other end may not know it yet.</summary>
    internal bool IsEnded => isEnded || context.ConnectionAborted.IsCancellationRequested;

    /// <summary>Where the person is, in words of the page; empty where that was not said.</summary>
    internal string Place { get; set; } = "";

    /// <summary>What it wants to be told of; kept by <see cref="LiveConnections"/>.</summary>
    internal HashSet<string> Topics { get; } = new(StringComparer.Ordinal);

    /// <summary>Counts a call; false where there have been too many, and it is closed.</summary>
    internal bool Count()
    {
        if (Stopwatch.GetElapsedTime(callsSince) > CallsWithin)
        {
            (calls, callsSince) = (0, Stopwatch.GetTimestamp());
        }

        return ++calls <= MostCalls;
    }

    /// <summary>Whether its right was looked up a moment ago.</summary>
    internal bool IsTrusted => lookedAt is { } at && Stopwatch.GetElapsedTime(at) < Trust;

    /// <summary>Its right has been looked up, and holds.</summary>
    internal void Trusted() => lookedAt = Stopwatch.GetTimestamp();

    /// <summary>Tells it something, once it comes to read that.</summary>
    internal void Tell(string what, object?[] of)
    {
        if (!IsEnded && !queue.Writer.TryWrite((what, of)))
        {
            End();
        }
    }

    /// <summary>Closes it.</summary>
    internal void End()
    {
        isEnded = true;
        queue.Writer.TryComplete();
        context.Abort();
    }

    private async Task SendAsync(ISingleClientProxy client)
    {
        try
        {
            await foreach (var (what, of) in queue.Reader.ReadAllAsync(context.ConnectionAborted))
            {
                await client.SendCoreAsync(what, of, context.ConnectionAborted);
            }
        }
        catch (Exception failure) when (failure is not OutOfMemoryException)
        {
            // The other end has gone, or never read: it comes again if it wants to know.
            End();
        }
    }
}
