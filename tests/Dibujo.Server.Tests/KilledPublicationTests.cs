using System.Net;
using System.Text.Json;
using System.Text.Json.Nodes;
using Dibujo.Core.Json;
using Dibujo.Core.Records;
using Dibujo.Core.Reshaping;
using Dibujo.Core.Rules;
using Microsoft.Data.Sqlite;

namespace Dibujo.Server.Tests;

/// <summary>The built server, killed while a record type and its records change.</summary>
public sealed class KilledPublicationTests : IDisposable
{
    private const string Address = "/api/record-types/crates";

    /// <summary>How many records; DIBUJO_RESHAPED says more.</summary>
    private static readonly int Records = Tries.Of("DIBUJO_RESHAPED", 1500);

    /// <summary>How often the server is killed; DIBUJO_KILLS says more often.</summary>
    private static readonly int Kills = Tries.Of("DIBUJO_KILLS", 3);

    private readonly string data = ServerProcess.NewDataFolder();

    [Fact]
    public async Task A_publication_that_is_killed_has_happened_or_has_not()
    {
        await using (var first = await ServerProcess.Start(data))
        {
            await BeginAsync(await SignIn(first));
        }

        var (isRenamed, took) = (false, TimeSpan.FromMilliseconds(Records / 4));
        for (var kill = 0; kill < Kills; kill++)
        {
            await using (var server = await ServerProcess.Start(data))
            {
                var ada = await SignIn(server);
                await Rename(ada, isRenamed);
                var began = System.Diagnostics.Stopwatch.GetTimestamp();
                await Publish(ada);
                // Somewhere on the way, the last moments included; it is killed as the block is left.
                await Task.Delay(took * (Random.Shared.NextDouble() * 1.3));
                if (!await IsRunning(ada))
                {
                    took = System.Diagnostics.Stopwatch.GetElapsedTime(began);
                }
            }

            isRenamed = Look(isRenamed);
        }
    }

    public void Dispose()
    {
        SqliteConnection.ClearAllPools();
        Directory.Delete(data, recursive: true);
    }

    /// <summary>Holds every record against the edition in force: whether the field has its other name by now.</summary>
    private bool Look(bool before)
    {
        using var store = new SqliteConnection($"Data Source={Path.Combine(data, "dibujo.db")}");
        store.Open();
        Assert.Equal("ok", Ask<string>(store, "PRAGMA integrity_check"));
        var type = Ask<string>(store, """SELECT json_extract("Definition", '$.recordType.titleField') FROM "Editions" WHERE "RecordType" = 'crates' ORDER BY "Number" DESC LIMIT 1""");
        var (now, former) = type == "name" ? ("name", "title") : ("title", "name");

        Assert.Equal(Records, Ask<long>(store, $"""SELECT count(*) FROM "Records" WHERE "RecordType" = 'crates' AND json_extract("Values", '$.{now}') IS NOT NULL AND json_extract("Values", '$.{former}') IS NULL"""));
        // Each has as many entries as versions, the last under the edition in force where that changed it.
        Assert.Equal(0, Ask<long>(store, """SELECT count(*) FROM "Records" r WHERE r."RecordType" = 'crates' AND r."Version" <> (SELECT count(*) FROM "History" h WHERE h."RecordId" = r."Id")"""));
        Assert.Equal(Ask<long>(store, """SELECT "Published" FROM "RecordTypes" WHERE "Key" = 'crates'"""), Ask<long>(store, """SELECT max("Number") FROM "Editions" WHERE "RecordType" = 'crates'"""));
        var isRenamed = now == "name";
        // Where it came into force, what the draft wanted of the records is used up with it.
        Assert.Equal(isRenamed == before ? 1 : 0, Ask<long>(store, """SELECT json_array_length("Draft", '$.recordType.reshaping') FROM "RecordTypes" WHERE "Key" = 'crates'"""));
        return isRenamed;
    }

    private static T Ask<T>(SqliteConnection store, string question)
    {
        using var command = store.CreateCommand();
        command.CommandText = question;
        return (T)command.ExecuteScalar()!;
    }

    private static async Task BeginAsync(Caller ada)
    {
        using var begun = await ada.Post("/api/record-types", new { key = "crates", label = "Crate" });
        begun.EnsureSuccessStatusCode();
        await Publish(ada);
        for (var done = 0; done < Records; done += 5000)
        {
            var rows = string.Join('\n', Enumerable.Range(done, Math.Min(5000, Records - done)).Select(i => $"Crate {i}"));
            using var imported = await ada.Send(HttpMethod.Post, $"{Address}/records.csv", "title\n" + rows, withToken: true, "text/csv");
            imported.EnsureSuccessStatusCode();
        }
    }

    private static async Task Rename(Caller ada, bool isRenamed)
    {
        var draft = await ada.Read($"{Address}/draft");
        var definition = JsonSerializer.Deserialize(draft["definition"]!, CoreJson.Default.Definition)!;
        if (!definition.RecordType.Reshaping.IsEmpty)
        {
            // What was killed before is still wanted.
            return;
        }

        var then = Reshaped.By(definition, isRenamed ? new FieldRenamed("name", "title") : new FieldRenamed("title", "name")).Definition!;
        using var saved = await ada.Put($"{Address}/draft", new { version = draft["version"], definition = JsonNode.Parse(JsonText.Write<Definition>(then)) });
        saved.EnsureSuccessStatusCode();
    }

    private static async Task Publish(Caller ada)
    {
        var version = (await ada.Read($"{Address}/draft"))["version"];
        using var begun = await ada.Post($"{Address}/editions", new { version, note = "" });
        Assert.True(begun.StatusCode is HttpStatusCode.OK or HttpStatusCode.Accepted);
    }

    private static async Task<bool> IsRunning(Caller ada) => (await ada.Read($"{Address}/publication"))["isRunning"]!.GetValue<bool>();

    private static async Task<Caller> SignIn(ServerProcess server)
    {
        var caller = new Caller(new HttpClient { BaseAddress = server.Address });
        await caller.SignIn("ada");
        return caller;
    }
}
