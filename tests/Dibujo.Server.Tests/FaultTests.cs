using System.Diagnostics;
using System.Net;
using System.Text.Json.Nodes;

namespace Dibujo.Server.Tests;

/// <summary>The built server where something is wrong with its folder, its database or its disk: it says so, and makes nothing up.</summary>
public sealed class FaultTests : IDisposable
{
    private readonly string data = ServerProcess.NewDataFolder();

    private string Database => Path.Combine(data, "dibujo.db");

    public void Dispose() => Directory.Delete(data, recursive: true);

    [Fact]
    public async Task A_broken_cut_or_missing_database_is_told_with_what_to_do_and_left_as_it_is()
    {
        await using (await ServerProcess.Start(data))
        {
            // Only to have data.
        }

        Settle();
        var whole = await File.ReadAllBytesAsync(Database);
        foreach (var (broken, code) in ((byte[]? Bytes, int Code)[])
            [
                (whole[..(whole.Length / 3)], 4),
                ([.. "This is no database at all. "u8, .. whole[28..]], 4),
                ([.. whole[..8192], .. new byte[40_000], .. whole[48_192..]], 4),
                (null, 5),
            ])
        {
            File.Delete(Database);
            if (broken is not null)
            {
                await File.WriteAllBytesAsync(Database, broken);
            }

            var (exitCode, says) = await ServerProcess.Fail(data);

            Assert.Equal((code, true), (exitCode, says.Contains(Database, StringComparison.Ordinal)));
            Assert.Contains(code == 5 ? "./demo --fresh" : "Put back a copy", says, StringComparison.Ordinal);
            Assert.DoesNotContain("   at ", says, StringComparison.Ordinal);
            Assert.Equal(broken is not null, File.Exists(Database));
            Assert.Equal(broken ?? [], broken is null ? [] : await File.ReadAllBytesAsync(Database));
        }
    }

    [Fact]
    public async Task A_disk_that_is_full_at_the_start_is_no_damage()
    {
        await using (await ServerProcess.Start(data))
        {
            // Only to have data.
        }

        Settle();
        // Not even the few pages of what is shared between connections have room.
        var (exitCode, says) = await ServerProcess.Fail(data, largestFile: 16);

        Assert.Equal((3, true), (exitCode, says.Contains(Database, StringComparison.Ordinal)));
        Assert.Contains("disk", says, StringComparison.Ordinal);
        Assert.DoesNotContain("Put back", says, StringComparison.Ordinal);
    }

    [Theory]
    [InlineData("deleted")]
    [InlineData("replaced")]
    [InlineData("cut")]
    public async Task No_save_is_answered_that_goes_with_the_process(string what)
    {
        await using (await ServerProcess.Start(data))
        {
            // Only to have data.
        }

        Settle();
        await using var server = await ServerProcess.Start(data);
        var lorenz = new Caller(new HttpClient { BaseAddress = server.Address });
        await lorenz.SignIn("lorenz");
        var id = await lorenz.Begin(new { title = "Kite" });
        var version = (await lorenz.Read($"/api/records/{id}"))["version"]!.GetValue<int>();
        if (what == "cut")
        {
            await using var cut = new FileStream(Database, FileMode.Open, FileAccess.Write, FileShare.ReadWrite | FileShare.Delete);
            cut.SetLength(4096);
        }
        else
        {
            File.Move(Database, Database + ".gone");
            if (what == "replaced")
            {
                File.Copy(Database + ".gone", Database);
            }
        }

        using var saved = await lorenz.Post($"/api/records/{id}/saves", new { version, changes = new { title = "Kite that goes" } });
        await Task.Delay(TimeSpan.FromSeconds(2.1));
        using var health = await lorenz.Get("/health");

        Assert.Equal((HttpStatusCode.ServiceUnavailable, HttpStatusCode.ServiceUnavailable), (saved.StatusCode, health.StatusCode));
        Assert.Contains("Nothing was saved", await saved.Content.ReadAsStringAsync(), StringComparison.Ordinal);
    }

    [Fact]
    public async Task Two_processes_do_not_share_a_folder()
    {
        await using var first = await ServerProcess.Start(data);

        var (exitCode, says) = await ServerProcess.Fail(data);

        Assert.Equal(3, exitCode);
        Assert.Contains("Another Dibujo may be running on it", says, StringComparison.Ordinal);
        Assert.DoesNotContain("   at ", says, StringComparison.Ordinal);
    }

