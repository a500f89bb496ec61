using System.Net;
using System.Text.Json.Nodes;

namespace Dibujo.Server.Tests;

public sealed class DraftTests(Site site) : IClassFixture<Site>
{
    private const string Editions = "/api/record-types/object-loan/editions";

    [Fact]
    public async Task A_draft_with_problems_is_kept_but_not_published()
    {
        var ada = await site.As("ada");
        var draft = await ada.Read(Draft.Address);
        var edition = draft["edition"]!.GetValue<int>();
        draft["definition"]!["rules"]![0]!["cases"]![0]!["effects"]![0]!["targets"]![0]!["key"] = "nowhere";
        using var saved = await ada.Put(Draft.Address, new { version = draft["version"], definition = draft["definition"] });
        var view = JsonNode.Parse(await saved.Content.ReadAsStringAsync())!;

        Assert.Equal("/rules/0/cases/0/effects/0/targets/0", view["problems"]![0]!["place"]!.GetValue<string>());
        var ofRule = view["ruleProblems"]![0]!;
        Assert.Equal((0, "/cases/0/effects/0/targets/0"), (ofRule["place"]!.GetValue<int>(), ofRule["problems"]![0]!["place"]!.GetValue<string>()));
        using var published = await ada.Post(Editions, new { version = view["version"], note = "" });
        Assert.Equal(HttpStatusCode.UnprocessableEntity, published.StatusCode);
        Assert.Equal(edition, (await ada.Read("/api/record-types/object-loan"))["number"]!.GetValue<int>());
        draft["definition"]!["rules"]!.AsArray().RemoveAt(0);
        using var mended = await ada.Put(Draft.Address, new { version = view["version"], definition = draft["definition"] });
        Assert.Equal(HttpStatusCode.OK, mended.StatusCode);
    }

    [Fact]
    public async Task A_rule_that_names_somebody_without_an_account_is_told_of_until_there_is_one()
    {
        var ada = await site.As("ada");
        var before = await ada.Read(Draft.Address);
        var named = before.DeepClone();
        var clause = JsonNode.Parse("""
            { "kind": "clause", "subject": { "kind": "person" }, "test": "is", "comparands": [{ "kind": "literal", "value": "ottilie" }] }
            """);
        named["definition"]!["rules"]![0]!["cases"]![0]!["while"] = clause;
        using var saved = await ada.Put(Draft.Address, new { version = before["version"], definition = named["definition"] });
        var view = JsonNode.Parse(await saved.Content.ReadAsStringAsync())!;
        Assert.Contains("ottilie", Assert.Single(view["problems"]!.AsArray())!["what"]!.GetValue<string>(), StringComparison.Ordinal);
        using var refused = await ada.Post(Editions, new { version = view["version"], note = "" });
        Assert.Equal(HttpStatusCode.UnprocessableEntity, refused.StatusCode);

        using var created = await ada.Post("/api/accounts", new { userName = "ottilie", displayName = "Ottilie Brandt", roles = new[] { "registrar" } });
        created.EnsureSuccessStatusCode();

        Assert.Empty((await ada.Read(Draft.Address))["problems"]!.AsArray());
        using var mended = await ada.Put(Draft.Address, new { version = view["version"], definition = before["definition"] });
        mended.EnsureSuccessStatusCode();
    }

    [Fact]
    public async Task An_edition_stays_what_it_was_whatever_is_published_after_it()
    {
        var (ada, lorenz) = (await site.As("ada"), await site.As("lorenz"));
        var before = await lorenz.Read("/api/record-types/collection-object");
        var address = $"/api/record-types/collection-object/editions/{before["number"]}";
        var draft = await ada.Read("/api/record-types/collection-object/draft");
        draft["definition"]!["rules"]!.AsArray().Clear();
        using var saved = await ada.Put("/api/record-types/collection-object/draft", new { version = draft["version"], definition = draft["definition"] });
        var version = JsonNode.Parse(await saved.Content.ReadAsStringAsync())!["version"];
        using var published = await ada.Post("/api/record-types/collection-object/editions", new { version, note = "" });
        published.EnsureSuccessStatusCode();

        Assert.True(JsonNode.DeepEquals(before["definition"]!["rules"], (await lorenz.Read(address))["definition"]!["rules"]));
        Assert.True(JsonNode.DeepEquals(before["definition"]!["recordType"], (await lorenz.Read($"/api/record-types/collection-object/type?edition={before["number"]}"))["recordType"]));
        Assert.Equal(before["number"]!.GetValue<int>() + 1, (await lorenz.Read("/api/record-types/collection-object/type"))["number"]!.GetValue<int>());
    }

