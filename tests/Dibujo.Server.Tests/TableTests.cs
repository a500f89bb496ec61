using System.Globalization;
using System.Net;
using System.Text;
using System.Text.Json.Nodes;
using Microsoft.EntityFrameworkCore;
using MiniExcelLibs;

namespace Dibujo.Server.Tests;

/// <summary>A table that people have kept becomes a record type with its records.</summary>
public sealed class TableTests(Site site) : IClassFixture<Site>
{
    [Fact]
    public async Task A_workbook_becomes_a_record_type_and_its_rows_records_with_a_report()
    {
        using var stream = new MemoryStream();
        await stream.SaveAsAsync(Enumerable.Range(1, 40).Select(i => new Dictionary<string, object?>
        {
            ["Inventory title"] = $"Lantern {i}",
            ["Acquired"] = new DateTime(2020, 1, 1).AddDays(i),
            ["Height"] = i / 4.0,
            ["Framed"] = i % 2 == 0,
            ["Price (EUR)"] = i == 40 ? "a gift" : (object)(100.5 * i),
            ["Keeper"] = i % 3 == 0 ? "Rosa Quill" : "lorenz",
        }));

        var ada = await site.Known("ada");
        var table = await Look(ada, stream.ToArray());

        Assert.Equal(40, table["rows"]!.GetValue<int>());
        Assert.Equal(["text", "date", "number", "yesNo", "money"], Kinds(table).Take(5));
        Assert.Equal((1, 41), (table["columns"]![4]!["misfits"]!.GetValue<int>(), table["columns"]![4]!["firstMisfits"]![0]!["line"]!.GetValue<int>()));
        var report = await Take(ada, table, "lanterns", "inventoryTitle");

        Assert.Equal((39, 1), (report["imported"]!.GetValue<int>(), report["refused"]!.GetValue<int>()));
        var refused = report["rows"]!.AsArray().Single(row => row!["reasons"]!.AsArray().Count > 0)!;
        Assert.Equal((41, "Price (EUR) cannot hold “a gift”. Give an amount of money."), (refused["line"]!.GetValue<int>(), refused["reasons"]![0]!.GetValue<string>()));
        var first = await ada.Read($"/api/records/{report["rows"]![0]!["record"]}");
        Assert.Equal(("2020-01-02", 0.25m, false, 100.5m), (first["values"]!["acquired"]!.GetValue<string>(), first["values"]!["height"]!.GetValue<decimal>(), first["values"]!["framed"]!.GetValue<bool>(), first["values"]!["priceEur"]!.GetValue<decimal>()));
    }

    [Fact]
    public async Task A_column_may_be_taken_for_something_else_and_what_does_not_fit_is_told()
    {
        var ada = await site.Known("ada");
        var table = await Look(ada, "Name;Size\nGate;12\nTide;about 3\n");
        Assert.Equal("text", Kinds(table)[1]);
        var column = new JsonObject { ["column"] = 1, ["label"] = "Size", ["key"] = "size", ["type"] = JsonNode.Parse("""{"kind": "number"}"""), ["format"] = table["columns"]![1]!["format"]!.DeepClone() };
        using var answer = await ada.Post($"/api/tables/{table["id"]}/columns", column.ToJsonString());
        var then = JsonNode.Parse(await answer.Content.ReadAsStringAsync())!;

        Assert.Equal((2, 1, "about 3"), (then["filled"]!.GetValue<int>(), then["misfits"]!.GetValue<int>(), then["firstMisfits"]![0]!["cell"]!.GetValue<string>()));
    }

    [Fact]
    public async Task Titles_of_records_and_names_of_people_are_found()
    {
        var (ada, lorenz) = (await site.Known("ada"), await site.Known("lorenz"));
        List<string> titles = [];
        await site.InStore(async db => titles = await db.Records.Where(r => r.RecordType == "collection-object").GroupBy(r => r.Title).Where(g => g.Count() == 1).Select(g => g.Key).Take(20).ToListAsync());
        var people = JsonNode.Parse(await (await lorenz.Get("/api/people")).Content.ReadAsStringAsync())!.AsArray().Select(person => person!["displayName"]!.GetValue<string>()).ToList();
        var table = await Look(ada, "Object\tKeeper\n" + string.Join('\n', titles.Select((title, i) => $"{title}\t{people[i % people.Count]}")));

        Assert.Equal(["link", "person"], Kinds(table));
        Assert.Equal("collection-object", table["columns"]![0]!["type"]!["recordType"]!.GetValue<string>());
    }

