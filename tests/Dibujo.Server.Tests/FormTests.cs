using System.Net;
using System.Text.Json.Nodes;

namespace Dibujo.Server.Tests;

/// <summary>Other forms, new records and linked records, as the record page asks for them.</summary>
public sealed class FormTests(Site site) : IClassFixture<Site>
{
    private const string Loans = "/api/record-types/object-loan";

    [Fact]
    public async Task A_new_record_comes_with_its_defaults_for_the_person_who_begins_it()
    {
        var lorenz = await site.As("lorenz");

        var begun = await lorenz.Read($"{Loans}/new-record");

        Assert.Equal("lorenz", begun["values"]!["requestedBy"]!.GetValue<string>());
        Assert.Equal(200, begun["values"]!["lightLimit"]!.GetValue<int>());
        Assert.Null(begun["values"]!["title"]);
    }

    [Fact]
    public async Task The_short_form_has_its_own_elements()
    {
        var lorenz = await site.As("lorenz");

        var begun = await lorenz.Read($"{Loans}/new-record?form=quickEnquiry");

        var elements = begun["states"]!.AsArray().Select(s => $"{s!["element"]!["kind"]}:{s["element"]!["key"]}").ToList();
        Assert.Contains("section:quickWho", elements);
        Assert.DoesNotContain("section:crate", elements);
    }

    [Fact]
    public async Task Through_a_form_only_its_own_fields_are_saved()
    {
        var lorenz = await site.As("lorenz");
        using var begun = await lorenz.Post($"{Loans}/records", new { changes = new { title = "Kite", fee = 3 }, form = "quickEnquiry" });
        Assert.Equal(HttpStatusCode.UnprocessableEntity, begun.StatusCode);
        Assert.Equal(["unknownField fee"], await begun.Refusals());

        using var quick = await lorenz.Post($"{Loans}/records", new { changes = new { title = "Kite" }, form = "quickEnquiry" });
        Assert.True(quick.IsSuccessStatusCode);
        Assert.Equal("exhibition", JsonNode.Parse(await quick.Content.ReadAsStringAsync())!["values"]!["purpose"]!.GetValue<string>());
    }

    [Theory]
    [InlineData("/new-record?form=attic", HttpStatusCode.NotFound)]
    [InlineData("/new-record?workflow=attic", HttpStatusCode.NotFound)]
    [InlineData("/links/title/1", HttpStatusCode.NotFound)]
    [InlineData("/links/vault/1", HttpStatusCode.NotFound)]
    [InlineData("/links/object/1", HttpStatusCode.OK)]
    public async Task What_is_not_there_is_not_found(string address, HttpStatusCode status)
    {
        var lorenz = await site.As("lorenz");

        using var answer = await lorenz.Get(Loans + address);

        Assert.Equal(status, answer.StatusCode);
    }

    [Fact]
    public async Task A_link_brings_what_rules_know_of_the_record_there_and_no_more()
    {
        var lorenz = await site.As("lorenz");

        using var answer = await lorenz.Get($"{Loans}/links/object/1");
        var reached = JsonNode.Parse(await answer.Content.ReadAsStringAsync())!.AsArray().Single()!;

        Assert.Equal(("collection-object", 1), (reached["recordType"]!.GetValue<string>(), reached["number"]!.GetValue<int>()));
        string[] known = ["inventoryNumber", "title", "material", "insuredValue", "sensitivity", "location", "onLoan"];
        Assert.Empty(reached["values"]!.AsObject().Select(v => v.Key).Except(known, StringComparer.Ordinal));
    }

    [Fact]
    public async Task A_link_to_nothing_reaches_nothing()
    {
        var lorenz = await site.As("lorenz");

        using var answer = await lorenz.Get($"{Loans}/links/object/9999");

        Assert.Equal("[]", await answer.Content.ReadAsStringAsync());
    }

    [Fact]
    public async Task Nobody_sees_a_record_or_a_link_without_signing_in()
    {
        var nobody = await site.As(null);

        using var record = await nobody.Get($"{Loans}/new-record");
        using var link = await nobody.Get($"{Loans}/links/object/1");

        Assert.Equal((HttpStatusCode.Unauthorized, HttpStatusCode.Unauthorized), (record.StatusCode, link.StatusCode));
    }

    [Fact]
    public async Task A_move_through_the_short_workflow_is_judged_at_both_of_its_stages()
    {
        var lorenz = await site.As("lorenz");
        var id = await lorenz.Begin(new { title = "Kite", borrower = "Civic Gallery Vell", purpose = "research", startDate = "2027-01-10", @object = 1 }, workflow: "short");

        using var moved = await lorenz.Save(id, new { }, "ask");
        using var again = await lorenz.Save(id, new { }, "ask");

        Assert.Equal((HttpStatusCode.OK, HttpStatusCode.UnprocessableEntity), (moved.StatusCode, again.StatusCode));
        Assert.Equal(["noSuchMove"], await again.Refusals());
    }
}