    [Fact]
    public async Task Two_administrators_do_not_overwrite_each_other()
    {
        var ada = await site.As("ada");
        var draft = await ada.Read(Draft.Address);
        var body = new { version = draft["version"]!.GetValue<int>(), definition = draft["definition"] };
        using var first = await ada.Put(Draft.Address, body);
        using var second = await ada.Put(Draft.Address, body);
        using var stalePublication = await ada.Post(Editions, new { body.version, note = "" });

        Assert.Equal(HttpStatusCode.OK, first.StatusCode);
        Assert.Equal(HttpStatusCode.Conflict, second.StatusCode);
        Assert.Equal(HttpStatusCode.Conflict, stalePublication.StatusCode);
    }

    [Fact]
    public async Task Members_go_on_with_the_edition_until_the_next_is_published()
    {
        var ada = await site.As("ada");
        var lorenz = await site.As("lorenz");
        var draft = await ada.Read(Draft.Address);
        draft["definition"]!["rules"]!.AsArray().RemoveAt(0);
        using var saved = await ada.Put(Draft.Address, new { version = draft["version"], definition = draft["definition"] });
        saved.EnsureSuccessStatusCode();

        Assert.Equal("purpose", (await lorenz.Read("/api/record-types/object-loan"))["definition"]!["rules"]![0]!["key"]!.GetValue<string>());
    }

    [Theory]
    [InlineData("", "", "The file is empty.")]
    [InlineData("hello", "", "not valid JSON")]
    [InlineData("""{"format":"dibujo-pack","version":1,"rules":[]}""", "", "missing")]
    [InlineData("""{"format":"something","version":1,"recordType":{"key":"a","label":"A","titleField":"a","fields":[],"forms":[],"workflows":[]},"rules":[]}""", "/format", "not a pack")]
    [InlineData("""{"format":"dibujo-pack","version":1,"recordType":{"key":"a","label":"A","titleField":"a","fields":[{"key":"a","label":"A","type":{"kind":"number","max":1e999}}],"forms":[],"workflows":[]},"rules":[]}""", "/recordType/fields/0/type/max", "too large")]
    public async Task A_wrong_pack_gets_a_message_with_its_place(string pack, string place, string what)
    {
        var ada = await site.As("ada");
        using var answer = await ada.Post("/api/packs/check", pack);
        await IsMistake(answer, place, what);
    }

    [Fact]
    public async Task A_pack_nested_ten_thousand_levels_deep_gets_a_message()
    {
        var ada = await site.As("ada");
        var condition = string.Concat(Enumerable.Repeat("""{"kind":"group","quantifier":"allOf","members":[""", 10_000));
        using var answer = await ada.Post(
            "/api/packs/check",
            """{"format":"dibujo-pack","version":1,"recordType":{"key":"a","label":"A","titleField":"a","fields":[],"forms":[],"workflows":[]},"rules":[{"key":"r","name":"R","cases":[{"while":""" + condition);
        await IsMistake(answer, "/rules/0/cases/0/while", "nested too deeply");
    }

    [Fact]
    public async Task A_pack_that_says_nonsense_gets_every_problem_with_its_place()
    {
        var ada = await site.As("ada");
        using var answer = await ada.Post("/api/packs/check", """
            {"format":"dibujo-pack","version":1,
             "recordType":{"key":"a","label":"A","titleField":"t","fields":[{"key":"t","label":"T","type":{"kind":"text"}}],
               "forms":[{"key":"f","label":"F","tabs":[]}],"workflows":[{"key":"w","label":"W","stages":[{"key":"s","label":"S"}],"moves":[]}]},
             "rules":[{"key":"r","name":"R","cases":[{"while":{"kind":"clause","subject":{"kind":"field","field":"t"},"test":"atLeast","comparands":[{"kind":"literal","value":3}]},
               "effects":[{"kind":"hide","targets":[{"kind":"field","key":"u"}]}]}]}]}
            """);
        var problems = JsonNode.Parse(await answer.Content.ReadAsStringAsync())!["problems"]!.AsArray();

        Assert.Equal(
            ["/rules/0/cases/0/while/test", "/rules/0/cases/0/while/comparands/0/value", "/rules/0/cases/0/effects/0/targets/0"],
            problems.Select(p => p!["place"]!.GetValue<string>()));
    }

    private static async Task IsMistake(HttpResponseMessage answer, string place, string what)
    {
        var body = await answer.Content.ReadAsStringAsync();
        Assert.Equal(HttpStatusCode.BadRequest, answer.StatusCode);
        var problem = JsonNode.Parse(body)!["problems"]![0]!;
        Assert.StartsWith(place, problem["place"]!.GetValue<string>(), StringComparison.Ordinal);
        Assert.Contains(what, problem["what"]!.GetValue<string>(), StringComparison.Ordinal);
        Assert.DoesNotContain("   at ", body, StringComparison.Ordinal);
        Assert.DoesNotContain("System.", body, StringComparison.Ordinal);
    }
}
