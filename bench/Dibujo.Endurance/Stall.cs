using System.Net.WebSockets;
using System.Text;

namespace Dibujo.Endurance;

/// <summary>50 clients have themselves told of a record type, send what is answered at length, and read nothing of it: whoever saves records of that type does not notice.</summary>
internal static class Stall
{
    private const int Silent = 50;
    private const int Savers = 8;
    private const int IdLength = 3000;

    private static readonly TimeSpan Duration = TimeSpan.FromSeconds(20);

    internal static async Task<int> RunAsync()
    {
        var data = BuiltServer.NewFolder();
        var (server, _) = await BuiltServer.StartAsync(data);
        await using var __ = server;
        using var lorenz = await Client.SignInAsync(server.Address, "lorenz");
        await SaveAsync(lorenz, TimeSpan.FromSeconds(5), new());
        var without = new Latencies();
        await SaveAsync(lorenz, Duration, without);
        var sockets = await Task.WhenAll(Enumerable.Range(0, Silent).Select(_ => ConnectAsync(server.Address, lorenz)));
        using var through = new CancellationTokenSource();
        var calling = sockets.Select(socket => Task.Run(() => CallAsync(socket, through.Token))).ToList();
        var with = new Latencies();
        await SaveAsync(lorenz, Duration, with);
        var dropped = calling.Count(one => one.IsCompleted);
        await through.CancelAsync();
        await Task.WhenAll(calling);
        Console.WriteLine($"saves without them: {without}");
        Console.WriteLine($"saves beside {Silent} that do not read: {with}");
        Console.WriteLine($"of those the server has dropped {dropped}");
        Array.ForEach(sockets, socket => socket.Dispose());
        return with.HasErrors || with.Longest > TimeSpan.FromSeconds(2) ? 1 : 0;
    }

    private static Task SaveAsync(Client lorenz, TimeSpan duration, Latencies noted)
    {
        var until = DateTime.UtcNow + duration;
        return Task.WhenAll(Enumerable.Range(0, Savers).Select(async saver =>
        {
            var (id, version) = (await lorenz.BeginAsync($"Saved by {saver}"), 1);
            while (DateTime.UtcNow < until)
            {
                await noted.NoteAsync(async () =>
                {
                    var answer = await lorenz.SaveAsync(id, version, Guid.NewGuid().ToString());
                    version += answer.IsSuccessStatusCode ? 1 : 0;
                    return answer;
                });
            }
        }));
    }

    private static async Task<ClientWebSocket> ConnectAsync(Uri address, Client person)
    {
        var socket = new ClientWebSocket();
        socket.Options.SetRequestHeader("Cookie", string.Join("; ", person.Cookies.Select(cookie => $"{cookie.Name}={cookie.Value}")));
        await socket.ConnectAsync(new Uri($"ws://{address.Authority}/live/records"), CancellationToken.None);
        await SayAsync(socket, """{"protocol":"json","version":1}""", CancellationToken.None);
        await SayAsync(socket, """{"type":1,"invocationId":"1","target":"Watch","arguments":["object-loan"]}""", CancellationToken.None);
        return socket;
    }

    private static async Task CallAsync(ClientWebSocket socket, CancellationToken cancellation)
    {
        try
        {
            while (!cancellation.IsCancellationRequested)
            {
                await SayAsync(socket, $"{{\"type\":1,\"invocationId\":\"{new string('x', IdLength)}\",\"target\":\"Watch\",\"arguments\":[\"object-loan\"]}}", cancellation);
                await Task.Delay(5, cancellation);
            }
        }
        catch (Exception ended) when (ended is WebSocketException or OperationCanceledException or IOException)
        {
            // Dropped, or through.
        }
    }

    private static Task SayAsync(ClientWebSocket socket, string message, CancellationToken cancellation) =>
        socket.SendAsync(Encoding.UTF8.GetBytes(message + '\u001e'), WebSocketMessageType.Text, endOfMessage: true, cancellation);
}
