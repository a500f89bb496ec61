using System.Net;
using System.Text.Json.Nodes;
using Dibujo.Core.Values;
using Dibujo.Server.Records;
using Dibujo.Server.RecordTypes;
using Microsoft.EntityFrameworkCore;

namespace Dibujo.Server.Tests;

/// <summary>Records that come in from a file overwrite nobody's later save unseen, and hold nobody up.</summary>
public sealed class ImportTests(Site site) : IClassFixture<Site>
{
    private const string Works = "/api/record-types/gallery-works";

    [Fact]
    public async Task An_older_export_does_not_overwrite_a_later_save_unless_that_is_chosen()
    {
        var (lorenz, rosa) = (await site.Known("lorenz"), await site.Known("rosa"));
        var id = await Begin(lorenz, "Bench");
        var file = await Row(lorenz, id);
        using var saved = await rosa.Save(id, new { title = "Bench of oak" });
        Assert.True(saved.IsSuccessStatusCode);
        file = file.Replace("Bench", "Bench by the window", StringComparison.Ordinal);

        var refused = await Import(lorenz, file);
        Assert.Equal((0, 1), (Count(refused, "imported"), Count(refused, "refused")));
        Assert.Contains("Rosa Okkema saved this record on", refused.ToJsonString(), StringComparison.Ordinal);
        Assert.Equal("Bench of oak", await Title(lorenz, id));

        Assert.Equal(1, Count(await Import(lorenz, file, "?overwrite=true"), "imported"));
        Assert.Equal("Bench by the window", await Title(lorenz, id));
    }

    [Fact]
    public async Task A_file_without_versions_says_before_it_is_applied_what_was_changed_last()
    {
        var lorenz = await site.Known("lorenz");
        var id = await Begin(lorenz, "Plinth for the Kite");
        var file = $"id,title\n{id},Plinth for the Cloak\n";

        var trial = await Import(lorenz, file, "?dryRun=true");
        using var applied = await lorenz.Send(HttpMethod.Post, $"{Works}/records.csv", file, true, "text/csv");

        Assert.Contains($"No. {id}, Plinth for the Kite, by Lorenz Vahl on ", trial["latest"]![0]!.GetValue<string>(), StringComparison.Ordinal);
        Assert.Equal(HttpStatusCode.Conflict, applied.StatusCode);
        Assert.Contains("Plinth for the Kite", JsonNode.Parse(await applied.Content.ReadAsStringAsync())!["detail"]!.GetValue<string>(), StringComparison.Ordinal);
        Assert.Equal("Plinth for the Kite", await Title(lorenz, id));
        Assert.Equal(1, Count(await Import(lorenz, file, "?overwrite=true"), "imported"));
    }

    [Fact]
    public async Task A_trial_writes_nothing_and_tells_what_later_rows_would_see()
    {
        var lorenz = await site.Known("lorenz");
        var id = await Begin(lorenz, "Cabinet");
        var file = await Row(lorenz, id);
        var twice = file + file.Split('\n', 2)[1].Replace("Cabinet", "Cabinet of glass", StringComparison.Ordinal);
        long before = 0, after = 0;
        await site.InStore(async db => before = await db.History.LongCountAsync());

        var report = await Import(lorenz, twice + ",,,,New bench,plinth\n", "?dryRun=true");

        await site.InStore(async db => after = await db.History.LongCountAsync());
        Assert.Equal(before, after);
        Assert.Equal("Cabinet", await Title(lorenz, id));
        Assert.True(Count(report, "imported") >= 2, report.ToJsonString());
    }

    [Fact]
    public async Task A_record_that_comes_twice_is_changed_twice()
    {
        var lorenz = await site.Known("lorenz");
        var id = await Begin(lorenz, "Lamp");

        var report = await Import(lorenz, $"id,version,title\n{id},1,Lamp one\n{id},1,Lamp two\n");

        Assert.Equal(2, Count(report, "imported"));
        Assert.Equal("Lamp two", await Title(lorenz, id));
        Assert.Equal(3, (await lorenz.Read($"/api/records/{id}"))["version"]!.GetValue<int>());
    }

