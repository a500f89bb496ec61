using System.Net;
using System.Text.Json.Nodes;
using Dibujo.Store;
using Dibujo.Store.Records;
using Microsoft.EntityFrameworkCore;

namespace Dibujo.Server.Tests;

/// <summary>What came in from a file is taken back within a day, with nothing of anybody else.</summary>
public sealed class TakingBackTests(Site site) : IClassFixture<Site>
{
    private const string Works = "/api/record-types/gallery-works";

    [Fact]
    public async Task Records_that_an_import_began_are_gone_and_others_hold_what_they_held()
    {
        var lorenz = await site.Known("lorenz");
        var id = await Begin(lorenz, "Showcase");
        var before = await Many(db => db.Records);
        var import = await Import(lorenz, $"id,version,title,kind,building,room\n{id},1,Showcase of glass,plinth,north,n1\n{id},1,Showcase of brass,plinth,north,n1\n,,Fresh bench,plinth,north,n1\n,,Fresh stool,plinth,north,n1\n");
        Assert.Equal("Showcase of brass", await Title(lorenz, id));
        Assert.Equal(before + 2, await Many(db => db.Records));

        var report = await TakeBack(lorenz, import);

        Assert.Equal((3, 0), (Count(report, "imported"), Count(report, "refused")));
        Assert.Equal("Showcase", await Title(lorenz, id));
        Assert.Equal(before, await Many(db => db.Records));
        Assert.Equal(0, await Many(db => db.Records.Where(record => record.Title.StartsWith("Fresh "))));
        var entry = (await lorenz.ReadAll("/api/imports")).Single(one => one!["id"]!.GetValue<Guid>() == import)!;
        Assert.True(entry["isTakenBack"]!.GetValue<bool>());
        var ada = await site.Known("ada");
        Assert.Contains(await ada.ReadAll("/api/audit?event=importTakenBack"), one => one!["about"]!.GetValue<string>().StartsWith("Gallery works request, what came in on", StringComparison.Ordinal));
    }

    [Fact]
    public async Task What_somebody_saved_since_and_what_others_lead_to_stays_and_that_is_told()
    {
        var (lorenz, rosa) = (await site.Known("lorenz"), await site.Known("rosa"));
        var id = await Begin(lorenz, "Easel");
        var import = await Import(lorenz, $"id,version,title,kind,building,room\n{id},1,Easel of ash,plinth,north,n1\n,,Late ladder,plinth,north,n1\n,,Late lamp,plinth,north,n1\n");
        using var saved = await rosa.Save(id, new { title = "Easel of oak" });
        Assert.True(saved.IsSuccessStatusCode);
        var ladder = await Number("Late ladder");
        using var also = await rosa.Save(ladder, new { title = "Late ladder, tall" });
        Assert.True(also.IsSuccessStatusCode);

        var report = await TakeBack(lorenz, import);

        Assert.Equal((1, 2), (Count(report, "imported"), Count(report, "refused")));
        Assert.Contains("Rosa Okkema saved this record on", report.ToJsonString(), StringComparison.Ordinal);
        Assert.Equal("Easel of oak", await Title(lorenz, id));
        Assert.Equal("Late ladder, tall", await Title(lorenz, ladder));
        Assert.Equal(0, await Many(db => db.Records.Where(record => record.Title == "Late lamp")));
    }

    [Fact]
    public async Task A_record_to_which_another_leads_stays()
    {
        var ada = await site.Known("ada");
        var import = await Import(ada, "title,inventoryNumber\nLinked kite,LK-1\n", "collection-object");
        var kite = await Number("Linked kite");
        using var begun = await ada.Post("/api/record-types/object-loan/records", new { changes = new { title = "Kite for Vell", borrower = "Vell", purpose = "research", startDate = "2027-01-10", @object = kite } });
        Assert.True(begun.IsSuccessStatusCode, await begun.Content.ReadAsStringAsync());

        var report = await TakeBack(ada, import);

        Assert.Contains("leads to this record", report.ToJsonString(), StringComparison.Ordinal);
        Assert.Equal("Linked kite", await Title(ada, kite));
    }

