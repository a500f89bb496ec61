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
                "recordsExported lorenz gallery-works", "recordsImported lorenz gallery-works, 1 rows, 0 refused", "rulesExported ada object-loan as pack",
                "published ada object-loan, edition 2", "tokenMade lorenz Nightly list", "tokenRevoked lorenz Nightly list", "signedOut lorenz",
            ])
        {
            Assert.Contains(expected, entries);
        }

        Assert.Single(entries, "signInSlowedDown delphine");
        Assert.Equal(5, entries.Count(e => e == "signInFailed delphine"));
    }
}
