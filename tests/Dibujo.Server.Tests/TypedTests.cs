using System.Net;
using System.Text.Json.Nodes;

namespace Dibujo.Server.Tests;

/// <summary>What people type is read by the server as they write; what programs send means what it says.</summary>
public sealed class TypedTests(Site site) : IClassFixture<Site>
{
    private const string Rows = "/api/record-types/object-loan/changes";

    private static readonly object Enquiry = new { title = "Almanac for Vell", borrower = "Civic Gallery Vell", purpose = "research", startDate = "2027-01-10" };

    [Theory]
    [InlineData("de-DE", """{"startDate": "1.3.2027"}""", "2027-03-01")]
    [InlineData("en-US", """{"startDate": "3/1/2027"}""", "2027-03-01")]
    [InlineData("ja-JP", """{"startDate": "2027年3月1日"}""", "2027-03-01")]
    [InlineData("de-DE", """{"insuredValue": "EUR 300.000"}""", "300000")]
    [InlineData("en-US", """{"insuredValue": "1.250,50"}""", "1250.50")]
    [InlineData("en-US", """{"purpose": "Exhibition"}""", "exhibition")]
    [InlineData("en-US", """{"borrowerContact": "Brandt Ferring, Hugo"}""", """{"family":"Brandt Ferring","given":"Hugo"}""")]
    [InlineData("en-US", """{"requestedBy": "Rosa Okkema"}""", "rosa")]
    public async Task What_is_typed_is_read_by_the_persons_own_setting(string language, string typed, string value)
    {
        var rosa = await site.As("rosa");
        await Written(rosa, language);
        var id = await rosa.Begin(Enquiry);
        var changes = JsonNode.Parse(typed)!.AsObject();

        using var answer = await rosa.Save(id, changes);

        Assert.True(answer.StatusCode == HttpStatusCode.OK, await answer.Content.ReadAsStringAsync());
        var saved = (await rosa.Read($"/api/records/{id}"))["values"]![changes.First().Key]!;
        Assert.Equal(value, saved is JsonObject ? saved.ToJsonString() : saved.ToString());
    }

    [Fact]
    public async Task What_may_be_read_in_two_ways_is_asked_for_and_never_guessed()
    {
        var rosa = await site.As("rosa");
        await Written(rosa, "ja-JP");
        var id = await rosa.Begin(Enquiry);

        using var answer = await rosa.Save(id, new { startDate = "1/3/2027", insuredValue = "300.000" });

        Assert.Equal(["wrongType startDate", "wrongType insuredValue"], await answer.Refusals());
        Assert.Contains("“1/3/2027” may be 1 Mar 2027 or 3 Jan 2027.", await answer.Content.ReadAsStringAsync(), StringComparison.Ordinal);
        Assert.Equal("2027-01-10", (await rosa.Read($"/api/records/{id}"))["values"]!["startDate"]!.GetValue<string>());
    }

    [Fact]
    public async Task A_program_has_to_say_what_it_means()
    {
        var id = await (await site.As("rosa")).Begin(Enquiry);

        using var answer = await (await site.Program("rosa")).Save(id, new { startDate = "25.3.2027" });

        Assert.Equal(["wrongType startDate"], await answer.Refusals());
    }

    [Fact]
    public async Task A_trial_tells_what_would_come_of_rows_and_stores_nothing()
    {
        var rosa = await site.As("rosa");
        await Written(rosa, "de-DE");
        var id = await rosa.Begin(Enquiry);

        var outcomes = (await rosa.Ask(Rows, new JsonObject
        {
            ["columns"] = new JsonArray("startDate"),
            ["isTrial"] = true,
            ["rows"] = new JsonArray(Row(id, """{"startDate": "1.3.2027"}"""), Row(id, """{"startDate": "soon"}""")),
        })).AsArray();

        Assert.Equal("2027-03-01", outcomes[0]!["row"]!["values"]!["startDate"]!.GetValue<string>());
        Assert.Contains("is no day", outcomes[1]!["refusals"]![0]!["message"]!.GetValue<string>(), StringComparison.Ordinal);
        var stored = await rosa.Read($"/api/records/{id}");
        Assert.Equal((1, "2027-01-10"), (stored["version"]!.GetValue<int>(), stored["values"]!["startDate"]!.GetValue<string>()));
    }

    [Fact]
    public async Task What_is_sent_again_as_its_answer_was_lost_is_done_once()
    {
        var rosa = await site.As("rosa");
        var (begun, saved) = (Guid.NewGuid(), Guid.NewGuid());
        var first = await Begin(begun);
        var again = await Begin(begun);
        Assert.Equal(first, again);

        using var save = await rosa.Post($"/api/records/{first}/saves", new { version = 1, changes = new { startDate = "2027-02-01" }, ticket = saved });
        using var repeated = await rosa.Post($"/api/records/{first}/saves", new { version = 1, changes = new { startDate = "2027-02-01" }, ticket = saved });
        Assert.Equal((HttpStatusCode.OK, HttpStatusCode.OK), (save.StatusCode, repeated.StatusCode));
        Assert.Equal(2, (await rosa.ReadAll($"/api/records/{first}/history")).Count);

        // In a list the answer says again what is to be sent to have it undone.
        var row = Row(first, """{"startDate": "2027-02-01"}""");
        row["ticket"] = saved;
        var outcome = (await rosa.Ask(Rows, new JsonObject { ["columns"] = new JsonArray("startDate"), ["rows"] = new JsonArray(row) }))[0]!;
        Assert.Equal("2027-01-10", outcome["replaced"]!["startDate"]!.GetValue<string>());

        // Another person's ticket says nothing.
        using var others = await (await site.As("lorenz")).Post($"/api/records/{first}/saves", new { version = 1, changes = new { startDate = "2027-02-01" }, ticket = saved });
        Assert.Equal(HttpStatusCode.Conflict, others.StatusCode);

        async Task<int> Begin(Guid ticket)
        {
            using var answer = await rosa.Post("/api/record-types/object-loan/records", new { changes = Enquiry, ticket });
            Assert.Equal(HttpStatusCode.Created, answer.StatusCode);
            return JsonNode.Parse(await answer.Content.ReadAsStringAsync())!["id"]!.GetValue<int>();
        }
    }

    [Fact]
    public async Task How_one_writes_is_one_of_the_ways_that_there_are()
    {
        var rosa = await site.As("rosa");
        using var nobody = await rosa.Put("/api/notation", new { language = "xx" });
        Assert.Equal(HttpStatusCode.BadRequest, nobody.StatusCode);

        using var set = await rosa.Put("/api/notation", new { language = "fr-CH", day = "yyyy-MM-dd", numbers = "1’234.5" });
        Assert.Equal(HttpStatusCode.NoContent, set.StatusCode);
        var notation = (await rosa.Read("/api/sign-in"))["notation"]!;
        Assert.Equal(("fr-CH", "yyyy-MM-dd", "1’234.5"), (notation["language"]!.ToString(), notation["day"]!.ToString(), notation["numbers"]!.ToString()));
    }

    private static async Task Written(Caller person, string language)
    {
        using var set = await person.Put("/api/notation", new { language });
        Assert.Equal(HttpStatusCode.NoContent, set.StatusCode);
    }

    private static JsonObject Row(int id, string changes) => new() { ["id"] = id, ["version"] = 1, ["changes"] = JsonNode.Parse(changes) };
}
