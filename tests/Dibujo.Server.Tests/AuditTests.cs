using System.Text.Json.Nodes;

namespace Dibujo.Server.Tests;

/// <summary>What somebody may have to account for is written down, and administrators read it.</summary>
public sealed class AuditTests(Site site) : IClassFixture<Site>
{
    [Fact]
    public async Task Everything_that_has_to_be_accounted_for_is_found_with_who_and_what()
    {
        var ada = await site.As("ada");
        var lorenz = await site.As("lorenz");
        var guesser = await site.As(null);
        for (var i = 0; i < 7; i++)
        {
            using var guess = await guesser.Try("delphine", "wrong-password");
        }

        using var unknown = await (await site.As(null)).Try("nobody-at-all", "wrong-password");
        using var export = await lorenz.Get("/api/record-types/gallery-works/records.csv");
        await export.Content.ReadAsStringAsync();
        using var import = await lorenz.Send(HttpMethod.Post, "/api/record-types/gallery-works/records.csv", "title,kind,building,room\nBench,plinth,north,n1\n", true, "text/csv");
        using var rules = await ada.Get("/api/record-types/object-loan/draft/exports/pack");
        await Draft.AddRule(ada, """{"key":"note","name":"A note","cases":[{"effects":[{"kind":"message","severity":"note","text":"Note."}]}]}""");
        using var token = await lorenz.Post("/api/tokens", new { name = "Nightly list", days = 30 });
        using var revoked = await lorenz.Send(HttpMethod.Delete, $"/api/tokens/{JsonNode.Parse(await token.Content.ReadAsStringAsync())!["id"]}", null, true);
        using var signedOut = await lorenz.Send(HttpMethod.Delete, "/api/sign-in", null, true);

        using var answer = await ada.Get("/api/audit");
        var entries = JsonNode.Parse(await answer.Content.ReadAsStringAsync())!.AsArray()
            .Select(e => $"{e!["event"]} {e["who"]} {e["about"]}".Trim()).ToList();

        foreach (var expected in (string[])
            [
                "signedIn ada", "signedIn lorenz", "signInFailed delphine", "signInSlowedDown delphine", "signInFailed  unknown name",
                "recordsExported lorenz Gallery works request", "recordsImported lorenz Gallery works request, 1 rows, 0 refused", "rulesExported ada Object loan as pack",
                "published ada Object loan, edition 2", "draftEdited ada Object loan: “A note”", "tokenMade lorenz Nightly list", "tokenRevoked lorenz Nightly list", "signedOut lorenz",
            ])
        {
            Assert.Contains(expected, entries);
        }

        Assert.Single(entries, "signInSlowedDown delphine");
        Assert.Equal(5, entries.Count(e => e == "signInFailed delphine"));
    }

    [Fact]
    public async Task The_trail_is_searched_filtered_and_taken_out()
    {
        var (ada, lorenz) = (await site.As("ada"), await site.Known("lorenz"));
        using var shared = await lorenz.Put("/api/record-types/gallery-works/views", new { name = "=Plinths", isShared = true, layout = new { search = "plinth" } });
        using var invited = await ada.Post("/api/accounts", new { userName = "pia", displayName = "Pia Sondern", roles = new[] { "registrar" } });
        using var changed = await ada.Put("/api/accounts/pia", new { displayName = "Pia Sondern", roles = new[] { "conservator" }, isDisabled = true });
        using var opened = await ada.Put("/api/accounts/pia", new { displayName = "Pia Sondern-Vell", roles = new[] { "conservator" }, isDisabled = false });

        Assert.Equal(
            ["accountEnabled Ada Penhallow Pia Sondern (pia), now Pia Sondern-Vell (pia)", "accountDisabled Ada Penhallow Pia Sondern (pia); Registrar → Conservator", "personInvited Ada Penhallow Pia Sondern (pia): Registrar"],
            await Entries("?search=sondern"));
        Assert.Equal(["viewShared Lorenz Vahl Gallery works request: “=Plinths”"], await Entries("?event=viewShared"));
        Assert.Equal(["viewShared Lorenz Vahl Gallery works request: “=Plinths”"], await Entries("?who=lorenz&search=plinths"));
        Assert.Empty(await Entries("?to=2020-01-01"));
        Assert.Empty(await Entries("?search=%25_%25"));
        using var backwards = await ada.Get("/api/audit?from=2026-02-01&to=2026-01-01");
        Assert.Equal(System.Net.HttpStatusCode.BadRequest, backwards.StatusCode);
        using var file = await ada.Get("/api/audit.csv?who=lorenz&event=viewShared");
        var lines = (await file.Content.ReadAsStringAsync()).Split("\r\n");
        Assert.Equal(3, lines.Length);
        Assert.Contains("lorenz,Lorenz Vahl,viewShared,Gallery works request: “=Plinths”", lines[1], StringComparison.Ordinal);
        Assert.Contains("auditExported Ada Penhallow", await Entries("?event=auditExported"));

        async Task<List<string>> Entries(string query) =>
            [.. (await ada.ReadAll($"/api/audit{query}")).Select(e => $"{e!["event"]} {e["name"]} {e["about"]}".Trim())];
    }

    [Fact]
    public async Task Edits_of_a_draft_are_one_entry_for_a_person_and_an_hour()
    {
        var ada = await site.As("ada");
        foreach (var (key, name) in ((string, string)[])[("one", "Crates"), ("one", "Crates and boxes"), ("two", "Couriers")])
        {
            var version = (await ada.Read(Draft.Address))["version"]!.GetValue<int>();
            using var made = await ada.Post($"{Draft.Address}/steps", $$"""{"edits": [{"key": "{{key}}", "base": {{version}}, "rule": {"key": "{{key}}", "name": "{{name}}"}, "isPlaced": true}]}""");
            Assert.True(made.IsSuccessStatusCode, await made.Content.ReadAsStringAsync());
        }

        var entries = (await ada.ReadAll("/api/audit?event=draftEdited&who=ada")).Select(e => e!["about"]!.GetValue<string>()).Where(about => about.Contains("Crates", StringComparison.Ordinal)).ToList();

        Assert.EndsWith("“Crates”, “Crates and boxes”, “Couriers”", Assert.Single(entries), StringComparison.Ordinal);
    }
}
