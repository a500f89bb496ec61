using System.Net;
using System.Text.Json.Nodes;

namespace Dibujo.Server.Tests;

/// <summary>The forms of one record over HTTP: one that does not apply is neither listed nor opened, and refuses.</summary>
public sealed class CompanionFormTests(Site site) : IClassFixture<Site>
{
    private const string Loans = "/api/record-types/object-loan";

    [Fact]
    public async Task A_form_that_does_not_apply_is_neither_listed_nor_opened_and_refuses()
    {
        var lorenz = await site.Known("lorenz");
        var id = await lorenz.Begin(new { title = "Kite" });

        var record = await lorenz.Read($"/api/records/{id}");
        using var opened = await lorenz.Get($"/api/records/{id}?form=conditionOut");
        using var begun = await lorenz.Get($"{Loans}/new-record?form=conditionOut");
        using var written = await lorenz.Save(id, new { stateOut = "fine" }, form: "conditionOut");
        using var moved = await lorenz.Save(id, new { }, "assess", "conditionOut");

        Assert.Equal(["loanFile", "quickEnquiry"], record["forms"]!.AsArray().Select(f => f!.GetValue<string>()));
        Assert.Equal((HttpStatusCode.NotFound, HttpStatusCode.NotFound), (opened.StatusCode, begun.StatusCode));
        Assert.Contains("does not apply", await opened.Content.ReadAsStringAsync(), StringComparison.Ordinal);
        Assert.Equal(["hidden"], await written.Refusals());
        Assert.Equal(["hidden"], await moved.Refusals());
        Assert.Equal(1, (await lorenz.Read($"/api/records/{id}"))["version"]!.GetValue<int>());
    }

    [Fact]
    public async Task What_a_move_lacks_is_told_with_the_form_on_which_it_is_asked_for()
    {
        await Draft.AddRule(await site.Known("ada"), """{"key":"elsewhere","name":"Insured first","cases":[{"while":{"kind":"clause","subject":{"kind":"field","field":"title"},"test":"is","comparands":[{"kind":"literal","value":"Insured"}]},"effects":[{"kind":"require","targets":[{"kind":"field","key":"insuredBy"}]}]}]}""");
        var lorenz = await site.Known("lorenz");
        var id = await lorenz.Begin(new { title = "Insured" });

        using var answer = await lorenz.Save(id, new { }, "assess", "quickEnquiry");

        var refusals = JsonNode.Parse(await answer.Content.ReadAsStringAsync())!["refusals"]!.AsArray();
        Assert.Equal("loanFile", refusals.Single(r => r!["field"]?.GetValue<string>() == "insuredBy")!["form"]!.GetValue<string>());
        Assert.Null(refusals.Single(r => r!["field"]?.GetValue<string>() == "borrower")!["form"]);
    }

    [Fact]
    public async Task After_a_move_that_closes_the_form_the_record_is_shown_on_one_that_applies()
    {
        var ada = await site.Known("ada");
        await Draft.AddRule(ada, """{"key":"once","name":"Enquiries are quick once","cases":[{"while":{"kind":"clause","subject":{"kind":"stage"},"test":"fromOn","comparands":[{"kind":"literal","value":"assessment"}]},"effects":[{"kind":"hide","targets":[{"kind":"form","key":"quickEnquiry"}]}]}]}""");
        var lorenz = await site.Known("lorenz");
        var id = await lorenz.Begin(new { title = "Kite", borrower = "Civic Gallery Vell", purpose = "research", startDate = "2027-01-10", @object = 1 });

        using var answer = await lorenz.Save(id, new { }, "assess", "quickEnquiry");

        Assert.Equal("loanFile", JsonNode.Parse(await answer.Content.ReadAsStringAsync())!["form"]!.GetValue<string>());
    }
}
