using System.Collections.Concurrent;
using System.Globalization;
using Microsoft.Data.Sqlite;

namespace Dibujo.Endurance;

/// <summary>Kills the server under load, again and again: what was answered is there, nothing else has happened, and the database is whole.</summary>
internal static class KillNine
{
    private const int ClientCount = 8;

    internal static async Task<int> RunAsync(int times)
    {
        var data = BuiltServer.NewFolder();
        var answered = new ConcurrentDictionary<int, (int Version, string Title)>();
        var tried = new ConcurrentDictionary<int, string>();
        var (lost, saves, broken) = (0, 0, 0);
        var starts = new List<double>();
        for (var round = 0; round <= times; round++)
        {
            var (server, took) = await BuiltServer.StartAsync(data);
            starts.Add(took.TotalMilliseconds);
            await using var _ = server;
            using var lorenz = await Client.SignInAsync(server.Address, "lorenz");
            foreach (var (id, (version, title)) in answered)
            {
                var record = await lorenz.ReadAsync($"/api/records/{id}");
                var (now, called) = (record["version"]!.GetValue<int>(), record["values"]!["title"]!.GetValue<string>());
                // The save that was under way may have been stored although nobody was told.
                var isThere = (now == version && called == title) || (now == version + 1 && called == tried.GetValueOrDefault(id));
                lost += isThere ? 0 : 1;
                answered[id] = (now, called);
            }

            if (round == times)
            {
                break;
            }

            using var stop = new CancellationTokenSource();
            var clients = Enumerable.Range(0, ClientCount).Select(client => Task.Run(async () =>
            {
                try
                {
                    var id = answered.Keys.Order().ElementAtOrDefault(client) is > 0 and var known ? known : await lorenz.BeginAsync("Begun");
                    var version = answered.TryGetValue(id, out var last) ? last.Version : 1;
                    answered.TryAdd(id, (1, "Begun"));
                    while (!stop.IsCancellationRequested)
                    {
                        var title = Guid.NewGuid().ToString();
                        tried[id] = title;
                        using var answer = await lorenz.SaveAsync(id, version, title);
                        if (answer.IsSuccessStatusCode)
                        {
                            answered[id] = (++version, title);
                            Interlocked.Increment(ref saves);
                        }
                    }
                }
                catch (HttpRequestException)
                {
                    // It has been killed.
                }
            })).ToList();
            await Task.Delay(200 + Random.Shared.Next(600));
            await server.DisposeAsync();
            await stop.CancelAsync();
            await Task.WhenAll(clients);
            broken += IsWhole(data) ? 0 : 1;
        }

        starts.Sort();
        Console.WriteLine(string.Create(CultureInfo.InvariantCulture, $"Killed {times} times under load, {saves} answered saves, lost or changed: {lost}, databases broken: {broken}. Started in {starts[starts.Count / 2]:0} ms (median), {starts[^1]:0} ms at most."));
        Directory.Delete(data, recursive: true);
        return lost + broken == 0 ? 0 : 1;
    }

    /// <summary>Whether the database is in order as the killed server left it.</summary>
    private static bool IsWhole(string data)
    {
        using var store = new SqliteConnection($"Data Source={Path.Combine(data, "dibujo.db")};Pooling=False");
        store.Open();
        using var command = store.CreateCommand();
        command.CommandText = "PRAGMA integrity_check";
        return command.ExecuteScalar() is "ok";
    }
}
