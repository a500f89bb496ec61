using System.Text.Json.Nodes;
using Dibujo.Server.Records;
using Microsoft.EntityFrameworkCore;
using Microsoft.Extensions.DependencyInjection;

namespace Dibujo.Server.Tests;

/// <summary>The index says of each record what the record holds; where it does not, that is found and mended beside the requests.</summary>
public sealed class IndexTests(Site site) : IClassFixture<Site>
{
    [Fact]
    public async Task What_is_wrong_in_the_index_is_found_and_mended_and_nothing_else()
    {
        var ada = await site.Known("ada");
        Assert.Empty(await Mended());
        var (lost, odd, mute, ghost) = (await ada.Begin(new { title = "Lost kite" }), await ada.Begin(new { title = "Odd kite" }), await ada.Begin(new { title = "Mute kite" }), await ada.Begin(new { title = "Ghost kite" }));
        await site.InStore(async db =>
        {
            await db.Database.ExecuteSqlAsync($"""DELETE FROM "IndexedValues" WHERE "Record" = {lost} AND "Field" = (SELECT "Id" FROM "IndexedFields" WHERE "RecordType" = 'object-loan' AND "Field" = 'title')""");
            await db.Database.ExecuteSqlAsync($"""UPDATE "IndexedValues" SET "Key" = x'3061' WHERE "Record" = {odd} AND "Field" = (SELECT "Id" FROM "IndexedFields" WHERE "RecordType" = 'object-loan' AND "Field" = 'title')""");
            await db.Database.ExecuteSqlAsync($"""DELETE FROM "RecordTexts" WHERE rowid = {mute}""");
            await db.Database.ExecuteSqlAsync($"""INSERT INTO "IndexedValues" ("Field", "Key", "Record") SELECT "Id", x'3062', {ghost} FROM "IndexedFields" WHERE "RecordType" = 'object-loan' AND "Field" = 'borrower'""");
        });
        Assert.Equal([odd, mute, ghost], await Found(ada, """{"kind": "clause", "of": "title", "test": "filledIn"}""", odd, mute, ghost, lost));

        Assert.Equal([lost, odd, mute, ghost], await Mended());

        Assert.Equal([lost, odd, mute, ghost], await Found(ada, """{"kind": "clause", "of": "title", "test": "contains", "values": ["kite"]}""", lost, odd, mute, ghost));
        Assert.Empty(await Found(ada, """{"kind": "clause", "of": "borrower", "test": "filledIn"}""", ghost));
        Assert.Empty(await Mended());
    }

    [Fact]
    public async Task Whoever_writes_and_by_whatever_way_the_index_is_right()
    {
        var ada = await site.Known("ada");
        var id = await ada.Begin(new { title = "By hand", borrower = "A house", insuredValue = 1200 });
        using var changed = await ada.Save(id, new { title = "By another hand", borrower = (string?)null, insuredValue = 1300, purpose = "research" });
        using var imported = await ada.Send(HttpMethod.Post, "/api/record-types/object-loan/records.csv?overwrite=true", $"id,title,borrower\n{id},By file,Another house\n,Begun by file,A third\n", true, "text/csv");
        var version = (await ada.Read($"/api/records/{id}"))["version"]!.GetValue<int>();
        using var rows = await ada.Post("/api/record-types/object-loan/changes", new { rows = new[] { new { id, version, changes = new { title = "By a row" } } }, columns = new[] { "title" } });
        await site.InStore(db => db.Records.Where(r => r.Id == id).ExecuteUpdateAsync(set => set.SetProperty(r => r.Values, new Core.Values.RecordValues([KeyValuePair.Create<string, Core.Values.Value>("title", new Core.Values.Text("By one statement"))]))));

        Assert.All(new[] { changed, imported, rows }, answer => Assert.True(answer.IsSuccessStatusCode));
        Assert.Empty(await Mended());
        Assert.Equal([id], await Found(ada, """{"kind": "clause", "of": "title", "test": "is", "values": ["by ONE statement"]}""", id));
    }

    private Task<IReadOnlyList<int>> Mended() => site.Services.GetRequiredService<Reindexing>().RunAsync(default);

    /// <summary>Those of some records that pass a filter.</summary>
    private static async Task<int[]> Found(Caller caller, string filter, params int[] among)
    {
        var question = JsonNode.Parse($$"""{"columns": ["title"], "filter": {{filter}}, "take": 200, "sortBy": "@number"}""")!;
        var rows = (await caller.Ask("/api/record-types/object-loan/rows", question))["rows"]!.AsArray().Select(row => row!["id"]!.GetValue<int>()).ToHashSet();
        question["sortBy"] = "@number";
        question["descending"] = true;
        rows.UnionWith((await caller.Ask("/api/record-types/object-loan/rows", question))["rows"]!.AsArray().Select(row => row!["id"]!.GetValue<int>()));
        return [.. among.Where(rows.Contains).Order()];
    }
}
