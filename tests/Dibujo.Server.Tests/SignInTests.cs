using System.Net;
using System.Text.Json.Nodes;
using Microsoft.EntityFrameworkCore;

namespace Dibujo.Server.Tests;

/// <summary>Guessing is slow whatever is tried at once, and a session ends when it should.</summary>
public sealed class SignInTests(Site site) : IClassFixture<Site>
{
    private const string Loans = "/api/record-types/object-loan";

    [Fact]
    public async Task Who_signs_in_where_somebody_is_signed_in_is_signed_in_under_a_key_of_their_own()
    {
        var caller = await site.As("lorenz");
        await caller.SignIn("rosa");

        Assert.Equal("rosa", (await caller.Read("/api/sign-in"))["person"]!["userName"]!.GetValue<string>());
        Assert.Single(await caller.ReadAll("/api/sign-ins"), one => one!["isThis"]!.GetValue<bool>());
        var lorenz = await site.As("lorenz");
        Assert.Equal("lorenz", (await lorenz.Read("/api/sign-in"))["person"]!["userName"]!.GetValue<string>());
    }

    [Fact]
    public async Task Of_many_guesses_at_once_few_are_looked_at_and_the_right_one_is_not_let_in()
    {
        var known = await site.As("conrad");
        var guessers = await Task.WhenAll(Enumerable.Range(0, 60).Select(_ => site.As(null)));

        var answers = await Task.WhenAll(guessers.Index().Select(g => g.Item.Try("conrad", g.Index == 59 ? "quillhaven" : $"guess-number-{g.Index}")));

        Assert.InRange(answers.Count(a => a.StatusCode == HttpStatusCode.Unauthorized), 1, 5);
        Assert.Equal(HttpStatusCode.TooManyRequests, answers[59].StatusCode);
        Assert.All(answers, a => Assert.True(a.StatusCode is HttpStatusCode.Unauthorized or HttpStatusCode.TooManyRequests));
        // Whoever guesses elsewhere cannot keep the person out who has signed in here before.
        using var again = await known.Try("conrad", "quillhaven");
        Assert.Equal(HttpStatusCode.NoContent, again.StatusCode);
        Array.ForEach(answers, a => a.Dispose());
    }

    [Fact]
    public async Task An_unknown_name_is_told_the_same_as_a_known_one()
    {
        var told = new List<string>();
        foreach (var name in (string[])["delphine", "nobody-at-all"])
        {
            var guesser = await site.As(null);
            for (var i = 0; i < 7; i++)
            {
                using var answer = await guesser.Try(name, "wrong-password");
                told.Add($"{(int)answer.StatusCode} {JsonNode.Parse(await answer.Content.ReadAsStringAsync())!["title"]} {JsonNode.Parse(await answer.Content.ReadAsStringAsync())!["detail"]}");
            }
        }

        Assert.Equal(told[..7], told[7..]);
        Assert.StartsWith("401 You are not signed in.", told[4], StringComparison.Ordinal);
        Assert.StartsWith("429 There were too many wrong passwords.", told[5], StringComparison.Ordinal);
    }

    [Fact]
    public async Task After_signing_out_the_old_cookie_opens_nothing()
    {
        using var http = site.CreateClient(new() { AllowAutoRedirect = false, HandleCookies = false });
        var lorenz = await site.As("lorenz");
        var cookie = await Cookie("lorenz");
        Assert.Equal(HttpStatusCode.OK, (await Get(http, cookie)).StatusCode);

        await site.InStore(async db => await db.SignIns.ExecuteDeleteAsync());

        Assert.Equal(HttpStatusCode.Unauthorized, (await Get(http, cookie)).StatusCode);
        using var save = await lorenz.Post($"{Loans}/records", new { changes = new { title = "Late" } });
        Assert.False(save.IsSuccessStatusCode);
    }

    [Fact]
    public async Task Signing_out_deletes_the_session()
    {
        var rosa = await site.As("rosa");
        using var before = await rosa.Get("/api/record-types");
        using var signedOut = await rosa.Send(HttpMethod.Delete, "/api/sign-in", null, true);
        using var after = await rosa.Get("/api/record-types");

        Assert.Equal((HttpStatusCode.OK, HttpStatusCode.NoContent, HttpStatusCode.Unauthorized), (before.StatusCode, signedOut.StatusCode, after.StatusCode));
    }

    [Theory]
    [InlineData("role", HttpStatusCode.Forbidden)]
    [InlineData("stamp", HttpStatusCode.Unauthorized)]
    [InlineData("locked", HttpStatusCode.Unauthorized)]
    public async Task What_a_person_may_do_is_in_force_at_once_in_sessions_that_are_open(string change, HttpStatusCode then)
    {
        using var own = new Site();
        var ada = await own.As("ada");
        using var before = await ada.Get($"{Loans}/draft");
        await own.InStore(async db =>
        {
            var account = await db.Users.SingleAsync(u => u.UserName == "ada");
            if (change == "role")
            {
                await db.UserRoles.Where(r => r.UserId == account.Id).ExecuteDeleteAsync();
            }
            else if (change == "stamp")
            {
                await db.Users.ExecuteUpdateAsync(u => u.SetProperty(x => x.SecurityStamp, "another"));
            }
            else
            {
                account.LockoutEnd = own.Clock.GetUtcNow().AddDays(1);
                await db.SaveChangesAsync();
            }
        });

        using var after = await ada.Get($"{Loans}/draft");

        Assert.Equal((HttpStatusCode.OK, then), (before.StatusCode, after.StatusCode));
    }

