using System.Text.Json.Nodes;

namespace Dibujo.Server.Tests;

/// <summary>Steps of an administrator, over HTTP.</summary>
internal static class Draft
{
    internal const string Address = "/api/record-types/object-loan/draft";

    /// <summary>Adds a rule to the draft, highest, and publishes it.</summary>
    internal static async Task AddRule(Caller administrator, string rule)
    {
        var draft = await administrator.Read(Address);
        draft["definition"]!["rules"]!.AsArray().Insert(0, JsonNode.Parse(rule));
        using var saved = await administrator.Put(Address, new { version = draft["version"]!.GetValue<int>(), definition = draft["definition"] });
        Assert.True(saved.IsSuccessStatusCode, await saved.Content.ReadAsStringAsync());
        using var published = await administrator.Post("/api/record-types/object-loan/editions", new { version = draft["version"]!.GetValue<int>() + 1, note = "test" });
        Assert.True(published.IsSuccessStatusCode, await published.Content.ReadAsStringAsync());
    }
}
