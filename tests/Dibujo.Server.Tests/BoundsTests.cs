using System.Net;
using System.Text.Json.Nodes;

namespace Dibujo.Server.Tests;

/// <summary>Whatever is sent has a bound, which the OpenAPI document names; beyond it the answer is 400 and says so.</summary>
public sealed class BoundsTests(Site site) : IClassFixture<Site>
{
    private const string Rows = "/api/record-types/object-loan/rows";

    private const string Blank = """{"kind": "clause", "of": "title", "test": "blank"}""";
    private const string Empty = """{"kind": "group", "quantifier": "noneOf", "members": []}""";

    public static TheoryData<string, string> TooMuch => new()
    {
        { "values", Filtered(OneOf(90_000)) },
        { "values together", Filtered(Group(OneOf(100), 20)) },
        { "tests", Filtered(Group(Blank, 31)) },
        { "groups", Filtered(Group(Empty, 5000)) },
        { "columns", $$"""{"columns": [{{string.Join(',', Enumerable.Range(0, 500).Select(i => $"\"c{i}\""))}}]}""" },
        { "a column", $$"""{"columns": ["{{new string('c', 5000)}}"]}""" },
        { "a sort", $$"""{"columns": ["title"], "sortBy": "{{new string('c', 5000)}}"}""" },
        { "a search", $$"""{"columns": ["title"], "search": "{{new string('c', 5000)}}"}""" },
        { "a place", $$"""{"columns": ["title"], "after": "{{new string('A', 8000)}}"}""" },
    };

    [Theory]
    [MemberData(nameof(TooMuch))]
    public async Task More_of_a_list_than_there_can_be_is_refused_and_said(string what, string request)
    {
        using var answer = await (await site.Known("lorenz")).Post(Rows, request);

        Assert.True(answer.StatusCode == HttpStatusCode.BadRequest, $"{what}: {answer.StatusCode}");
        Assert.NotEmpty(JsonNode.Parse(await answer.Content.ReadAsStringAsync())!["detail"]!.GetValue<string>());
    }

    [Theory]
    [InlineData("""{"edits": [{"key": "a", "base": 100000, "rule": {"key": "a", "name": "A"}}]}""", "made on version 100000")]
    [InlineData("""{"edits": [{"key": "a", "base": 0, "rule": {"key": "b", "name": "B"}}]}""", "holds a rule with the key “b”")]
    [InlineData("""{"edits": [{"key": "a", "base": 0, "isRemoved": true}, {"key": "a", "base": 0, "rule": {"key": "a", "name": "A"}}]}""", "two edits of “a”")]
    [InlineData("""{"edits": [], "recordTypeBase": 100000}""", "made on version 100000")]
    public async Task A_step_that_makes_no_sense_is_refused_and_changes_nothing(string step, string why)
    {
        var ada = await site.Known("ada");
        var before = (await ada.Read(Draft.Address))["version"]!.GetValue<int>();

        using var answer = await ada.Post($"{Draft.Address}/steps", step);

        Assert.Equal(HttpStatusCode.BadRequest, answer.StatusCode);
        Assert.Contains(why, JsonNode.Parse(await answer.Content.ReadAsStringAsync())!["detail"]!.GetValue<string>(), StringComparison.Ordinal);
        Assert.Equal(before, (await ada.Read(Draft.Address))["version"]!.GetValue<int>());
    }

    [Theory]
    [InlineData("ListRequest", "columns", "maxItems", 400)]
    [InlineData("ListRequest", "search", "maxLength", 200)]
    [InlineData("ListRequest", "after", "maxLength", 4000)]
    [InlineData("ListRequest", "take", "maximum", 200)]
    [InlineData("FilterFilterClause", "values", "maxItems", 1000)]
    [InlineData("DraftStep", "edits", "maxItems", 5000)]
    [InlineData("ViewToKeep", "name", "maxLength", 60)]
    public async Task Bounds_stand_in_the_document(string schema, string property, string bound, int most)
    {
        var document = JsonNode.Parse(await File.ReadAllTextAsync(Checkout.Path("src", "web", "openapi.json")))!;

        Assert.Equal(most, document["components"]!["schemas"]![schema]!["properties"]![property]![bound]!.GetValue<int>());
    }

    private static string Filtered(string filter) => $$"""{"columns": ["title"], "filter": {{filter}} }""";

    private static string OneOf(int values) => $$"""{"kind": "clause", "of": "loanDays", "test": "oneOf", "values": [{{string.Join(',', Enumerable.Range(0, values))}}] }""";

    private static string Group(string member, int times) => $$"""{"kind": "group", "quantifier": "anyOf", "members": [{{string.Join(',', Enumerable.Repeat(member, times))}}] }""";
}
