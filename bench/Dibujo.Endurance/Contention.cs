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

        var told = new Told();
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
                else if (!answer.IsSuccessStatusCode || !told.Note(id, version + 1, title))
                {
                    Interlocked.Increment(ref wrong);
                }
            }
        })));
        wrong += await told.CheckAsync(lorenz);
        Console.WriteLine(string.Create(CultureInfo.InvariantCulture, $"{ClientCount} clients on {RecordCount} records: {told.Count} saves, {conflicts} turned away, histories that do not hold: {wrong}."));
        return wrong == 0 ? 0 : 1;
    }
}
