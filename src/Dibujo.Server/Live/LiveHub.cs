using Microsoft.AspNetCore.Http.Connections;
using Microsoft.AspNetCore.SignalR;

namespace Dibujo.Server.Live;

/// <summary>A hub whose connections are known, and are told of what they watch. What it is they read themselves, so that a lost message loses nothing.</summary>
internal abstract class LiveHub(LiveConnections live) : Hub
{
    private const int LongestKey = 200;

    /// <summary>What a client has to say is a number or a key.</summary>
    internal const int LargestMessage = 4096;

    /// <inheritdoc/>
    public override async Task OnConnectedAsync()
    {
        if (!live.Add(Context.ConnectionId, new(Context, Clients.Caller)))
        {
            Context.Abort();
        }

        await base.OnConnectedAsync();
    }

    /// <inheritdoc/>
    public override async Task OnDisconnectedAsync(Exception? exception)
    {
        foreach (var topic in live.Remove(Context.ConnectionId))
        {
            OnLeft(topic);
        }

        await base.OnDisconnectedAsync(exception);
    }

    /// <summary>Connections end with the right by which they were let in, and when their buffers stay full.</summary>
    internal static void Limit(HttpConnectionDispatcherOptions options)
    {
        options.CloseOnAuthenticationExpiration = true;
        options.TransportSendTimeout = TimeSpan.FromSeconds(5);
    }

    /// <summary>Has the caller be told of something from now on.</summary>
    protected void Watch(string topic)
    {
        if (topic.Length > LongestKey || !live.Watch(Context.ConnectionId, topic))
        {
            throw new HubException($"There is no such thing to be told of, or it is more than {LiveConnections.MostTopics}.");
        }
    }

    /// <summary>Has the caller be told of nothing any more that begins so.</summary>
    protected void Leave(string beginning)
    {
        foreach (var topic in live.Leave(Context.ConnectionId, beginning))
        {
            OnLeft(topic);
        }
    }

    /// <summary>A connection is not told of that any more.</summary>
    protected virtual void OnLeft(string topic)
    {
    }
}