    [Fact]
    public async Task A_row_names_the_stage_at_which_its_record_is_or_none()
    {
        var lorenz = await site.Known("lorenz");
        var id = await Begin(lorenz, "Stairs");

        var report = await Import(lorenz, $"id,version,stage,title\n{id},1,done,Stairs one\n,,attic,Stairs two\n,,,Stairs three\n");

        var reasons = report["rows"]!.AsArray().Select(r => string.Join(' ', r!["reasons"]!.AsArray().Select(x => x!.GetValue<string>()))).ToArray();
        Assert.Contains("An import does not move records", reasons[0], StringComparison.Ordinal);
        Assert.Contains("has no stage “attic”", reasons[1], StringComparison.Ordinal);
    }

    [Fact]
    public async Task A_row_sees_linked_records_as_the_rows_before_it_leave_them()
    {
        var lorenz = await site.Known("lorenz");
        var id = await Begin(lorenz, "Lantern");
        await site.InStore(async db =>
        {
            var lookup = new RecordLookup(db, new Editions());
            Assert.Equal("Lantern", lookup.Find("gallery-works", id)!["title"].Plain);

            var changed = await db.Records.AsNoTracking().SingleAsync(r => r.Id == id);
            changed.Values = changed.Values.With("title", new Text("Lantern of glass"));
            lookup.Expect(changed);
            lookup.Forget(andExpected: false);
            Assert.Equal("Lantern of glass", lookup.Find("gallery-works", id)!["title"].Plain);

            lookup.Forget(andExpected: true);
            Assert.Equal("Lantern", lookup.Find("gallery-works", id)!["title"].Plain);
        });
    }

    [Fact]
    public async Task Others_save_while_a_long_file_comes_in()
    {
        var (lorenz, rosa) = (await site.Known("lorenz"), await site.Known("rosa"));
        var id = await Begin(rosa, "Vitrine");
        var import = Import(lorenz, "title,kind,building,room\n" + string.Concat(Enumerable.Repeat("Bench,plinth,north,n1\n", 2000)));
        var saves = 0;
        while (!import.IsCompleted)
        {
            using var saved = await rosa.Save(id, new { title = $"Vitrine {saves++}" });
            Assert.True(saved.IsSuccessStatusCode);
        }

        Assert.Equal(2000, Count(await import, "imported"));
        // As long as the file held everybody up there was one.
        Assert.True(saves > 3, $"{saves}");
    }

    [Fact]
    public async Task A_decision_table_with_a_million_rows_is_turned_away_at_the_first_rows_too_many()
    {
        var ada = await site.Known("ada");
        var rows = string.Concat(Enumerable.Repeat("<rule><inputEntry><text>1</text></inputEntry></rule>", 120_000));
        using var answer = await ada.Send(HttpMethod.Post, "/api/record-types/object-loan/draft/imports",
            $"<definitions xmlns=\"https://www.omg.org/spec/DMN/20191111/MODEL/\"><decision id=\"d\" name=\"D\"><decisionTable>{rows}</decisionTable></decision></definitions>", true, "application/xml");

        Assert.Equal(HttpStatusCode.BadRequest, answer.StatusCode);
        Assert.Contains("more than 1,000 rows", await answer.Content.ReadAsStringAsync(), StringComparison.Ordinal);
    }

    private static async Task<int> Begin(Caller caller, string title)
    {
        using var begun = await caller.Post($"{Works}/records", new { changes = new { title, kind = "plinth", building = "north", room = "n1" } });
        Assert.True(begun.IsSuccessStatusCode, await begun.Content.ReadAsStringAsync());
        return JsonNode.Parse(await begun.Content.ReadAsStringAsync())!["id"]!.GetValue<int>();
    }

    /// <summary>The export, cut down to that record.</summary>
    private static async Task<string> Row(Caller caller, int id)
    {
        using var export = await caller.Get($"{Works}/records.csv");
        var lines = (await export.Content.ReadAsStringAsync()).Split("\r\n");
        return lines[0] + "\n" + lines.Single(line => line.StartsWith($"{id},", StringComparison.Ordinal)) + "\n";
    }

    private static async Task<JsonNode> Import(Caller caller, string file, string query = "")
    {
        using var answer = await caller.Send(HttpMethod.Post, $"{Works}/records.csv{query}", file, true, "text/csv");
        var body = await answer.Content.ReadAsStringAsync();
        Assert.True(answer.IsSuccessStatusCode, body);
        return JsonNode.Parse(body)!;
    }

    private static int Count(JsonNode report, string what) => report[what]!.GetValue<int>();

    private static async Task<string> Title(Caller caller, int id) => (await caller.Read($"/api/records/{id}"))["values"]!["title"]!.GetValue<string>();
}
