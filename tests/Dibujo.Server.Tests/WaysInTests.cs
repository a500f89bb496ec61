using System.Net;
using System.Text.Json.Nodes;

namespace Dibujo.Server.Tests;

/// <summary>Whatever the rules forbid is refused by every way in, with a reason, and nothing has changed after.</summary>
public sealed class WaysInTests(Site site) : IClassFixture<Site>
{
    private const string Loans = "/api/record-types/object-loan";

    /// <summary>A loan at its first stage, as a loans officer has it.</summary>
    private const string Loan = """
        {"title": "Pewter Swan for Vell", "borrower": "House of Vell", "borrowerType": "private", "borrowerContact": {"given": "Ines", "family": "Kahl"},
         "purpose": "research", "startDate": "2031-03-01", "endDate": "2031-09-01", "hazards": true, "hazardNotes": "Sharp beak"}
        """;

    /// <summary>What a loans officer may not do to it, and what the reason is about.</summary>
    private static readonly (string What, string Changes, string About)[] Forbidden =
    [
        ("a field that a rule calculates", """{"loanDays": 5}""", "loanDays"),
        ("a field that is hidden", """{"purposeDescribed": "Quietly"}""", "purposeDescribed"),
        ("a field that its own driver hides", """{"hazards": false, "hazardNotes": "Quietly"}""", "hazardNotes"),
        ("a choice that is narrowed away", """{"purpose": "photography"}""", "purpose"),
        ("what stops a save", """{"endDate": "2031-02-01"}""", "endDate"),
        ("what is needed to save, taken away", """{"hazardNotes": null}""", "hazardNotes"),
        ("what becomes needed to save, left out", """{"extensionAsked": true}""", "extensionReason"),
        ("a choice that there is not", """{"material": "moonstone"}""", "material"),
        ("something that is no date", """{"startDate": "soon"}""", "startDate"),
        ("a record that there is not", """{"object": 999999}""", "object"),
        ("two things, one of them open", """{"borrower": "House of Kestrelmoor", "loanDays": 5}""", "loanDays"),
    ];

    /// <summary>How one comes in: answers with everything that was said.</summary>
    private static readonly Dictionary<string, Func<Site, int, int, JsonObject, Task<string>>> Ways = new(StringComparer.Ordinal)
    {
        ["form"] = (site, id, version, changes) => SaveAsync(site, id, new JsonObject { ["version"] = version, ["changes"] = changes }),
        ["another form named"] = (site, id, version, changes) => SaveAsync(site, id, new JsonObject { ["version"] = version, ["changes"] = changes, ["form"] = "quickEnquiry" }),
        ["list"] = (site, id, version, changes) => SaveAsync(site, id, new JsonObject { ["version"] = version, ["changes"] = changes, ["inList"] = true }),
        ["program"] = (site, id, version, changes) => SaveAsync(site, id, new JsonObject { ["version"] = version, ["changes"] = changes }, isProgram: true),
        ["program that says it is a list"] = (site, id, version, changes) => SaveAsync(site, id, new JsonObject { ["version"] = version, ["changes"] = changes, ["inList"] = true }, isProgram: true),
        ["several rows at once"] = async (site, id, version, changes) =>
        {
            var rows = new JsonArray(new JsonObject { ["id"] = id, ["version"] = version, ["changes"] = changes });
            return (await (await site.Known("lorenz")).Ask($"{Loans}/changes", new JsonObject { ["rows"] = rows, ["columns"] = new JsonArray() })).ToJsonString();
        },
        ["file"] = async (site, id, version, changes) =>
        {
            using var answer = await (await site.Known("lorenz")).Send(HttpMethod.Post, $"{Loans}/records.csv", File(id, version, changes), true, "text/csv");
            return await answer.Content.ReadAsStringAsync();
        },
        ["file in the background"] = async (site, id, version, changes) =>
        {
            var lorenz = await site.Known("lorenz");
            using var begun = await lorenz.Send(HttpMethod.Post, $"{Loans}/imports", File(id, version, changes), true, "text/csv");
            var import = JsonNode.Parse(await begun.Content.ReadAsStringAsync())!["id"]!.GetValue<string>();
            while (true)
            {
                var progress = await lorenz.Read($"/api/imports/{import}");
                if (progress["report"] is { } report)
                {
                    return report.ToJsonString();
                }

                await Task.Delay(20);
            }
        },
    };

