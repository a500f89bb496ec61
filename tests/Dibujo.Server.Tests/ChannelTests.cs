using System.Net;
using System.Text.Json.Nodes;

namespace Dibujo.Server.Tests;

/// <summary>The server knows by which way a request came, and nobody can name another.</summary>
public sealed class ChannelTests(Site site) : IClassFixture<Site>
{
    private const string Works = "/api/record-types/gallery-works/records";

    [Theory]
    [InlineData("import")]
    [InlineData("api")]
    [InlineData("form")]
    public async Task A_request_cannot_name_its_channel(string channel)
    {
        var lorenz = await site.Known("lorenz");

        using var begun = await lorenz.Post("/api/record-types/object-loan/records", $$"""{"changes": {"title": "Kite"}, "channel": "{{channel}}"}""");

        Assert.Equal(HttpStatusCode.BadRequest, begun.StatusCode);
        Assert.Contains("channel", await begun.Content.ReadAsStringAsync(), StringComparison.Ordinal);
    }

    [Fact]
    public async Task What_is_closed_to_a_channel_is_closed_to_what_comes_by_it_and_to_nothing_else()
    {
        var ada = await site.Known("ada");
        var lorenz = await site.Known("lorenz");
        var program = await site.Program("lorenz");
        foreach (var (channel, field) in ((string, string)[])[("api", "fee"), ("form", "lightLimit"), ("list", "grossWeight"), ("import", "remarks")])
        {
            await Draft.AddRule(ada, $$$"""{"key":"only-{{{channel}}}","name":"Not through {{{channel}}}","where":{"channels":["{{{channel}}}"]},"cases":[{"effects":[{"kind":"lock","targets":[{"kind":"field","key":"{{{field}}}"}]},{"kind":"show","targets":[{"kind":"field","key":"{{{field}}}"}]}]}]}""");
        }

        Assert.Equal(["locked fee"], await Reasons(program, new { fee = 3 }));
        Assert.Empty(await Reasons(program, new { remarks = "x" }));
        Assert.Equal(["locked grossWeight"], await Reasons(lorenz, new { grossWeight = 3 }, inList: true));
        Assert.Empty(await Reasons(lorenz, new { fee = 3 }));
        // A program is a program, whatever it says.
        Assert.Equal(["locked fee"], await Reasons(program, new { fee = 3 }, inList: true));

        using var import = await lorenz.Send(HttpMethod.Post, "/api/record-types/object-loan/records.csv", "title,borrower,purpose,remarks\nKite,Vell,research,x\n", true, "text/csv");
        Assert.Contains("remarks: This field is locked", await import.Content.ReadAsStringAsync(), StringComparison.OrdinalIgnoreCase);
        using var byProgram = await program.Send(HttpMethod.Post, "/api/record-types/object-loan/records.csv", "title,borrower,purpose,fee\nKite,Vell,research,3\n", false, "text/csv");
        Assert.DoesNotContain("locked", await byProgram.Content.ReadAsStringAsync(), StringComparison.Ordinal);
    }

    [Fact]
    public async Task A_program_writes_without_cookies_and_leaves_the_persons_name()
    {
        var program = await site.Program("rosa");
        using var begun = await program.Send(HttpMethod.Post, Works, """{"changes": {"title": "Bench", "kind": "plinth"}}""", false);

        Assert.True(begun.IsSuccessStatusCode, await begun.Content.ReadAsStringAsync());
        var record = JsonNode.Parse(await begun.Content.ReadAsStringAsync())!;
        Assert.Equal(("rosa", "api"), (record["changedBy"]!.GetValue<string>(), record["setting"]!["channel"]!.GetValue<string>()));
    }

    private static async Task<string[]> Reasons(Caller caller, object changes, bool inList = false)
    {
        var all = JsonNode.Parse(System.Text.Json.JsonSerializer.Serialize(changes))!.AsObject();
        all["title"] = "Kite";
        using var answer = await caller.Send(HttpMethod.Post, "/api/record-types/object-loan/records", new JsonObject { ["changes"] = all, ["inList"] = inList }.ToJsonString(), true);
        return answer.IsSuccessStatusCode ? [] : await answer.Refusals();
    }
}
