using System.Net;
using System.Text.Json.Nodes;
using Dibujo.Core.Inference;
using Dibujo.Server.RecordTypes;
using Dibujo.Server.Tables;
using Dibujo.Store;
using Microsoft.EntityFrameworkCore;
using Microsoft.Extensions.DependencyInjection;

namespace Dibujo.Server.Tests;

/// <summary>What the process keeps between requests has a bound, however long it runs.</summary>
public sealed class KeptTests(Site site) : IClassFixture<Site>
{
    [Fact]
    public async Task Of_editions_that_are_not_in_force_the_latest_that_were_asked_for_are_kept()
    {
        await site.InStore(async db =>
        {
            var first = await db.Editions.AsNoTracking().SingleAsync(e => e.RecordType == "gallery-works" && e.Number == 1);
            for (var number = 1000; number < 1060; number++)
            {
                db.Editions.Add(new() { RecordType = first.RecordType, Number = number, Definition = first.Definition, Note = "", By = "ada", At = first.At });
            }
        });
        await using var scope = site.Services.CreateAsyncScope();
        var (db, editions) = (scope.ServiceProvider.GetRequiredService<DibujoDb>(), scope.ServiceProvider.GetRequiredService<Editions>());

        for (var number = 1000; number < 1060; number++)
        {
            Assert.Equal(number, (await editions.NumberedAsync(db, "gallery-works", number, default))!.Number);
        }

        Assert.InRange(editions.Former, 1, 32);
        Assert.Equal(1, (await editions.CurrentAsync(db, "gallery-works", default))!.Number);
    }

    [Fact]
    public async Task Of_finished_imports_a_person_is_told_of_the_latest()
    {
        var rosa = await site.Known("rosa");
        var ids = new List<string>();
        for (var i = 0; i < 22; i++)
        {
            using var begun = await rosa.Send(HttpMethod.Post, "/api/record-types/object-loan/imports", $"title,borrower\nKept {i},A house\n", true, "text/csv");
            ids.Add(JsonNode.Parse(await begun.Content.ReadAsStringAsync())!["id"]!.GetValue<string>());
            while ((await rosa.Read($"/api/imports/{ids[^1]}"))["report"] is null)
            {
                await Task.Delay(20);
            }
        }

        using var old = await rosa.Get($"/api/imports/{ids[0]}");
        Assert.Equal(HttpStatusCode.NotFound, old.StatusCode);
        Assert.NotNull((await rosa.Read($"/api/imports/{ids[^1]}"))["report"]);
    }

    [Fact]
    public async Task A_connection_is_told_of_so_much_and_no_more()
    {
        var (connection, _) = await (await Walker.SignedIn(site, "lorenz", "quillhaven")).Listen("/live/records", _ => { });
        await using (connection)
        {
            await Assert.ThrowsAnyAsync<Exception>(async () =>
            {
                for (var i = 0; i < 101; i++)
                {
                    await connection.InvokeCoreAsync("Watch", typeof(object), [$"type {i}"]);
                }
            });
        }
    }

    [Fact]
    public async Task Tables_are_kept_as_long_as_there_is_room_for_them_and_for_what_is_known_of_records()
    {
        await using var scope = site.Services.CreateAsyncScope();
        var lookup = await StoredLookup.ReadAsync(scope.ServiceProvider.GetRequiredService<DibujoDb>(), default);
        using var tables = new ReadTables();
        var table = SourceTable.Of([["Name"], .. Enumerable.Range(0, 90_000).Select(i => new[] { $"Row {i}" })]).Table!;

        var kept = Enumerable.Range(0, 100).Count(_ => tables.Keep(table, [], lookup) is not null);

        Assert.InRange(kept, 1, 6_000_000 / 90_000);
        Assert.True(lookup.Size > 400);
    }
}
