using System.Net;
using System.Text.Json.Nodes;

namespace Dibujo.Server.Tests;

/// <summary>Record types that are begun in the application: members see them once they are published.</summary>
public sealed class BegunTests(Site site) : IClassFixture<Site>
{
    [Fact]
    public async Task A_record_type_that_is_begun_can_be_published_as_it_is_and_filled_in()
    {
        var (ada, rosa) = (await site.As("ada"), await site.As("rosa"));
        using var begun = await ada.Post("/api/record-types", new { key = "frame", label = "Frame" });
        Assert.Equal(HttpStatusCode.OK, begun.StatusCode);
        Assert.DoesNotContain("frame", await Keys(rosa));
        using var draft = await ada.Get("/api/record-types/frame/draft");
        Assert.Empty(JsonNode.Parse(await draft.Content.ReadAsStringAsync())!["problems"]!.AsArray());

        using var published = await ada.Post("/api/record-types/frame/editions", new { version = 1, note = "" });
        Assert.Equal(HttpStatusCode.OK, published.StatusCode);
        Assert.Contains("frame", await Keys(rosa));
        using var record = await rosa.Post("/api/record-types/frame/records", new { changes = new { title = "Gilt, small" } });
        Assert.Equal(HttpStatusCode.Created, record.StatusCode);
    }

    [Theory]
    [InlineData("gallery-works", "Works", HttpStatusCode.Conflict)]
    [InlineData("Gallery Works", "Works", HttpStatusCode.BadRequest)]
    [InlineData("works", "  ", HttpStatusCode.BadRequest)]
    public async Task What_cannot_be_begun_is_refused(string key, string label, HttpStatusCode status)
    {
        var ada = await site.As("ada");
        using var answer = await ada.Post("/api/record-types", new { key, label });
        Assert.Equal(status, answer.StatusCode);
    }

    [Fact]
    public async Task A_pack_begins_a_record_type_once()
    {
        var ada = await site.As("ada");
        var pack = JsonNode.Parse(await File.ReadAllTextAsync(Checkout.Path("src", "Dibujo.Server", "Demo", "collection-object.pack.json")))!;
        pack["recordType"]!["key"] = "borrowed-object";
        using var begun = await ada.Post("/api/record-types/packs", pack.ToJsonString());
        Assert.Equal(HttpStatusCode.OK, begun.StatusCode);
        using var again = await ada.Post("/api/record-types/packs", pack.ToJsonString());
        Assert.Equal(HttpStatusCode.Conflict, again.StatusCode);
        using var nonsense = await ada.Post("/api/record-types/packs", "{}");
        Assert.Equal(HttpStatusCode.BadRequest, nonsense.StatusCode);
    }

    private static async Task<IEnumerable<string>> Keys(Caller caller)
    {
        using var answer = await caller.Get("/api/record-types");
        return [.. JsonNode.Parse(await answer.Content.ReadAsStringAsync())!.AsArray().Select(type => type!["key"]!.GetValue<string>())];
    }
}