    [Fact]
    public async Task A_folder_that_cannot_be_used_is_told()
    {
        var file = Path.Combine(data, "a-file");
        await File.WriteAllTextAsync(file, "");

        var (exitCode, says) = await ServerProcess.Fail(Path.Combine(file, "data"));

        Assert.Equal(3, exitCode);
        Assert.Contains("choose another folder with DIBUJO_DATA", says, StringComparison.Ordinal);
    }

    [Fact]
    public async Task On_a_full_disk_nothing_is_saved_and_all_is_said_and_afterwards_it_goes_on()
    {
        await using (await ServerProcess.Start(data))
        {
            // The database is made while there is room.
        }

        Settle();
        var most = (int)(new FileInfo(Database).Length / 1024) + 200;
        await using var server = await ServerProcess.Start(data, most);
        var lorenz = new Caller(new HttpClient { BaseAddress = server.Address });
        await lorenz.SignIn("lorenz");
        var id = await lorenz.Begin(new { title = "Kite" });
        HttpResponseMessage answer;
        var saves = 0;
        do
        {
            answer = await lorenz.Save(id, new { title = $"Kite {saves++}" });
        }
        while (answer.IsSuccessStatusCode && saves < 500);

        Assert.Equal(HttpStatusCode.ServiceUnavailable, answer.StatusCode);
        var problem = JsonNode.Parse(await answer.Content.ReadAsStringAsync())!;
        Assert.Contains("Nothing was saved; what you typed is still here.", problem["detail"]!.GetValue<string>(), StringComparison.Ordinal);
        Assert.Contains("disk", problem["detail"]!.GetValue<string>(), StringComparison.Ordinal);
        // Where a save has no room there may still be some for the little that is written to learn about it; now there is none.
        await LimitAsync(server, "1024:unlimited");
        await Task.Delay(TimeSpan.FromSeconds(2.1));
        using var asked = await lorenz.Get("/health");
        Assert.Equal(HttpStatusCode.ServiceUnavailable, asked.StatusCode);
        using var guess = await new Caller(new HttpClient { BaseAddress = server.Address }).Try("rosa", "wrong-password");
        Assert.Equal(HttpStatusCode.ServiceUnavailable, guess.StatusCode);
        Assert.Equal($"Kite {saves - 2}", (await lorenz.Read($"/api/records/{id}"))["values"]!["title"]!.GetValue<string>());

        // Room is made.
        await LimitAsync(server, "unlimited:unlimited");
        using var again = await lorenz.Save(id, new { title = "Kite at last" });
        Assert.Equal(HttpStatusCode.OK, again.StatusCode);
        await Task.Delay(TimeSpan.FromSeconds(2.1));
        using var healthy = await lorenz.Get("/health");
        Assert.Equal(HttpStatusCode.OK, healthy.StatusCode);
    }

    [Fact]
    public async Task What_is_sent_is_limited_at_each_address()
    {
        await using var server = await ServerProcess.Start(data);
        var lorenz = new Caller(new HttpClient { BaseAddress = server.Address });
        await lorenz.SignIn("lorenz");
        var keys = string.Join(',', Enumerable.Range(0, 128_000).Select(i => $"\"key{i}\""));

        using var save = await lorenz.Post("/api/record-types/object-loan/records", $$$"""{"changes": {"title": "Kite", "hazardKinds": [{{{keys}}}]}}""");
        using var signIn = await lorenz.Try("ada", new string('x', 10_000));
        using var health = await lorenz.Get("/health");

        Assert.Equal((HttpStatusCode.RequestEntityTooLarge, HttpStatusCode.RequestEntityTooLarge), (save.StatusCode, signIn.StatusCode));
        Assert.False(health.Headers.Contains("Server"));
    }

    /// <summary>Sets how many bytes no file of a server may exceed, now and at most.</summary>
    private static async Task LimitAsync(ServerProcess server, string bytes)
    {
        using var prlimit = Process.Start("prlimit", ["--pid", $"{server.Id}", $"--fsize={bytes}"]);
        await prlimit.WaitForExitAsync();
        Assert.Equal(0, prlimit.ExitCode);
    }

    /// <summary>Brings what is in the log into the database itself, as a clean end would have.</summary>
    private void Settle()
    {
        using var connection = new Microsoft.Data.Sqlite.SqliteConnection($"Data Source={Database};Pooling=false");
        connection.Open();
        using var command = connection.CreateCommand();
        command.CommandText = "PRAGMA wal_checkpoint(TRUNCATE)";
        command.ExecuteNonQuery();
    }
}
