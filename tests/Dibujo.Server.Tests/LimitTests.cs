using System.Net;
using System.Text.Json.Nodes;
using Dibujo.Core.Values;
using Dibujo.Store.Records;
using Microsoft.EntityFrameworkCore;

namespace Dibujo.Server.Tests;

/// <summary>However much is sent or asked for, the answer is bounded.</summary>
public sealed class LimitTests(Site site) : IClassFixture<Site>
{
    private const string Loans = "/api/record-types/object-loan";

    [Fact]
    public async Task A_hundred_thousand_choices_are_refused()
    {
        var lorenz = await site.Known("lorenz");
        var keys = string.Join(',', Enumerable.Range(0, 100_000).Select(i => $"\"key{i}\""));

        using var answer = await lorenz.Post($"{Loans}/records", $$$"""{"changes": {"title": "Kite", "hazardKinds": [{{{keys}}}]}}""");

        Assert.Equal(HttpStatusCode.UnprocessableEntity, answer.StatusCode);
        Assert.True((await answer.Content.ReadAsStringAsync()).Length < 2000);
    }

    [Fact]
    public async Task The_version_comes_before_what_was_sent()
    {
        var lorenz = await site.Known("lorenz");
        var id = await lorenz.Begin(new { title = "Kite" });

        using var answer = await lorenz.Post($"/api/records/{id}/saves", """{"version": 7, "changes": {"no": 1, "such": 2, "fields": 3}}""");

        Assert.Equal(HttpStatusCode.Conflict, answer.StatusCode);
    }

    [Theory]
    [InlineData("?search=for")]
    [InlineData("?stage=enquiry")]
    [InlineData("")]
    public async Task Page_by_page_every_record_comes_once_in_order(string query)
    {
        var lorenz = await site.Known("lorenz");
        var seen = new List<(DateTime At, int Id)>();
        string? after = null;
        int total;
        do
        {
            var page = await lorenz.Read($"{Loans}/records{query}{(after is null ? "" : (query.Length == 0 ? "?" : "&") + "after=" + after)}");
            Assert.InRange(page["rows"]!.AsArray().Count, 1, 25);
            seen.AddRange(page["rows"]!.AsArray().Select(r => (r!["changedAt"]!.GetValue<DateTime>(), r["id"]!.GetValue<int>())));
            total = page["total"]!.GetValue<int>();
            after = page["next"]?.GetValue<string>();
        }
        while (after is not null);

        Assert.Equal(total, seen.Count);
        Assert.Equal(seen.OrderByDescending(r => r.At).ThenByDescending(r => r.Id), seen);
        Assert.Equal(total, seen.Distinct().Count());
    }

    [Theory]
    [InlineData("?after=nonsense")]
    [InlineData("?after=99999999999999999999-1")]
    [InlineData("?after=3155378975999999999999-1")]
    [InlineData("?after=-")]
    public async Task A_place_to_go_on_from_that_no_page_gave_is_refused(string query)
    {
        using var answer = await (await site.Known("lorenz")).Get($"{Loans}/records{query}");

        Assert.Equal(HttpStatusCode.BadRequest, answer.StatusCode);
    }

    [Fact]
    public async Task The_list_is_read_from_an_index_alone() => await site.InStore(async db =>
    {
        foreach (var filter in (string[])["", " AND \"Title\" LIKE '%for%'", " AND \"Stage\" = 'enquiry'"])
        {
            var plan = new List<string>();
            await using var command = db.Database.GetDbConnection().CreateCommand();
            command.CommandText = $"EXPLAIN QUERY PLAN SELECT \"Id\", \"Title\", \"Workflow\", \"Stage\", \"ChangedAt\", \"ChangedBy\" FROM \"Records\" WHERE \"RecordType\" = 'object-loan'{filter} ORDER BY \"ChangedAt\" DESC, \"Id\" DESC LIMIT 26";
            await db.Database.OpenConnectionAsync();
            await using var reader = await command.ExecuteReaderAsync();
            while (await reader.ReadAsync())
            {
                plan.Add(reader.GetString(3));
            }

            Assert.All(plan, step => Assert.Contains("USING COVERING INDEX", step, StringComparison.Ordinal));
        }
    });

