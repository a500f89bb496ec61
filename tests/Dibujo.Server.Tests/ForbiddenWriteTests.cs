using System.Net;
using System.Text.Json.Nodes;
using System.Text.RegularExpressions;
using Microsoft.AspNetCore.Routing;
using Microsoft.Extensions.DependencyInjection;

namespace Dibujo.Server.Tests;

/// <summary>Every address under every hand: what a caller may not do is refused, and nothing has changed after.</summary>
public sealed partial class ForbiddenWriteTests(Site site) : IClassFixture<Site>
{
    private const string Loans = "/api/record-types/object-loan";

    /// <summary>Every endpoint with a request to it, and who may call it: a(nyone), p(ersons who signed in), m(embers, programs too), administrators (A), or those who signed in (P).</summary>
    private static readonly (string Method, string Address, string? Body, char Whom)[] Endpoints =
    [
        ("GET", "/api/sign-in", null, 'a'),
        ("POST", "/api/sign-in", """{"userName": "nobody-at-all", "password": "wrong-password"}""", 'a'),
        ("GET", "/health", null, 'a'),
        ("GET", "/openapi/v1.json", null, 'm'),
        ("GET", "/api/sign-ins", null, 'p'),
        ("DELETE", "/api/sign-ins/999999", null, 'p'),
        ("GET", "/api/notation", null, 'p'),
        ("PUT", "/api/notation", """{"language": "xx"}""", 'p'),
        ("GET", "/api/tokens", null, 'p'),
        ("POST", "/api/tokens", """{"name": "", "days": 1}""", 'p'),
        ("DELETE", "/api/tokens/999999", null, 'p'),
        ("GET", "/api/people", null, 'm'),
        ("GET", "/api/accounts/", null, 'P'),
        ("POST", "/api/accounts/", """{"userName": "", "displayName": "", "roles": []}""", 'P'),
        ("PUT", "/api/accounts/nobody-at-all", """{"displayName": "", "roles": [], "isDisabled": false}""", 'P'),
        ("POST", "/api/accounts/nobody-at-all/links", null, 'P'),
        ("POST", "/api/welcome/look", """{"key": ""}""", 'a'),
        ("POST", "/api/welcome", """{"key": "", "password": ""}""", 'a'),
        ("GET", "/api/record-types", null, 'm'),
        ("POST", "/api/record-types", """{"key": "", "label": ""}""", 'A'),
        ("POST", "/api/record-types/packs", "{}", 'A'),
        ("GET", Loans, null, 'm'),
        ("GET", $"{Loans}/type", null, 'm'),
        ("GET", $"{Loans}/editions/1", null, 'm'),
        ("GET", $"{Loans}/records", null, 'm'),
        ("POST", $"{Loans}/imports", "title\n", 'm'),
        ("GET", $"{Loans}/columns", null, 'm'),
        ("POST", $"{Loans}/rows", """{"columns": []}""", 'm'),
        ("POST", $"{Loans}/rows/count", """{"columns": []}""", 'm'),
        ("POST", $"{Loans}/changes", """{"rows": [], "columns": []}""", 'm'),
        ("GET", $"{Loans}/views", null, 'm'),
        ("PUT", $"{Loans}/views", """{"name": "", "isShared": false, "layout": {}}""", 'm'),
        ("DELETE", $"{Loans}/views/999999", null, 'm'),
        ("POST", $"{Loans}/records", """{"changes": {}}""", 'm'),
        ("GET", $"{Loans}/records.csv", null, 'm'),
        ("GET", $"{Loans}/records.xlsx", null, 'm'),
        ("POST", $"{Loans}/records.csv", "title\n", 'm'),
        ("GET", $"{Loans}/new-record", null, 'm'),
        ("GET", $"{Loans}/links/object/1", null, 'm'),
        ("GET", "/api/records/1", null, 'm'),
        ("GET", "/api/records/1/title", null, 'm'),
        ("GET", "/api/records/1/history", null, 'm'),
        ("GET", "/api/records/1/versions/1", null, 'm'),
        ("POST", "/api/records/1/saves", """{"version": 0, "changes": {}}""", 'm'),
        ("GET", "/api/audit", null, 'A'),
        ("GET", $"{Loans}/draft", null, 'A'),
        ("PUT", $"{Loans}/draft", "{}", 'A'),
        ("GET", $"{Loans}/draft/steps?after=0", null, 'A'),
        ("POST", $"{Loans}/draft/steps", """{"edits": []}""", 'A'),
        ("POST", $"{Loans}/draft/collisions/999999", """{"keep": "earlier"}""", 'A'),
        ("GET", $"{Loans}/comparison?from=1&to=draft", null, 'A'),
        ("GET", $"{Loans}/draft/exports/nothing", null, 'A'),
        ("POST", $"{Loans}/draft/imports", "{}", 'A'),
        ("GET", $"{Loans}/editions", null, 'A'),
        ("POST", $"{Loans}/editions", """{"version": 0, "note": ""}""", 'A'),
        ("GET", $"{Loans}/editions/1/draft", null, 'A'),
        ("GET", $"{Loans}/publication", null, 'A'),
        ("GET", $"{Loans}/holdings", null, 'A'),
        ("GET", "/api/record-types/object-loan/draft/rules/nothing/in-force", null, 'A'),
        ("POST", $"{Loans}/consequences", "{}", 'A'),
        ("POST", "/api/reshaped", "{}", 'A'),
        ("GET", "/api/audit.csv?to=2000-01-01", null, 'A'),
        ("GET", "/api/accounts/nobody/access", null, 'P'),
        ("DELETE", "/api/accounts/nobody/sign-ins/999999", null, 'P'),
        ("DELETE", "/api/accounts/nobody/tokens/999999", null, 'P'),
        ("POST", "/api/tables", """{"file": ""}""", 'A'),
        ("POST", "/api/tables/00000000-0000-0000-0000-000000000000/columns", """{"column": 0, "label": "", "key": "", "type": {"kind": "text"}, "format": {}}""", 'A'),
        ("POST", "/api/tables/00000000-0000-0000-0000-000000000000/record-type", """{"key": "", "label": "", "titleField": "", "columns": []}""", 'A'),
        ("GET", "/api/imports/00000000-0000-0000-0000-000000000000", null, 'm'),
        ("GET", "/api/imports", null, 'm'),
        ("GET", "/api/imports/00000000-0000-0000-0000-000000000000/refused.csv", null, 'm'),
        ("DELETE", "/api/imports/00000000-0000-0000-0000-000000000000", null, 'm'),
        ("POST", "/api/imports/00000000-0000-0000-0000-000000000000/taking-back", "{}", 'm'),
        ("POST", "/api/packs/check", "{}", 'A'),
        ("POST", "/live/drafts/negotiate?negotiateVersion=1", "", 'A'),
        ("POST", "/live/records/negotiate?negotiateVersion=1", "", 'm'),
    ];

