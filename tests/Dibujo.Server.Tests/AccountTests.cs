using System.Net;
using System.Text.Json.Nodes;

namespace Dibujo.Server.Tests;

/// <summary>People are invited, change what they may do and are shut out; a link is good once.</summary>
public sealed class AccountTests(Site site) : IClassFixture<Site>
{
    private const string Password = "a good long one";

    [Fact]
    public async Task A_person_who_is_invited_sets_a_password_once_and_may_do_what_was_said()
    {
        var (ada, key) = await Invited("wim", "Wim Ostrander", "registrar");

        var wim = await site.As(null);
        Assert.Equal("Wim Ostrander", (await Json(await wim.Post("/api/welcome/look", new { key })))["displayName"]!.GetValue<string>());
        using var weak = await wim.Post("/api/welcome", new { key, password = "short" });
        Assert.Equal(HttpStatusCode.BadRequest, weak.StatusCode);
        using var set = await wim.Post("/api/welcome", new { key, password = Password });
        Assert.Equal(HttpStatusCode.NoContent, set.StatusCode);
        using var again = await wim.Post("/api/welcome", new { key, password = Password });
        Assert.Equal(HttpStatusCode.NotFound, again.StatusCode);

        using var signedIn = await wim.Post("/api/sign-in", new { userName = "wim", password = Password });
        Assert.Equal(HttpStatusCode.NoContent, signedIn.StatusCode);
        var person = (await Json(await wim.Get("/api/sign-in")))["person"]!;
        Assert.Equal(["registrar"], person["roles"]!.AsArray().Select(role => role!.GetValue<string>()));
        var entry = (await Json(await ada.Get("/api/accounts")))["accounts"]!.AsArray().Single(a => a!["userName"]!.GetValue<string>() == "wim")!;
        Assert.True(entry["hasPassword"]!.GetValue<bool>());
    }

    [Fact]
    public async Task Who_is_disabled_is_refused_at_the_next_request_and_let_in_again_later()
    {
        var (ada, key) = await Invited("ines", "Ines Quarrell", "conservator");
        var ines = await site.As(null);
        using var set = await ines.Post("/api/welcome", new { key, password = Password });
        using var signedIn = await ines.Post("/api/sign-in", new { userName = "ines", password = Password });
        using var before = await ines.Get("/api/record-types");
        Assert.Equal(HttpStatusCode.OK, before.StatusCode);

        using var disabled = await ada.Put("/api/accounts/ines", new { displayName = "Ines Quarrell", roles = new[] { "conservator" }, isDisabled = true });
        Assert.Equal(HttpStatusCode.NoContent, disabled.StatusCode);
        using var after = await ines.Get("/api/record-types");
        Assert.Equal(HttpStatusCode.Unauthorized, after.StatusCode);
    }

    [Fact]
    public async Task Other_roles_are_in_force_in_sessions_that_are_open()
    {
        var (ada, key) = await Invited("odo", "Odo Falk", "registrar");
        var odo = await site.As(null);
        using var set = await odo.Post("/api/welcome", new { key, password = Password });
        using var signedIn = await odo.Post("/api/sign-in", new { userName = "odo", password = Password });
        using var forbidden = await odo.Get("/api/audit");
        Assert.Equal(HttpStatusCode.Forbidden, forbidden.StatusCode);

        using var changed = await ada.Put("/api/accounts/odo", new { displayName = "Odo Falk", roles = new[] { "administrator" }, isDisabled = false });
        using var allowed = await odo.Get("/api/audit");
        Assert.Equal(HttpStatusCode.OK, allowed.StatusCode);
    }

    [Fact]
    public async Task A_link_is_over_after_its_time_or_when_another_one_is_made()
    {
        var (ada, first) = await Invited("mirte", "Mirte Zand", "director");
        var second = (await Json(await ada.Post("/api/accounts/mirte/links", new { })))["key"]!.GetValue<string>();
        var nobody = await site.As(null);
        using var replaced = await nobody.Post("/api/welcome/look", new { key = first });
        Assert.Equal(HttpStatusCode.NotFound, replaced.StatusCode);
        using var good = await nobody.Post("/api/welcome/look", new { key = second });
        Assert.Equal(HttpStatusCode.OK, good.StatusCode);
        using var guessed = await nobody.Post("/api/welcome/look", new { key = new string('0', 64) });
        Assert.Equal(HttpStatusCode.NotFound, guessed.StatusCode);

        site.Clock.MoveOn(TimeSpan.FromDays(4));
        using var old = await nobody.Post("/api/welcome/look", new { key = second });
        Assert.Equal(HttpStatusCode.NotFound, old.StatusCode);
    }

    [Theory]
    [InlineData("ada", "administrator", false, "cannot take")]
    [InlineData("lorenz", "juggler", false, "no role “juggler”")]
    public async Task What_would_go_wrong_is_refused_with_why(string userName, string role, bool isDisabled, string why)
    {
        var ada = await site.As("ada");
        var roles = userName == "ada" ? [] : new[] { role };
        using var answer = await ada.Put($"/api/accounts/{userName}", new { displayName = "Somebody", roles, isDisabled });
        Assert.Equal(HttpStatusCode.BadRequest, answer.StatusCode);
        Assert.Contains(why, (await Json(answer))["detail"]!.GetValue<string>(), StringComparison.Ordinal);
    }

    private async Task<(Caller Ada, string Key)> Invited(string userName, string displayName, string role)
    {
        var ada = await site.As("ada");
        var made = await Json(await ada.Post("/api/accounts", new { userName, displayName, roles = new[] { role } }));
        return (ada, made["key"]!.GetValue<string>());
    }

    private static async Task<JsonNode> Json(HttpResponseMessage answer)
    {
        using (answer)
        {
            return JsonNode.Parse(await answer.Content.ReadAsStringAsync())!;
        }
    }
}