    public static IEnumerable<object[]> Tries => from way in Ways.Keys from forbidden in Forbidden select new object[] { way, forbidden.What };

    [Theory]
    [MemberData(nameof(Tries))]
    public async Task What_is_forbidden_is_refused_by_every_way_in(string way, string what)
    {
        var (_, changes, about) = Forbidden.Single(one => one.What == what);
        var lorenz = await site.Known("lorenz");
        var before = await BeginAsync(lorenz);
        var (id, version) = (before["id"]!.GetValue<int>(), before["version"]!.GetValue<int>());

        var said = await Ways[way](site, id, version, JsonNode.Parse(changes)!.AsObject());

        var label = (await lorenz.Read($"{Loans}/type"))["recordType"]!["fields"]!.AsArray().Single(field => field!["key"]!.GetValue<string>() == about)!["label"]!.GetValue<string>();
        // A form on which a field does not stand refuses that field, before anything that would follow from it.
        string[] names = [$"\"{about}\"", label, .. JsonNode.Parse(changes)!.AsObject().Select(change => $"\"{change.Key}\"")];
        Assert.True(names.Any(name => said.Contains(name, StringComparison.Ordinal)), said);
        var after = await lorenz.Read($"/api/records/{id}");
        Assert.Equal(version, after["version"]!.GetValue<int>());
        Assert.True(JsonNode.DeepEquals(before["values"], after["values"]), $"{before["values"]} has become {after["values"]}");
    }

    [Theory]
    [InlineData("""{"channel": "import"}""")]
    [InlineData("""{"setting": {"stage": "returned"}}""")]
    [InlineData("""{"roles": ["director"]}""")]
    public async Task Nobody_names_a_channel_a_stage_or_a_role(string claim)
    {
        var lorenz = await site.Known("lorenz");
        var record = await BeginAsync(lorenz);
        var request = JsonNode.Parse(claim)!.AsObject();
        (request["version"], request["changes"]) = (record["version"]!.DeepClone(), new JsonObject { ["borrower"] = "House of Kestrelmoor" });

        using var answer = await lorenz.Post($"/api/records/{record["id"]}/saves", request.ToJsonString());

        Assert.Equal(HttpStatusCode.BadRequest, answer.StatusCode);
        Assert.True(JsonNode.DeepEquals(record["values"], (await lorenz.Read($"/api/records/{record["id"]}"))["values"]));
    }

    private static async Task<JsonObject> BeginAsync(Caller lorenz)
    {
        using var begun = await lorenz.Post($"{Loans}/records", new JsonObject { ["changes"] = JsonNode.Parse(Loan) }.ToJsonString());
        var record = JsonNode.Parse(await begun.Content.ReadAsStringAsync())!.AsObject();
        Assert.True(begun.IsSuccessStatusCode, record.ToJsonString());
        return await lorenz.Read($"/api/records/{record["id"]}");
    }

    private static async Task<string> SaveAsync(Site site, int id, JsonObject save, bool isProgram = false)
    {
        using var answer = await (isProgram ? await site.Program("lorenz") : await site.Known("lorenz")).Post($"/api/records/{id}/saves", save.ToJsonString());
        Assert.Equal(HttpStatusCode.UnprocessableEntity, answer.StatusCode);
        return await answer.Content.ReadAsStringAsync();
    }

    private static string File(int id, int version, JsonObject changes) =>
        $"id,version,{string.Join(',', changes.Select(one => one.Key))}\n{id},{version},{string.Join(',', changes.Select(one => one.Value?.ToString()))}\n";
}
