using System.Net;
using System.Text.Json.Nodes;

namespace Dibujo.Server.Tests;

/// <summary>Rules and records in and out over HTTP, each row under the rules.</summary>
public sealed class ExchangeTests(Site site) : IClassFixture<Site>
{
    private const string Works = "/api/record-types/gallery-works";

    [Fact]
    public async Task Records_come_in_row_by_row_and_a_refused_row_changes_nothing()
    {
        var lorenz = await site.As("lorenz");
        const string File = "title,kind,building,room\nBench for the Lantern,plinth,north,n1\nBench,plinth,north,s1\nStairs,structure,,\n";

        using var answer = await lorenz.Send(HttpMethod.Post, $"{Works}/records.csv", File, true, "text/csv");
        var report = JsonNode.Parse(await answer.Content.ReadAsStringAsync())!;

        Assert.Equal(HttpStatusCode.OK, answer.StatusCode);
        Assert.Equal((2, 1), (report["imported"]!.GetValue<int>(), report["refused"]!.GetValue<int>()));
        Assert.Contains("not offered here", report["rows"]![1]!["reasons"]!.ToJsonString(), StringComparison.Ordinal);
        var id = report["rows"]![0]!["record"]!.GetValue<int>();
        var record = await lorenz.Read($"/api/records/{id}");
        Assert.Equal(10, record["values"]!["leadDays"]!.GetValue<int>());
        Assert.Equal("lorenz", record["values"]!["asked"]!.GetValue<string>());

        // What goes out comes in again as it was.
        using var exported = await lorenz.Get($"{Works}/records.csv");
        using var again = await lorenz.Send(HttpMethod.Post, $"{Works}/records.csv?dryRun=true", await exported.Content.ReadAsStringAsync(), true, "text/csv");
        Assert.Equal(0, JsonNode.Parse(await again.Content.ReadAsStringAsync())!["refused"]!.GetValue<int>());
    }

    [Fact]
    public async Task A_trial_import_says_what_would_come_and_begins_no_record()
    {
        var lorenz = await site.As("lorenz");
        var before = (await lorenz.Read($"{Works}/records"))["total"]!.GetValue<int>();

        using var answer = await lorenz.Send(HttpMethod.Post, $"{Works}/records.csv?dryRun=true", "title,kind,building,room\nShelf,plinth,north,n1\n", true, "text/csv");
        var report = JsonNode.Parse(await answer.Content.ReadAsStringAsync())!;

        Assert.Equal(1, report["imported"]!.GetValue<int>());
        Assert.Null(report["rows"]![0]!["record"]);
        Assert.Equal(before, (await lorenz.Read($"{Works}/records"))["total"]!.GetValue<int>());
    }

    [Fact]
    public async Task A_rule_for_imports_holds_for_imports_only()
    {
        var lorenz = await site.As("lorenz");
        using var answer = await lorenz.Send(HttpMethod.Post, "/api/record-types/object-loan/records.csv", "title\nLantern\n", true, "text/csv");
        Assert.Contains("An imported loan needs its borrower.", await answer.Content.ReadAsStringAsync(), StringComparison.Ordinal);
        Assert.True(await lorenz.Begin(new { title = "Lantern" }) > 0);
    }

    [Fact]
    public async Task An_import_of_rules_is_shown_and_then_applied()
    {
        var ada = await site.As("ada");
        using var exported = await ada.Get($"{Works}/draft/exports/pack");
        var pack = JsonNode.Parse(await exported.Content.ReadAsStringAsync())!;
        var rules = pack["rules"]!.AsArray().Count;
        pack["rules"]!.AsArray().RemoveAt(3);
        pack["rules"]![0]!["name"] = "Not ours";

        using var shown = await ada.Post($"{Works}/draft/imports", pack.ToJsonString());
        var view = JsonNode.Parse(await shown.Content.ReadAsStringAsync())!;
        Assert.Equal(
            ["changed notours", "removed time"],
            view["comparison"]!["differences"]!.AsArray().Select(d => $"{d!["change"]} {d["key"]}"));
        Assert.Equal(rules, (await ada.Read($"{Works}/draft"))["definition"]!["rules"]!.AsArray().Count);

        using var stale = await ada.Post($"{Works}/draft/imports?apply=99", pack.ToJsonString());
        Assert.Equal(HttpStatusCode.Conflict, stale.StatusCode);
        using var applied = await ada.Post($"{Works}/draft/imports?apply={view["version"]}", pack.ToJsonString());
        Assert.True(JsonNode.Parse(await applied.Content.ReadAsStringAsync())!["isApplied"]!.GetValue<bool>());
        Assert.Equal(rules - 1, (await ada.Read($"{Works}/draft"))["definition"]!["rules"]!.AsArray().Count);
    }

    [Theory]
    [InlineData("dmn", "decisionTable")]
    [InlineData("schema", "2020-12")]
    public async Task The_draft_goes_out_in_open_formats(string form, string content)
    {
        var ada = await site.As("ada");
        using var answer = await ada.Get($"/api/record-types/object-loan/draft/exports/{form}");
        Assert.Contains(content, await answer.Content.ReadAsStringAsync(), StringComparison.Ordinal);
    }

    [Theory]
    [InlineData("title,colour\na,b")]
    [InlineData("")]
    public async Task A_wrong_file_gets_a_problem_document(string file)
    {
        var lorenz = await site.As("lorenz");
        using var answer = await lorenz.Send(HttpMethod.Post, $"{Works}/records.csv", file, true, "text/csv");
        Assert.Equal(HttpStatusCode.BadRequest, answer.StatusCode);
        Assert.Equal("application/problem+json", answer.Content.Headers.ContentType!.MediaType);
    }
}
