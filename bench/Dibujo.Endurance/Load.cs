using System.Diagnostics;
using System.Globalization;

namespace Dibujo.Endurance;

/// <summary>100,000 records, 50 clients, four readings to a save, for a minute: without a pause, and with a second between requests.</summary>
internal static class Load
{
    private const string Loans = "/api/record-types/object-loan";
    private const int Records = 100_000;
    private const int ClientCount = 50;

    private static readonly TimeSpan Duration = TimeSpan.FromSeconds(60);

    /// <param name="folder">Where the records are, or are invented once; null for a folder that is deleted afterwards.</param>
    internal static async Task<int> RunAsync(string? folder)
    {
        var data = folder ?? BuiltServer.NewFolder();
        Console.WriteLine("Inventing the records, where there are none yet…");
        await (await BuiltServer.StartAsync(data, Records)).Server.DisposeAsync();

        var hasErrors = false;
        foreach (var pause in (TimeSpan[])[TimeSpan.Zero, TimeSpan.FromSeconds(1)])
        {
            var (server, took) = await BuiltServer.StartAsync(data, Records);
            await using var _ = server;
            Console.WriteLine(string.Create(CultureInfo.InvariantCulture, $"Started in {took.TotalSeconds:0.0} s with {Records} records."));
            List<Client> people = [];
            foreach (var person in (string[])["ada", "lorenz", "rosa", "conrad", "delphine"])
            {
                people.Add(await Client.SignInAsync(server.Address, person));
            }

            var (reads, saves) = (new Latencies(), new Latencies());
            var most = 0.0;
            var clock = Stopwatch.StartNew();
            var clients = Enumerable.Range(0, ClientCount).Select(i => Task.Run(() => WorkAsync(people[i % people.Count], i, pause, clock, reads, saves))).ToList();
            while (clock.Elapsed < Duration)
            {
                most = Math.Max(most, server.Memory);
                await Task.Delay(200);
            }

            await Task.WhenAll(clients);
            Console.WriteLine(string.Create(CultureInfo.InvariantCulture, $"{ClientCount} clients, {pause.TotalSeconds:0} s between requests, {Duration.TotalSeconds:0} s, at most {most:0} MB:"));
            Console.WriteLine($"  reading: {reads}");
            Console.WriteLine($"  saving:  {saves}");
            hasErrors |= reads.HasErrors || saves.HasErrors;
        }

        if (folder is null)
        {
            Directory.Delete(data, recursive: true);
        }

        return hasErrors ? 1 : 0;
    }

    private static async Task WorkAsync(Client client, int number, TimeSpan pause, Stopwatch clock, Latencies reads, Latencies saves)
    {
        var random = new Random(number);
        await Task.Delay(pause * random.NextDouble());
        while (clock.Elapsed < Duration)
        {
            var id = random.Next(100, Records);
            switch (random.Next(10))
            {
                case < 2:
                    var version = 0;
                    await reads.NoteAsync(async () =>
                    {
                        var answer = await client.GetAsync($"/api/records/{id}");
                        version = System.Text.Json.Nodes.JsonNode.Parse(await answer.Content.ReadAsStringAsync())?["version"]?.GetValue<int>() ?? 0;
                        return answer;
                    });
                    // What the rules refuse (a loan that is closed, say) is an answer as well.
                    await saves.NoteAsync(async () =>
                    {
                        var answer = await client.SaveAsync(id, version, $"Title {random.Next()}");
                        return answer.StatusCode == System.Net.HttpStatusCode.UnprocessableEntity ? new(System.Net.HttpStatusCode.OK) : answer;
                    });
                    break;
                case < 4:
                    await reads.NoteAsync(() => client.GetAsync($"{Loans}/records"));
                    break;
                case < 5:
                    await reads.NoteAsync(() => client.GetAsync($"{Loans}/records?search=kite"));
                    break;
                case < 6:
                    await reads.NoteAsync(() => client.GetAsync($"{Loans}/records?stage=terms"));
                    break;
                case < 7:
                    await reads.NoteAsync(() => client.GetAsync("/api/record-types"));
                    break;
                case < 8:
                    await reads.NoteAsync(() => client.GetAsync($"/api/records/{id}/history"));
                    break;
                default:
                    await reads.NoteAsync(() => client.GetAsync($"/api/records/{id}"));
                    break;
            }

            if (pause > TimeSpan.Zero)
            {
                await Task.Delay(pause);
            }
        }
    }
}
