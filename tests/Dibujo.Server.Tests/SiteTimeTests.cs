using System.Text.Json.Nodes;
using Microsoft.EntityFrameworkCore;

namespace Dibujo.Server.Tests;

/// <summary>Days and moments in filters are the site's, as the column shows them, wherever the server keeps UTC.</summary>
public sealed class SiteTimeTests(Site site) : IClassFixture<Site>, IDisposable
{
    private static readonly TimeZoneInfo East = TimeZoneInfo.CreateCustomTimeZone("Far east", TimeSpan.FromHours(14), "East", "East");

    public void Dispose() => site.Clock.Zone = TimeZoneInfo.Utc;

    [Theory]
    [InlineData("is", "2026-07-01", "after midnight there,at ten that day")]
    [InlineData("before", "2026-07-01", "before midnight there")]
    [InlineData("onOrBefore", "2026-07-01", "before midnight there,after midnight there,at ten that day")]
    [InlineData("fromOn", "2026-07-01", "after midnight there,at ten that day,the day after")]
    [InlineData("after", "2026-07-01", "the day after")]
    [InlineData("is", "2026-07-01T10:00:00", "at ten that day")]
    [InlineData("fromOn", "2026-07-01T10:00:00", "at ten that day,the day after")]
    [InlineData("after", "2026-07-01T10:00:00", "the day after")]
    [InlineData("before", "2026-07-01T10:00:00", "before midnight there,after midnight there")]
    public async Task A_day_is_the_sites_day(string test, string value, string expected)
    {
        site.Clock.Zone = East;
        var ada = await site.Known("ada");
        (string Title, DateTime At)[] saves =
        [
            ("before midnight there", new(2026, 6, 30, 9, 59, 0, DateTimeKind.Utc)), ("after midnight there", new(2026, 6, 30, 10, 1, 0, DateTimeKind.Utc)),
            ("at ten that day", new(2026, 6, 30, 20, 0, 0, 400, DateTimeKind.Utc)), ("the day after", new(2026, 7, 1, 10, 0, 0, DateTimeKind.Utc)),
        ];
        var ids = new List<(int Id, DateTime At)>();
        foreach (var (title, at) in saves)
        {
            ids.Add((await ada.Begin(new { title }), at));
        }

        await site.InStore(async db =>
        {
            foreach (var (id, at) in ids)
            {
                await db.Records.Where(r => r.Id == id).ExecuteUpdateAsync(set => set.SetProperty(r => r.ChangedAt, at));
            }
        });

        var found = await ada.Ask("/api/record-types/object-loan/rows", JsonNode.Parse(
            $$"""{"columns": ["title"], "filter": {"kind": "clause", "of": "@changedAt", "test": "{{test}}", "values": ["{{value}}"]}, "sortBy": "@changedAt", "take": 200}""")!);

        var own = ids.Select(one => one.Id).ToHashSet();
        Assert.Equal(expected.Split(','), found["rows"]!.AsArray().Where(row => own.Contains(row!["id"]!.GetValue<int>())).Select(row => row!["title"]!.GetValue<string>()));
    }

    [Fact]
    public async Task The_page_is_told_which_time_that_is()
    {
        site.Clock.Zone = East;

        Assert.Equal("Etc/GMT-14", (await (await site.Known("ada")).Read("/api/sign-in"))["timeZone"]!.GetValue<string>());
    }
}