    private static readonly string[] Callers = ["", "ada", "lorenz", "rosa", "conrad", "delphine", "program of ada", "program of lorenz"];

    public static IEnumerable<object?[]> Calls =>
        from endpoint in Endpoints
        from caller in Callers
        select new object?[]
        {
            endpoint.Method, endpoint.Address, endpoint.Body, caller, endpoint.Whom switch
            {
                'a' => true,
                'p' => caller.Length > 0 && !caller.StartsWith("program", StringComparison.Ordinal),
                'm' => caller.Length > 0,
                'P' => caller == "ada",
                _ => caller.EndsWith("ada", StringComparison.Ordinal),
            },
        };

    /// <summary>Every field of a loan with a value that it could hold, under hands to which a returned loan is closed.</summary>
    public static IEnumerable<object?[]> ClosedFields =>
        from known in Core.Packs.PackFile.Read(File.ReadAllBytes(Checkout.Path("src", "Dibujo.Server", "Demo", "object-loan.pack.json"))).Pack!.RecordType.Fields
        from person in (string[])["lorenz", "conrad", "ada", "program of lorenz"]
        select new object?[] { known.Key, Sample(known.Type), person, "returned" };

    [Fact]
    public void No_endpoint_is_left_out()
    {
        var patterns = site.Services.GetRequiredService<IEnumerable<EndpointDataSource>>().SelectMany(s => s.Endpoints).OfType<RouteEndpoint>()
            .Where(e => e.Metadata.GetMetadata<IHttpMethodMetadata>() is not null)
            .SelectMany(e => e.Metadata.GetMetadata<IHttpMethodMetadata>()!.HttpMethods, (e, method) => (Method: method, Pattern: e.RoutePattern.RawText!))
            // Signing out is tried by itself, since it ends what the others need.
            .Where(e => e != ("DELETE", "/api/sign-in")).ToList();

        Assert.All(patterns, endpoint => Assert.Contains(Endpoints, e => e.Method == endpoint.Method
            && Regex.IsMatch(e.Address.Split('?')[0], $"^{Parameter().Replace(endpoint.Pattern.Replace(".", @"\.", StringComparison.Ordinal), "[^/]+")}$", RegexOptions.None, TimeSpan.FromSeconds(1))));
    }

    [Theory]
    [MemberData(nameof(Calls))]
    public async Task Whoever_may_not_call_an_address_is_turned_away(string method, string address, string? body, string person, bool isAllowed)
    {
        var caller = await Of(person);

        using var answer = await caller.Send(new(method), address, body, true, (address.EndsWith(".csv", StringComparison.Ordinal) || address == $"{Loans}/imports") ? "text/csv" : "application/json");

        if (isAllowed)
        {
            // Allowed is not yet granted: most of these requests are wrong in something else.
            Assert.True(answer.StatusCode is not (HttpStatusCode.Forbidden or HttpStatusCode.MethodNotAllowed), $"{answer.StatusCode}");
            Assert.True(address == "/api/sign-in" || answer.StatusCode != HttpStatusCode.Unauthorized);
            Assert.True((int)answer.StatusCode < 500, $"{answer.StatusCode}");
        }
        else
        {
            Assert.Equal(person.Length == 0 ? HttpStatusCode.Unauthorized : HttpStatusCode.Forbidden, answer.StatusCode);
        }
    }