    [Fact]
    public async Task A_session_ends_after_half_a_day_without_use_and_after_a_week_in_any_case()
    {
        using var own = new Site();
        var idle = await own.As("lorenz");
        own.Clock.MoveOn(TimeSpan.FromHours(12) + TimeSpan.FromMinutes(1));
        Assert.Equal(HttpStatusCode.Unauthorized, await Status(idle));

        var busy = await own.As("rosa");
        for (var hours = 0; hours < (7 * 24) - 8; hours += 8)
        {
            own.Clock.MoveOn(TimeSpan.FromHours(8));
            Assert.Equal(HttpStatusCode.OK, await Status(busy));
        }

        own.Clock.MoveOn(TimeSpan.FromHours(9));
        Assert.Equal(HttpStatusCode.Unauthorized, await Status(busy));

        static async Task<HttpStatusCode> Status(Caller caller)
        {
            using var answer = await caller.Get("/api/record-types");
            return answer.StatusCode;
        }
    }

    [Fact]
    public async Task A_person_sees_their_sessions_and_ends_one_left_behind()
    {
        using var own = new Site();
        var here = await own.As("lorenz");
        var there = await own.As("lorenz");
        using var listed = await here.Get("/api/sign-ins");
        var sessions = JsonNode.Parse(await listed.Content.ReadAsStringAsync())!.AsArray();
        Assert.Equal(2, sessions.Count);

        var left = sessions.Single(s => s!["isThis"]!.GetValue<bool>())!["id"];
        using var ended = await there.Send(HttpMethod.Delete, $"/api/sign-ins/{left}", null, true);

        using var after = await here.Get("/api/record-types");
        using var stillThere = await there.Get("/api/record-types");
        Assert.Equal((HttpStatusCode.Unauthorized, HttpStatusCode.OK), (after.StatusCode, stillThere.StatusCode));
    }

    [Fact]
    public async Task A_token_is_worth_nothing_once_it_is_taken_back_or_has_expired()
    {
        using var own = new Site();
        var program = await own.Program("lorenz");
        Assert.True((await program.Get("/api/record-types")).IsSuccessStatusCode);
        own.Clock.MoveOn(TimeSpan.FromDays(1) + TimeSpan.FromMinutes(1));
        Assert.Equal(HttpStatusCode.Unauthorized, (await program.Get("/api/record-types")).StatusCode);

        var rosa = await own.As("rosa");
        using var made = await rosa.Post("/api/tokens", new { name = "Nightly list", days = 30 });
        var token = JsonNode.Parse(await made.Content.ReadAsStringAsync())!;
        using var http = own.CreateClient();
        http.DefaultRequestHeaders.Authorization = new("Bearer", token["token"]!.GetValue<string>());
        Assert.True((await http.GetAsync(new Uri("/api/record-types", UriKind.Relative))).IsSuccessStatusCode);
        using var revoked = await rosa.Send(HttpMethod.Delete, $"/api/tokens/{token["id"]}", null, true);
        Assert.Equal(HttpStatusCode.Unauthorized, (await http.GetAsync(new Uri("/api/record-types", UriKind.Relative))).StatusCode);
        await own.InStore(async db => Assert.DoesNotContain(await db.ApiTokens.Select(t => t.Hash).ToListAsync(), hash => token["token"]!.GetValue<string>() == hash));
    }

    [Fact]
    public async Task Passwords_are_hashed_as_slowly_as_is_asked_today() => await site.InStore(async db =>
    {
        // Identity's format: a marker, the function (2: HMAC-SHA-512), the iterations.
        var hash = Convert.FromBase64String((await db.Users.FirstAsync()).PasswordHash!);
        Assert.Equal(2, BitConverter.ToInt32([.. hash[1..5].Reverse()]));
        Assert.True(BitConverter.ToInt32([.. hash[5..9].Reverse()]) >= 210_000);
    });

    private async Task<string> Cookie(string person)
    {
        using var http = site.CreateClient(new() { HandleCookies = false });
        using var session = await http.GetAsync(new Uri("/api/sign-in", UriKind.Relative));
        using var request = new HttpRequestMessage(HttpMethod.Post, "/api/sign-in") { Content = System.Net.Http.Json.JsonContent.Create(new { userName = person, password = "quillhaven" }) };
        request.Headers.Add("X-Dibujo-Token", JsonNode.Parse(await session.Content.ReadAsStringAsync())!["token"]!.GetValue<string>());
        request.Headers.Add("Cookie", session.Headers.GetValues("Set-Cookie").Select(c => c.Split(';')[0]));
        using var answer = await http.SendAsync(request);
        return answer.Headers.GetValues("Set-Cookie").Select(c => c.Split(';')[0]).Last(c => c.StartsWith("dibujo=", StringComparison.Ordinal));
    }

    private static async Task<HttpResponseMessage> Get(HttpClient http, string cookie)
    {
        using var request = new HttpRequestMessage(HttpMethod.Get, "/api/record-types");
        request.Headers.Add("Cookie", cookie);
        return await http.SendAsync(request);
    }
}
