using System.Net;

namespace Dibujo.Server.Tests;

/// <summary>What the server refuses, however the request arrives; and that the record is then as it was.</summary>
public sealed class SavingTests(Site site) : IClassFixture<Site>
{
    private static readonly object Enquiry = new { title = "Almanac for Vell", borrower = "Civic Gallery Vell", purpose = "research", startDate = "2027-01-10", @object = 1 };

    [Theory]
    [InlineData("""{"object": 9999}""", "leadsNowhere object")]
    [InlineData("""{"requestedBy": "nobody-at-all"}""", "leadsNowhere requestedBy")]
    [InlineData("""{"loanDays": 3}""", "locked loanDays")]
    [InlineData("""{"borrowerType": "private", "purpose": "education"}""", "neededToSave borrowerContact|notOffered purpose")]
    [InlineData("""{"endDate": "2026-01-01"}""", "stopped endDate")]
    [InlineData("""{"material": "ceramic", "lightLimit": 50}""", "hidden lightLimit")]
    [InlineData("""{"borrowerContact": {"nick": "Nell"}}""", "wrongType borrowerContact")]
    public async Task Every_new_kind_of_rule_is_enforced_past_the_interface(string changes, string reasons)
    {
        var lorenz = await site.As("lorenz");
        var id = await lorenz.Begin(Enquiry);

        using var answer = await lorenz.Save(id, System.Text.Json.Nodes.JsonNode.Parse(changes)!);

        Assert.Equal(HttpStatusCode.UnprocessableEntity, answer.StatusCode);
        Assert.Equal(reasons.Split('|'), (await answer.Refusals()).Order(StringComparer.Ordinal));
    }

    [Fact]
    public async Task Values_that_rules_give_are_stored_with_the_save()
    {
        var lorenz = await site.As("lorenz");
        var id = await lorenz.Begin(Enquiry);

        using var answer = await lorenz.Save(id, new { endDate = "2027-01-31" });
        var saved = await lorenz.Read($"/api/records/{id}");

        Assert.Equal(HttpStatusCode.OK, answer.StatusCode);
        Assert.Equal(22, saved["values"]!["loanDays"]!.GetValue<int>());
        Assert.Equal("lorenz", saved["values"]!["requestedBy"]!.GetValue<string>());
        Assert.True(saved["linked"]!.AsArray().Count == 1);
    }

    [Fact]
    public async Task A_write_to_a_locked_field_is_refused_by_the_reason_of_the_rule()
    {
        var lorenz = await site.As("lorenz");
        var rosa = await site.As("rosa");
        var id = await lorenz.Begin(Enquiry);

        using var answer = await rosa.Save(id, new { decision = "approved" });

        Assert.Equal(HttpStatusCode.UnprocessableEntity, answer.StatusCode);
        Assert.Equal(["locked decision"], await answer.Refusals());
        Assert.Contains("Decision and fee are not", await answer.Content.ReadAsStringAsync(), StringComparison.Ordinal);
        await Unchanged(rosa, id, "decision");
    }

    [Fact]
    public async Task A_write_to_a_hidden_field_is_refused()
    {
        var lorenz = await site.As("lorenz");
        var id = await lorenz.Begin(Enquiry);

        using var answer = await lorenz.Save(id, new { portOfEntry = "Port Amsel", title = "Changed along with it" });

        Assert.Equal(["hidden portOfEntry"], await answer.Refusals());
        await Unchanged(lorenz, id, "portOfEntry");
        Assert.Equal("Almanac for Vell", (await lorenz.Read($"/api/records/{id}"))["values"]!["title"]!.GetValue<string>());
    }

    [Fact]
    public async Task A_hidden_field_may_be_written_together_with_the_change_that_shows_it()
    {
        var lorenz = await site.As("lorenz");
        var id = await lorenz.Begin(Enquiry);

        using var answer = await lorenz.Save(id, new { mode = "sea", portOfEntry = "Port Amsel" });

        Assert.Equal(HttpStatusCode.OK, answer.StatusCode);
    }

    [Fact]
    public async Task A_field_locked_by_its_own_saved_value_cannot_be_opened_by_a_new_value()
    {
        var ada = await site.As("ada");
        var lorenz = await site.As("lorenz");
        await Draft.AddRule(ada, """{"key":"own","name":"Oil stays oil","cases":[{"while":{"kind":"clause","subject":{"kind":"field","field":"material"},"test":"is","comparands":[{"kind":"literal","value":"oil"}]},"effects":[{"kind":"lock","targets":[{"kind":"field","key":"material"}]}]}]}""");
        var id = await lorenz.Begin(Enquiry);
        using var first = await lorenz.Save(id, new { material = "oil" });
        Assert.Equal(HttpStatusCode.OK, first.StatusCode);

        using var answer = await lorenz.Save(id, new { material = "metal" });

        Assert.Equal(["locked material"], await answer.Refusals());
        Assert.Equal("oil", (await lorenz.Read($"/api/records/{id}"))["values"]!["material"]!.GetValue<string>());
    }