    [Theory]
    [MemberData(nameof(ClosedFields))]
    public async Task A_closed_record_is_changed_by_nobody_through_no_form(string field, string sample, string person, string stage)
    {
        var id = await Closed(stage);
        var caller = await Of(person);
        var held = (await (await site.Known("rosa")).Read($"/api/records/{id}"))["values"]![field];
        sample = sample == "true" && held?.GetValue<bool>() == true ? "false" : sample;
        if (JsonNode.DeepEquals(held, JsonNode.Parse(sample)) || (field, person) == ("remarks", "conrad"))
        {
            // To leave a value as it is changes nothing; and remarks are the conservator's own, also then.
            return;
        }

        foreach (var form in (string?[])[null, "loanFile", "quickEnquiry", "conditionOut", "conditionBack"])
        {
            using var answer = await caller.Post($"/api/records/{id}/saves", $$$"""{"version": {{{await Version(id)}}}, "form": {{{(form is null ? "null" : $"\"{form}\"")}}}, "changes": {"{{{field}}}": {{{sample}}}}}""");

            Assert.Equal(HttpStatusCode.UnprocessableEntity, answer.StatusCode);
        }
    }

    [Theory]
    [InlineData("assess")]
    [InlineData("draw")]
    [InlineData("ask")]
    [InlineData("dispatch")]
    [InlineData("return")]
    public async Task No_form_is_a_way_around_what_a_move_needs(string move)
    {
        var lorenz = await site.Known("lorenz");
        var id = await lorenz.Begin(new { title = "Nothing but a title" });
        foreach (var form in (string?[])[null, "loanFile", "quickEnquiry", "conditionOut", "conditionBack", "attic"])
        {
            using var answer = await lorenz.Save(id, new { }, move, form);

            Assert.True(answer.StatusCode is HttpStatusCode.UnprocessableEntity or HttpStatusCode.NotFound, $"{form}: {answer.StatusCode}");
        }

        Assert.Equal("enquiry", (await lorenz.Read($"/api/records/{id}"))["setting"]!["stage"]!.GetValue<string>());
    }

    [Fact]
    public async Task A_change_without_the_token_of_the_browser_is_turned_away_everywhere()
    {
        var lorenz = await site.Known("ada");
        // What is only told live changes nothing.
        foreach (var (method, address, body, _) in Endpoints.Where(e => e.Method != "GET" && !e.Address.StartsWith("/live/", StringComparison.Ordinal)))
        {
            using var answer = await lorenz.Send(new(method), address, body, false, (address.EndsWith(".csv", StringComparison.Ordinal) || address == $"{Loans}/imports") ? "text/csv" : "application/json");
            Assert.True(answer.StatusCode == HttpStatusCode.BadRequest, $"{method} {address}: {answer.StatusCode}");
        }
    }

    private Task<Caller> Of(string person) => person.StartsWith("program of ", StringComparison.Ordinal)
        ? site.Program(person["program of ".Length..])
        : site.Known(person.Length == 0 ? null : person);

    /// <summary>A loan of the demo at that stage.</summary>
    private async Task<int> Closed(string stage) =>
        (await (await site.Known("rosa")).Read($"{Loans}/records?stage={stage}"))["rows"]![0]!["id"]!.GetValue<int>();

    private async Task<int> Version(int id) => (await (await site.Known("rosa")).Read($"/api/records/{id}"))["version"]!.GetValue<int>();

    private static string Sample(Core.Records.FieldType type) => type switch
    {
        Core.Records.YesNoType => "true",
        Core.Records.NumberType or Core.Records.MoneyType => "3",
        Core.Records.LinkType => "2",
        Core.Records.DateType => "\"2026-01-02\"",
        Core.Records.DateTimeType => "\"2026-01-02T03:04\"",
        Core.Records.ChoiceType choice => $"\"{choice.Options[^1].Key}\"",
        Core.Records.ChoicesType several => $"[\"{several.Options[^1].Key}\", \"{several.Options[0].Key}\"]",
        Core.Records.FullNameType => """{"given": "Someone", "family": "Else"}""",
        Core.Records.AddressType => """{"street": "Nowhere 1"}""",
        Core.Records.PersonType => "\"ada\"",
        _ => "\"Something else\"",
    };

    [GeneratedRegex(@"\{[^}]+\}", RegexOptions.None, 1000)]
    private static partial Regex Parameter();
}
