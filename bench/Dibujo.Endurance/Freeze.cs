using System.Globalization;
using System.Net.Http.Json;
using System.Text.Json.Nodes;

namespace Dibujo.Endurance;

/// <summary>
/// 200 changes of accounts, invitations and welcomes beside 12 imports and 8 people who save as fast as they can: nobody who writes waits
/// for more than two seconds, and nothing goes wrong.
/// </summary>
internal static class Freeze
{
    private const string Password = "a good long one";
    private const int Changes = 200;
    private const int Imports = 12;
    private const int ImportedRows = 400;
    private const int Savers = 8;
    private const int Administrators = 4;

    private static readonly string[] Registrar = ["registrar"];
    private static readonly string[] Both = ["registrar", "conservator"];

    private static readonly TimeSpan LongestWait = TimeSpan.FromSeconds(2);

    internal static async Task<int> RunAsync()
    {
        var data = BuiltServer.NewFolder();
        var (server, _) = await BuiltServer.StartAsync(data);
        await using var __ = server;
        using var ada = await Client.SignInAsync(server.Address, "ada");
        using var lorenz = await Client.SignInAsync(server.Address, "lorenz");
        var (accounts, saves) = (new Latencies(), new Latencies());
        using var through = new CancellationTokenSource(TimeSpan.FromMinutes(5));

        var imports = new List<string>();
        for (var i = 0; i < Imports; i++)
        {
            var file = string.Join("\n", Enumerable.Range(0, ImportedRows).Select(row => $"Of file {i} row {row},A house that lends").Prepend("title,borrower"));
            using var begun = await lorenz.PostAsync("/api/record-types/object-loan/imports", file, "text/csv");
            imports.Add(JsonNode.Parse(await begun.Content.ReadAsStringAsync())!["id"]!.GetValue<string>());
        }

        var changing = Enumerable.Range(0, Administrators).Select(worker => Task.Run(async () =>
        {
            for (var change = worker; change < Changes && !through.IsCancellationRequested; change += Administrators)
            {
                await ChangeAsync(ada, change, accounts);
            }
        })).ToList();
        var done = Task.WhenAll(changing);
        await Task.WhenAll(Enumerable.Range(0, Savers).Select(async saver =>
        {
            var (id, version) = (await lorenz.BeginAsync($"Saved by {saver}"), 1);
            while (!done.IsCompleted && !through.IsCancellationRequested)
            {
                await saves.NoteAsync(async () =>
                {
                    var answer = await lorenz.SaveAsync(id, version, Guid.NewGuid().ToString());
                    version += answer.IsSuccessStatusCode ? 1 : 0;
                    return answer;
                });
            }
        }).Append(done)).WaitAsync(TimeSpan.FromMinutes(6));

        var taken = 0;
        foreach (var import in imports)
        {
            JsonNode? report;
            while ((report = (await lorenz.ReadAsync($"/api/imports/{import}"))["report"]) is null)
            {
                await Task.Delay(100);
            }

            taken += report["imported"]!.GetValue<int>();
        }

        Console.WriteLine($"{Changes} changes of accounts: {accounts}");
        Console.WriteLine($"saves beside them: {saves}");
        Console.WriteLine(string.Create(CultureInfo.InvariantCulture, $"{Imports} imports took in {taken} of {Imports * ImportedRows} rows; the longest anybody waited is to be {LongestWait.TotalSeconds:0} s"));
        return accounts.HasErrors || saves.HasErrors || taken != Imports * ImportedRows || accounts.Longest > LongestWait || saves.Longest > LongestWait ? 1 : 0;
    }

    /// <summary>Invites somebody, and every now and then has them set a password, or gives them other roles.</summary>
    private static async Task ChangeAsync(Client ada, int change, Latencies accounts)
    {
        var name = string.Create(CultureInfo.InvariantCulture, $"person{change / 2}");
        if (change % 2 == 0)
        {
            string? key = null;
            await accounts.NoteAsync(async () =>
            {
                var answer = await ada.SendAsync(HttpMethod.Post, "/api/accounts", JsonContent.Create(new { userName = name, displayName = name, roles = Registrar }));
                key = answer.IsSuccessStatusCode ? JsonNode.Parse(await answer.Content.ReadAsStringAsync())!["key"]!.GetValue<string>() : null;
                return answer;
            });
            if (change % 8 == 0 && key is not null)
            {
                await accounts.NoteAsync(() => ada.SendAsync(HttpMethod.Post, "/api/welcome", JsonContent.Create(new { key, password = Password })));
            }
        }
        else
        {
            // Of an account that is there since the demo: its own may be on its way.
            await accounts.NoteAsync(() => ada.SendAsync(HttpMethod.Put, "/api/accounts/rosa", JsonContent.Create(new { displayName = "Rosa Okkema", roles = change % 4 == 1 ? Both : Registrar, isDisabled = false })));
        }
    }
}
