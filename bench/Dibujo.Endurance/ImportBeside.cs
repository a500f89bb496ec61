using System.Globalization;
using System.Text;

namespace Dibujo.Endurance;

/// <summary>Saves while a file of 20,000 rows comes in, and while it is tried.</summary>
internal static class ImportBeside
{
    internal static async Task<int> RunAsync()
    {
        var data = BuiltServer.NewFolder();
        var (server, _) = await BuiltServer.StartAsync(data);
        await using (server)
        {
            using var lorenz = await Client.SignInAsync(server.Address, "lorenz");
            using var rosa = await Client.SignInAsync(server.Address, "rosa");
            var file = "title,borrower,purpose\n" + string.Concat(Enumerable.Range(0, 20_000).Select(i => string.Create(CultureInfo.InvariantCulture, $"Import {i},Civic Gallery Vell,research\n")));
            var id = await rosa.BeginAsync("Beside an import");
            var version = 1;
            var hasErrors = false;
            foreach (var trial in (bool[])[true, false])
            {
                var saves = new Latencies();
                var clock = System.Diagnostics.Stopwatch.StartNew();
                var import = Task.Run(() => lorenz.SendAsync(
                    HttpMethod.Post, $"/api/record-types/object-loan/records.csv?dryRun={(trial ? "true" : "false")}", new StringContent(file, Encoding.UTF8, "text/csv")));
                while (!import.IsCompleted)
                {
                    await saves.NoteAsync(() => rosa.SaveAsync(id, version++, $"Beside an import {version}"));
                    await Task.Delay(20);
                }

                using var answer = await import;
                Console.WriteLine(string.Create(CultureInfo.InvariantCulture, $"{(trial ? "Trial" : "Import")} of 20,000 rows: {answer.StatusCode} in {clock.Elapsed.TotalSeconds:0.0} s, {server.Memory:0} MB; saves beside it: {saves}"));
                hasErrors |= saves.HasErrors || !answer.IsSuccessStatusCode;
            }

            return hasErrors ? 1 : 0;
        }
    }
}
