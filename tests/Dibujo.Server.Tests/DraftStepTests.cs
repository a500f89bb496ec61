using System.Net;
using System.Text.Json.Nodes;

namespace Dibujo.Server.Tests;

/// <summary>Several administrators in one draft, over HTTP.</summary>
public sealed class DraftStepTests(Site site) : IClassFixture<Site>
{
    private const string Steps = $"{Draft.Address}/steps";

    [Fact]
    public async Task Edits_of_different_rules_both_stay_and_say_who_made_them()
    {
        var ada = await site.Known("ada");
        var version = await Version(ada);

        await Make(ada, """{"edits": [{"key": "new-1", "base": 0, "rule": {"key": "new-1", "name": "First"}, "isPlaced": true}]}""");
        await Make(ada, """{"edits": [{"key": "new-2", "base": 0, "rule": {"key": "new-2", "name": "Second"}, "isPlaced": true, "after": "new-1"}]}""");

        var draft = await ada.Read(Draft.Address);
        Assert.Equal(["First", "Second"], draft["definition"]!["rules"]!.AsArray().Take(2).Select(rule => rule!["name"]!.GetValue<string>()));
        Assert.Equal("ada", draft["revisions"]!["new-2"]!["by"]!.GetValue<string>());
        var news = await ada.Read($"{Steps}?after={version}");
        Assert.Equal(2, news["steps"]!.AsArray().Count);
        Assert.Equal("First", news["steps"]![0]!["step"]!["edits"]![0]!["rule"]!["name"]!.GetValue<string>());
    }

    [Fact]
    public async Task The_answer_to_a_step_has_the_steps_that_its_sender_lacks()
    {
        var ada = await site.Known("ada");
        var known = await Version(ada);
        await Make(ada, """{"edits": [{"key": "lacked", "base": 0, "rule": {"key": "lacked", "name": "Lacked"}, "isPlaced": true}]}""");

        using var answer = await ada.Post($"{Steps}?after={known}", JsonNode.Parse("""{"edits": [{"key": "own", "base": 0, "rule": {"key": "own", "name": "Own"}, "isPlaced": true}]}""")!);
        var news = JsonNode.Parse(await answer.Content.ReadAsStringAsync())!;

        Assert.Equal(["lacked", "own"], news["steps"]!.AsArray().Select(step => step!["step"]!["edits"]![0]!["key"]!.GetValue<string>()));
        Assert.Equal(known + 2, news["version"]!.GetValue<int>());
    }

    [Fact]
    public async Task Two_edits_of_one_rule_wait_for_a_choice()
    {
        var ada = await site.Known("ada");
        var known = await Version(ada);
        await Make(ada, """{"edits": [{"key": "shared", "base": 0, "rule": {"key": "shared", "name": "Theirs"}, "isPlaced": true}]}""");

        var made = await Make(ada, $$$"""{"edits": [{"key": "shared", "base": {{{known}}}, "rule": {"key": "shared", "name": "Mine"}}]}""");

        Assert.Equal("Theirs", await NameOf(ada, "shared"));
        var collision = Assert.Single(made["collisions"]!.AsArray(), one => one!["step"]!["edits"]![0]!["key"]!.GetValue<string>() == "shared")!;
        Assert.Equal("Mine", collision["step"]!["edits"]![0]!["rule"]!["name"]!.GetValue<string>());
        using var settled = await ada.Post($"{Draft.Address}/collisions/{collision["id"]}", new { keep = "later" });
        Assert.Equal(HttpStatusCode.OK, settled.StatusCode);
        Assert.Equal("Mine", await NameOf(ada, "shared"));
        using var again = await ada.Post($"{Draft.Address}/collisions/{collision["id"]}", new { keep = "later" });
        Assert.Equal(HttpStatusCode.NotFound, again.StatusCode);
    }

    [Fact]
    public async Task A_record_type_that_waits_for_a_choice_keeps_the_examples_that_go_with_it()
    {
        var ada = await site.Known("ada");
        var before = await ada.Read(Draft.Address);
        var known = before["version"]!.GetValue<int>();
        await Make(ada, Typed("Theirs", null));

        var made = await Make(ada, Typed("Mine", """[{"name": "Goes with mine", "setting": {"workflow": "standard", "stage": "enquiry", "isNew": false, "channel": "form", "now": "2026-11-24T09:00:00"}, "values": {}, "changes": {}, "expect": []}]"""));

        var collision = Assert.Single(made["collisions"]!.AsArray(), one => one!["step"]!["recordType"] is not null)!;
        using var settled = await ada.Post($"{Draft.Address}/collisions/{collision["id"]}", new { keep = "later" });
        Assert.Equal(HttpStatusCode.OK, settled.StatusCode);
        var after = (await ada.Read(Draft.Address))["definition"]!;
        Assert.Equal("Mine", after["recordType"]!["label"]!.GetValue<string>());
        Assert.Contains("Goes with mine", after["examples"]!.ToJsonString(), StringComparison.Ordinal);

        string Typed(string label, string? examples)
        {
            var type = before["definition"]!["recordType"]!.DeepClone();
            type["label"] = label;
            return $$"""{"edits": [], "recordType": {{type.ToJsonString()}}, "recordTypeBase": {{known}}, "examples": {{examples ?? "null"}}}""";
        }
    }

    [Fact]
    public async Task A_step_that_is_sent_again_is_made_once()
    {
        var ada = await site.Known("ada");
        const string Step = """{"edits": [{"key": "again", "base": 0, "rule": {"key": "again", "name": "Again"}, "isPlaced": true}]}""";
        var first = await Make(ada, Step);

        var second = await Make(ada, Step);

        Assert.Equal(first["version"]!.GetValue<int>(), second["version"]!.GetValue<int>());
    }

    [Fact]
    public async Task The_difference_between_an_edition_and_the_draft_is_told_in_sentences()
    {
        var ada = await site.Known("ada");

        await Make(ada, """{"edits": [{"key": "feeLock", "base": 0, "isPlaced": true, "rule": {"key": "feeLock", "name": "Fee", "on": false, "cases": [{"effects": [{"kind": "lock", "targets": [{"kind": "field", "key": "fee"}]}]}]}}]}""");

        var changed = await ada.Read("/api/record-types/object-loan/comparison?from=1&to=draft");
        var difference = changed["differences"]!.AsArray().First(one => one!["key"]!.GetValue<string>() == "feeLock")!;
        Assert.Equal("Always lock Fee.", difference["after"]!.GetValue<string>());
        Assert.Equal("It is off.", difference["beside"]![0]!.GetValue<string>());
        using var unknown = await ada.Get("/api/record-types/object-loan/comparison?from=1&to=99");
        Assert.Equal(HttpStatusCode.NotFound, unknown.StatusCode);
    }

    private static async Task<JsonNode> Make(Caller caller, string step)
    {
        using var answer = await caller.Post(Steps, step);
        var text = await answer.Content.ReadAsStringAsync();
        Assert.True(answer.IsSuccessStatusCode, text);
        return JsonNode.Parse(text)!;
    }

    private static async Task<int> Version(Caller caller) => (await caller.Read(Draft.Address))["version"]!.GetValue<int>();

    private static async Task<string> NameOf(Caller caller, string key) =>
        (await caller.Read(Draft.Address))["definition"]!["rules"]!.AsArray().First(rule => rule!["key"]!.GetValue<string>() == key)!["name"]!.GetValue<string>();
}