    [Fact]
    public async Task The_database_keeps_count_of_records_by_itself()
    {
        var lorenz = await site.Known("lorenz");
        var id = await lorenz.Begin(new { title = "Kite", borrower = "Civic Gallery Vell", purpose = "research", startDate = "2027-01-10", @object = 1 });
        using var moved = await lorenz.Save(id, new { }, "assess");
        Assert.True(moved.IsSuccessStatusCode);

        await site.InStore(async db => Assert.Equal(
            await db.Records.GroupBy(r => new { r.RecordType, r.Stage }).Select(g => new { g.Key.RecordType, g.Key.Stage, Records = g.Count() }).OrderBy(c => c.RecordType).ThenBy(c => c.Stage).ToListAsync(),
            await db.RecordCounts.Where(c => c.Records > 0).Select(c => new { c.RecordType, c.Stage, c.Records }).OrderBy(c => c.RecordType).ThenBy(c => c.Stage).ToListAsync()));
    }

    [Fact]
    public async Task A_long_history_comes_page_by_page()
    {
        var lorenz = await site.Known("lorenz");
        var id = await lorenz.Begin(new { title = "Kite" });
        await site.InStore(async db =>
        {
            db.History.AddRange(Enumerable.Range(2, 60).Select(version => new HistoryEntry
            {
                RecordId = id,
                Version = version,
                By = "lorenz",
                At = DateTime.UtcNow,
                Edition = 1,
                Before = RecordValues.Empty,
                After = RecordValues.Empty,
                FromStage = "enquiry",
                ToStage = "enquiry",
            }));
            await db.SaveChangesAsync();
        });

        var versions = new List<int>();
        for (var before = ""; ;)
        {
            using var answer = await lorenz.Get($"/api/records/{id}/history{before}");
            var page = JsonNode.Parse(await answer.Content.ReadAsStringAsync())!.AsArray().Select(e => e!["version"]!.GetValue<int>()).ToList();
            if (page.Count == 0)
            {
                break;
            }

            Assert.InRange(page.Count, 1, 25);
            versions.AddRange(page);
            before = $"?before={page[^1]}";
        }

        Assert.Equal(Enumerable.Range(1, 61).Reverse(), versions);
    }

    [Fact]
    public async Task An_export_names_each_records_version_and_is_read_back()
    {
        var lorenz = await site.Known("lorenz");
        using var export = await lorenz.Get($"{Loans}/records.csv");
        var text = await export.Content.ReadAsStringAsync();

        Assert.StartsWith("id,version,workflow,stage,", text, StringComparison.Ordinal);
        Assert.Null(Core.Csv.RecordTable.Read(Core.Packs.PackFile.Read(
            await File.ReadAllBytesAsync(Checkout.Path("src", "Dibujo.Server", "Demo", "object-loan.pack.json"))).Pack!.RecordType, text).Mistake);
    }

    [Fact]
    public async Task A_list_of_record_types_follows_what_drafts_say()
    {
        var ada = await site.Known("ada");
        var draft = await ada.Read("/api/record-types/gallery-works/draft");
        var rules = draft["definition"]!["rules"]!.AsArray().Count;
        draft["definition"]!["recordType"]!["label"] = "Works in the gallery";
        using var saved = await ada.Put("/api/record-types/gallery-works/draft", new { version = draft["version"]!.GetValue<int>(), definition = draft["definition"] });
        Assert.True(saved.IsSuccessStatusCode);

        using var answer = await ada.Get("/api/record-types");
        var works = JsonNode.Parse(await answer.Content.ReadAsStringAsync())!.AsArray().Single(t => t!["key"]!.GetValue<string>() == "gallery-works")!;

        Assert.Equal(("Works in the gallery", rules), (works["label"]!.GetValue<string>(), works["rules"]!.GetValue<int>()));
    }
}