    [Fact]
    public async Task It_is_told_after_a_new_start_to_whoever_began_it_and_to_nobody_else_and_a_day_later_to_nobody()
    {
        var (lorenz, rosa) = (await site.Known("lorenz"), await site.Known("rosa"));
        var import = await Import(lorenz, "title,kind,building,room\nKept stool,plinth,north,n1\nBad stool,nonsense,north,n1\n");

        // Nothing of it is in memory any more: the store tells of it.
        Assert.Equal(1, (await lorenz.Read($"/api/imports/{import}"))["report"]!["refused"]!.GetValue<int>());
        using var refused = await lorenz.Get($"/api/imports/{import}/refused.csv");
        Assert.Contains("Bad stool,nonsense", await refused.Content.ReadAsStringAsync(), StringComparison.Ordinal);
        using var others = await rosa.Post($"/api/imports/{import}/taking-back", new { });
        Assert.Equal(HttpStatusCode.NotFound, others.StatusCode);

        await site.InStore(db => db.Imports.Where(one => one.Id == import).ExecuteUpdateAsync(set => set.SetProperty(one => one.ThroughAt, one => DateTime.UnixEpoch).SetProperty(one => one.BegunAt, one => DateTime.UnixEpoch)));
        Assert.DoesNotContain((await lorenz.ReadAll("/api/imports")), one => one!["id"]!.GetValue<Guid>() == import);
        using var late = await lorenz.Post($"/api/imports/{import}/taking-back", new { });
        Assert.Equal(HttpStatusCode.NotFound, late.StatusCode);
    }

    private async Task<int> Many(Func<DibujoDb, IQueryable<StoredRecord>> which)
    {
        var many = 0;
        await site.InStore(async db => many = await which(db).CountAsync());
        return many;
    }

    private async Task<int> Number(string title)
    {
        var number = 0;
        await site.InStore(async db => number = (await db.Records.SingleAsync(record => record.Title == title)).Id);
        return number;
    }

    private static async Task<int> Begin(Caller caller, string title)
    {
        using var answer = await caller.Post($"{Works}/records", new { changes = new { title, kind = "plinth", building = "north", room = "n1" } });
        Assert.True(answer.IsSuccessStatusCode, await answer.Content.ReadAsStringAsync());
        return JsonNode.Parse(await answer.Content.ReadAsStringAsync())!["id"]!.GetValue<int>();
    }

    private static async Task<string> Title(Caller caller, int id) => (await caller.Read($"/api/records/{id}"))["values"]!["title"]!.GetValue<string>();

    private static int Count(JsonNode report, string what) => report[what]!.GetValue<int>();

    private static async Task<Guid> Import(Caller caller, string file, string type = "gallery-works")
    {
        using var answer = await caller.Send(HttpMethod.Post, $"/api/record-types/{type}/imports", file, true, "text/csv");
        var id = JsonNode.Parse(await answer.Content.ReadAsStringAsync())!["id"]!.GetValue<Guid>();
        await Through(caller, id);
        return id;
    }

    private static async Task<JsonNode> TakeBack(Caller caller, Guid import)
    {
        using var answer = await caller.Post($"/api/imports/{import}/taking-back", new { });
        Assert.True(answer.IsSuccessStatusCode, await answer.Content.ReadAsStringAsync());
        return await Through(caller, JsonNode.Parse(await answer.Content.ReadAsStringAsync())!["id"]!.GetValue<Guid>());
    }

    private static async Task<JsonNode> Through(Caller caller, Guid id)
    {
        while (true)
        {
            var progress = await caller.Read($"/api/imports/{id}");
            Assert.Null(progress["failure"]);
            if (progress["report"] is { } report)
            {
                return report;
            }

            await Task.Delay(20);
        }
    }
}