    [Theory]
    [InlineData("", "nothing in it")]
    [InlineData("PK\u0003\u0004 no workbook", "workbook cannot be read")]
    public async Task What_is_no_table_is_refused_in_words(string file, string why)
    {
        using var answer = await (await site.Known("ada")).Post("/api/tables", new { file = Convert.ToBase64String(Encoding.UTF8.GetBytes(file)) });

        Assert.Equal(HttpStatusCode.UnprocessableEntity, answer.StatusCode);
        Assert.Contains(why, await answer.Content.ReadAsStringAsync(), StringComparison.Ordinal);
    }

    [Fact]
    public async Task An_import_can_be_ended_by_who_began_it_and_by_nobody_else()
    {
        var (ada, lorenz) = (await site.Known("ada"), await site.Known("lorenz"));
        var table = await Look(ada, "Name,Number\n" + string.Join('\n', Enumerable.Range(1, 20_000).Select(i => string.Create(CultureInfo.InvariantCulture, $"Row {i},{i}"))));
        using var taken = await ada.Post($"/api/tables/{table["id"]}/record-type", Taking(table, "long-table", "name").ToJsonString());
        var import = JsonNode.Parse(await taken.Content.ReadAsStringAsync())!["import"]!.GetValue<string>();
        using var other = await lorenz.Send(HttpMethod.Delete, $"/api/imports/{import}", null, withToken: true);
        using var ended = await ada.Send(HttpMethod.Delete, $"/api/imports/{import}", null, withToken: true);
        var report = await Report(ada, import);

        Assert.Equal((HttpStatusCode.NotFound, HttpStatusCode.NoContent), (other.StatusCode, ended.StatusCode));
        Assert.Equal(20_000, report["imported"]!.GetValue<int>() + report["refused"]!.GetValue<int>() + report["notReached"]!.GetValue<int>());
        Assert.NotEqual(0, report["notReached"]!.GetValue<int>());
    }

    private static string[] Kinds(JsonNode table) => [.. table["columns"]!.AsArray().Select(column => column!["type"]!["kind"]!.GetValue<string>())];

    private static Task<JsonNode> Look(Caller ada, string text) => Look(ada, Encoding.UTF8.GetBytes(text));

    private static async Task<JsonNode> Look(Caller ada, byte[] file)
    {
        using var answer = await ada.Post("/api/tables", new { file = Convert.ToBase64String(file) });
        var body = await answer.Content.ReadAsStringAsync();
        Assert.True(answer.IsSuccessStatusCode, body);
        return JsonNode.Parse(body)!;
    }

    private static JsonObject Taking(JsonNode table, string key, string title) => new()
    {
        ["key"] = key,
        ["label"] = key,
        ["titleField"] = title,
        ["columns"] = new JsonArray([.. table["columns"]!.AsArray().Select((column, i) => new JsonObject
        {
            ["column"] = i,
            ["label"] = column!["label"]!.DeepClone(),
            ["key"] = column["key"]!.DeepClone(),
            ["type"] = column["type"]!.DeepClone(),
            ["format"] = column["format"]!.DeepClone(),
        })]),
    };

    private static async Task<JsonNode> Take(Caller ada, JsonNode table, string key, string title)
    {
        using var taken = await ada.Post($"/api/tables/{table["id"]}/record-type", Taking(table, key, title).ToJsonString());
        var body = await taken.Content.ReadAsStringAsync();
        Assert.True(taken.IsSuccessStatusCode, body);
        return await Report(ada, JsonNode.Parse(body)!["import"]!.GetValue<string>());
    }

    private static async Task<JsonNode> Report(Caller ada, string import)
    {
        for (var tries = 0; tries < 1200; tries++)
        {
            var progress = await ada.Read($"/api/imports/{import}");
            Assert.Null(progress["failure"]?.GetValue<string>());
            if (progress["report"] is { } report)
            {
                return report;
            }

            await Task.Delay(50);
        }

        throw new TimeoutException();
    }
}
