using System.Collections.Concurrent;
using System.Globalization;

namespace Dibujo.Endurance;

/// <summary>
/// 20 clients save the same 10 records as fast as they can. Afterwards the histories are checked: of each version there is
/// exactly one save, it is the one that was answered, and it began with what the one before left.
/// </summary>
internal static class Contention
{
    private const int ClientCount = 20;
    private const int RecordCount = 10;

    internal static async Task<int> RunAsync()
    {
        var data = BuiltServer.NewFolder();
        var (server, _) = await BuiltServer.StartAsync(data);
        await using var __ = server;
        using var lorenz = await Client.SignInAsync(server.Address, "lorenz");
        var ids = new List<int>();
        for (var i = 0; i < RecordCount; i++)
        {
            ids.Add(await lorenz.BeginAsync("Begun"));
        }

        var answered = new ConcurrentDictionary<(int Id, int Version), string>();
        var conflicts = 0;
        var wrong = 0;
        var until = DateTime.UtcNow.AddSeconds(30);
        await Task.WhenAll(Enumerable.Range(0, ClientCount).Select(client => Task.Run(async () =>
        {
            var random = new Random(client);
            while (DateTime.UtcNow < until)
            {
                var id = ids[random.Next(ids.Count)];
                var version = (await lorenz.ReadAsync($"/api/records/{id}"))["version"]!.GetValue<int>();
                var title = Guid.NewGuid().ToString();
                using var answer = await lorenz.SaveAsync(id, version, title);
                if (answer.StatusCode == System.Net.HttpStatusCode.Conflict)
                {
                    Interlocked.Increment(ref conflicts);
                }
                else if (!answer.IsSuccessStatusCode || !answered.TryAdd((id, version + 1), title))
                {
                    Interlocked.Increment(ref wrong);
                }
            }
        })));
        foreach (var id in ids)
        {
            wrong += await CheckAsync(lorenz, id, answered);
        }

        Console.WriteLine(string.Create(CultureInfo.InvariantCulture, $"{ClientCount} clients on {RecordCount} records: {answered.Count} saves, {conflicts} turned away, histories that do not hold: {wrong}."));
        return wrong == 0 ? 0 : 1;
    }

    private static async Task<int> CheckAsync(Client client, int id, ConcurrentDictionary<(int Id, int Version), string> answered)
    {
        var (wrong, left, next) = (0, "Begun", 2);
        var entries = new List<System.Text.Json.Nodes.JsonNode>();
        for (var before = ""; ;)
        {
            var page = (await client.ReadAsync($"/api/records/{id}/history{before}")).AsArray();
            if (page.Count == 0)
            {
                break;
            }

            entries.AddRange(page!);
            before = $"?before={page[^1]!["version"]}";
        }

        foreach (var entry in entries.AsEnumerable().Reverse().Skip(1))
        {
            var (version, was, became) = (entry["version"]!.GetValue<int>(), entry["before"]!["title"]!.GetValue<string>(), entry["after"]!["title"]!.GetValue<string>());
            wrong += version == next++ && was == left && answered.GetValueOrDefault((id, version)) == became ? 0 : 1;
            left = became;
        }

        return wrong + (answered.Keys.Count(a => a.Id == id) == entries.Count - 1 ? 0 : 1);
    }
}