    [Fact]
    public async Task A_move_without_what_it_needs_is_refused_with_all_reasons_at_once()
    {
        var lorenz = await site.As("lorenz");
        var id = await lorenz.Begin(new { title = "Lantern" });

        using var answer = await lorenz.Save(id, new { extensionAsked = true }, "assess");

        Assert.Equal(
            ["neededToMoveOn borrower", "neededToMoveOn object", "neededToMoveOn purpose", "neededToMoveOn startDate", "neededToSave endDate", "neededToSave extensionReason"],
            (await answer.Refusals()).Order(StringComparer.Ordinal));
        Assert.Equal("enquiry", (await lorenz.Read($"/api/records/{id}"))["setting"]!["stage"]!.GetValue<string>());
    }

    [Fact]
    public async Task A_move_that_is_not_offered_or_not_for_this_person_is_refused()
    {
        var lorenz = await site.As("lorenz");
        var delphine = await site.As("delphine");
        var id = await lorenz.Begin(Enquiry);

        using var notHere = await lorenz.Save(id, new { }, "dispatch");
        Assert.Equal(["noSuchMove"], await notHere.Refusals());

        using var fine = await lorenz.Save(id, new { }, "assess");
        Assert.Equal(HttpStatusCode.OK, fine.StatusCode);
        using var notYours = await delphine.Save(id, new { }, "draw");
        Assert.Equal(["moveNotAllowed"], await notYours.Refusals());
    }

    [Fact]
    public async Task A_stale_version_is_refused_and_nothing_is_overwritten()
    {
        var lorenz = await site.As("lorenz");
        var rosa = await site.As("rosa");
        var id = await lorenz.Begin(Enquiry);
        using var first = await rosa.Post($"/api/records/{id}/saves", new { version = 1, changes = new { title = "Rosa's title" } });
        Assert.Equal(HttpStatusCode.OK, first.StatusCode);

        using var answer = await lorenz.Post($"/api/records/{id}/saves", new { version = 1, changes = new { title = "Lorenz's title" } });

        Assert.Equal(HttpStatusCode.Conflict, answer.StatusCode);
        Assert.Equal("Rosa's title", (await lorenz.Read($"/api/records/{id}"))["values"]!["title"]!.GetValue<string>());
    }

    [Fact]
    public async Task Of_many_saves_at_once_on_one_version_exactly_one_is_written()
    {
        var lorenz = await site.As("lorenz");
        var id = await lorenz.Begin(Enquiry);

        var answers = await Task.WhenAll(Enumerable.Range(0, 8).Select(i =>
            lorenz.Post($"/api/records/{id}/saves", new { version = 1, changes = new { title = $"Title {i}" } })));

        Assert.Single(answers, a => a.StatusCode == HttpStatusCode.OK);
        Assert.Equal(7, answers.Count(a => a.StatusCode == HttpStatusCode.Conflict));
        Assert.Equal(2, (await lorenz.Read($"/api/records/{id}"))["version"]!.GetValue<int>());
        Array.ForEach(answers, a => a.Dispose());
    }

    [Theory]
    [InlineData("""{"title": "x", "grossWeight": "heavy"}""", "wrongType grossWeight")]
    [InlineData("""{"title": "x", "grossWeight": 1.55}""", "limit grossWeight")]
    [InlineData("""{"title": "x", "startDate": "31 Januember"}""", "wrongType startDate")]
    [InlineData("""{"title": "x", "material": "gold"}""", "wrongType material")]
    [InlineData("""{"title": "x", "colour": "blue"}""", "unknownField colour")]
    [InlineData("""{"title": "  "}""", "neededToSave title")]
    public async Task Types_limits_and_unknown_fields_are_checked_always(string changes, string refusal)
    {
        var lorenz = await site.As("lorenz");
        using var answer = await lorenz.Post("/api/record-types/object-loan/records", $$"""{"changes": {{changes}}}""");
        Assert.Equal([refusal], await answer.Refusals());
    }

    [Fact]
    public async Task History_tells_who_changed_what()
    {
        var lorenz = await site.As("lorenz");
        var id = await lorenz.Begin(Enquiry);
        using var saved = await lorenz.Save(id, new { title = "Lantern", insuredBy = "us" }, "assess");
        saved.EnsureSuccessStatusCode();

        using var answer = await lorenz.Get($"/api/records/{id}/history");
        var last = System.Text.Json.Nodes.JsonNode.Parse(await answer.Content.ReadAsStringAsync())![0]!;

        Assert.Equal("lorenz", last["by"]!.GetValue<string>());
        Assert.Equal("Almanac for Vell", last["before"]!["title"]!.GetValue<string>());
        Assert.Equal("Lantern", last["after"]!["title"]!.GetValue<string>());
        Assert.Equal("assessment", last["toStage"]!.GetValue<string>());
    }

    private static async Task Unchanged(Caller caller, int id, string field)
    {
        var record = await caller.Read($"/api/records/{id}");
        Assert.Equal(1, record["version"]!.GetValue<int>());
        Assert.Null(record["values"]![field]);
    }
}
