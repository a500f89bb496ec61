using System.Diagnostics;
using System.Globalization;

namespace Dibujo.Endurance;

/// <summary>100,000 records, 50 clients, four readings to a save, for a minute: without a pause, and with a second between requests.</summary>
internal static class Load
{
    private const string Loans = "/api/record-types/object-loan";
    private const int Records = 100_000;
    private const int ImportedRows = 5000;
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

            var (reads, saves, told) = (new Latencies(), new Latencies(), new Told());
            var (most, machine) = (0.0, new Machine());
            var clock = Stopwatch.StartNew();
            var clients = Enumerable.Range(0, ClientCount).Select(i => Task.Run(() => WorkAsync(people[i % people.Count], i, pause, clock, reads, saves, told))).ToList();
            var import = ImportAsync(people[1], clock);
            while (clock.Elapsed < Duration)
            {
                most = Math.Max(most, server.Memory);
                await Task.Delay(200);
            }

            await Task.WhenAll(clients);
            await import;
            Console.WriteLine(string.Create(CultureInfo.InvariantCulture, $"{ClientCount} clients, {pause.TotalSeconds:0} s between requests, {Duration.TotalSeconds:0} s, at most {most:0} MB; {machine.Stolen:0 %} of the machine went elsewhere:"));
            Console.WriteLine($"  reading: {reads}");
            Console.WriteLine($"  saving:  {saves}");
            var wrong = await told.CheckAsync(people[0]);
            Console.WriteLine($"  {told.Count} saves held against the histories, which do not hold: {wrong}");
            hasErrors |= reads.HasErrors || saves.HasErrors || wrong > 0;
        }

        if (folder is null)
        {
            Directory.Delete(data, recursive: true);
        }

        return hasErrors ? 1 : 0;
    }

    /// <summary>Lists as people want them: by a number, a date, a text, a choice.</summary>
    private static readonly string[] Sorted =
    [
        .. from column in (string[])["insuredValue", "startDate", "title", "borrowerType"]
           from isDown in (string[])["true", "false"]
           select $$"""{"columns": ["title", "borrower", "insuredValue", "startDate"], "sortBy": "{{column}}", "descending": {{isDown}}}""",
    ];

    /// <summary>Somebody brings a file in meanwhile.</summary>
    private static async Task ImportAsync(Client client, Stopwatch clock)
    {
        var file = string.Join("\n", Enumerable.Range(0, ImportedRows).Select(row => $"Imported {row},A house that lends").Prepend("title,borrower"));
        using var begun = await client.PostAsync($"{Loans}/imports", file, "text/csv");
        var id = System.Text.Json.Nodes.JsonNode.Parse(await begun.Content.ReadAsStringAsync())!["id"]!.GetValue<string>();
        var began = clock.Elapsed;
        while (true)
        {
            var progress = await client.ReadAsync($"/api/imports/{id}");
            if (progress["report"] is { } report)
            {
                Console.WriteLine(string.Create(CultureInfo.InvariantCulture, $"  import of {ImportedRows} rows: {report["imported"]} taken in within {(clock.Elapsed - began).TotalSeconds:0.0} s"));
                return;
            }

            await Task.Delay(500);
        }
    }

    private static async Task WorkAsync(Client client, int number, TimeSpan pause, Stopwatch clock, Latencies reads, Latencies saves, Told told)
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
                        var title = $"Title {Guid.NewGuid()}";
                        var answer = await client.SaveAsync(id, version, title);
                        if (answer.IsSuccessStatusCode && !told.Note(id, version + 1, title))
                        {
                            return new(System.Net.HttpStatusCode.Ambiguous);
                        }

                        return answer.StatusCode == System.Net.HttpStatusCode.UnprocessableEntity ? new(System.Net.HttpStatusCode.OK) : answer;
                    });
                    break;
                case < 4:
                    await reads.NoteAsync(() => client.PostAsync($"{Loans}/rows", Sorted[random.Next(Sorted.Length)]));
                    break;
                case < 5:
                    await reads.NoteAsync(() => client.PostAsync($"{Loans}/rows", """{"columns": ["title"], "search": "kite"}"""));
                    break;
                case < 6:
                    await reads.NoteAsync(() => client.PostAsync($"{Loans}/rows", """{"columns": ["title", "endDate"], "filter": {"kind": "clause", "of": "@stage", "test": "is", "values": ["terms"]}, "sortBy": "endDate"}"""));
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
