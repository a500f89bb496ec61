using System.Collections.Concurrent;
using System.Globalization;
using System.Net;
using System.Text.Json.Nodes;
using Microsoft.EntityFrameworkCore;

namespace Dibujo.Server.Tests;

/// <summary>Whatever is open when a right ends is closed at that moment: every way in, for every end.</summary>
public sealed class RightsTests(Site site) : IClassFixture<Site>
{
    private const string Password = "a good long one";

    private static readonly TimeSpan Patience = TimeSpan.FromSeconds(20);

    private static int people;

    public static TheoryData<string, string> Ends
    {
        get
        {
            var ends = new TheoryData<string, string>();
            foreach (var end in (string[])["signed out", "session ended by oneself", "session ended by an administrator", "disabled", "password set by a link", "token taken back", "token ended by an administrator"])
            {
                foreach (var way in (string[])["page", "picker", "hub", "import", "export"])
                {
                    ends.Add(end, way);
                }
            }

            ends.Add("role taken away", "page of administrators");
            ends.Add("role taken away", "hub of drafts");
            ends.Add("role taken away", "export of the audit trail");
            return ends;
        }
    }

    [Theory]
    [MemberData(nameof(Ends))]
    public async Task What_is_open_ends_with_the_right_by_which_it_was_opened(string end, string way)
    {
        var name = $"guest{Interlocked.Increment(ref people)}";
        var isProgram = end.StartsWith("token", StringComparison.Ordinal);
        var ada = await site.Known("ada");
        await Invite(ada, name, end == "role taken away" ? ["administrator"] : ["loansOfficer"]);
        var person = await Walker.SignedIn(site, name, Password);
        using var made = isProgram ? await person.Send(HttpMethod.Post, "/api/tokens", new { name = "A program", days = 1 }) : null;
        var token = made is null ? null : JsonNode.Parse(await made.Content.ReadAsStringAsync());
        var walker = isProgram ? Walker.With(site, token!["token"]!.GetValue<string>()) : person;

        switch (way)
        {
            case "page" or "picker" or "page of administrators":
                var address = way switch { "page" => "/api/records/100", "picker" => "/api/record-types/collection-object/records?search=a", _ => "/api/accounts" };
                using (var before = await walker.Get(address))
                {
                    Assert.Equal(HttpStatusCode.OK, before.StatusCode);
                }

                await End(end, name, person, ada, token);
                using (var after = await walker.Get(address))
                {
                    Assert.Contains(after.StatusCode, new[] { HttpStatusCode.Unauthorized, HttpStatusCode.Forbidden });
                }

                break;
            case "hub" or "hub of drafts":
                var heard = new ConcurrentQueue<string>();
                var (connection, closed) = await walker.Listen(way == "hub" ? "/live/records" : "/live/drafts", heard.Enqueue);
                await connection.InvokeCoreAsync("Watch", typeof(object), ["object-loan"]);
                await End(end, name, person, ada, token);
                await closed.WaitAsync(Patience);
                await connection.DisposeAsync();
                break;
            case "import":
                var rows = string.Join('\n', Enumerable.Range(0, 3000).Select(row => string.Create(CultureInfo.InvariantCulture, $"Of {name} {row},A house")).Prepend("title,borrower"));
                using (var begun = await walker.Send(HttpMethod.Post, "/api/record-types/object-loan/imports", rows, "text/csv"))
                {
                    Assert.True(begun.IsSuccessStatusCode, await begun.Content.ReadAsStringAsync());
                }

                await End(end, name, person, ada, token);
                Assert.InRange(await Settled(name), 0, 2999);
                break;
            default:
                using (var export = await walker.Get(way == "export" ? "/api/record-types/object-loan/records.csv" : "/api/audit.csv"))
                {
                    Assert.Equal(HttpStatusCode.OK, export.StatusCode);
                    await End(end, name, person, ada, token);
                }

                // The first piece may be on its way; the next request for it is not.
                using (var after = await walker.Get(way == "export" ? "/api/record-types/object-loan/records.csv" : "/api/audit.csv"))
                {
                    Assert.Contains(after.StatusCode, new[] { HttpStatusCode.Unauthorized, HttpStatusCode.Forbidden });
                }

                break;
        }
    }

    [Fact]
    public async Task Whoever_is_shut_out_is_no_longer_seen_at_a_record()
    {
        var name = $"guest{Interlocked.Increment(ref people)}";
        var ada = await site.Known("ada");
        await Invite(ada, name, ["loansOfficer"]);
        var others = new ConcurrentQueue<string>();
        var (watching, _) = await (await Walker.SignedIn(site, "lorenz", "quillhaven")).Listen("/live/records", others.Enqueue);
        await watching.InvokeCoreAsync("Open", typeof(object), [101]);
        var (connection, closed) = await (await Walker.SignedIn(site, name, Password)).Listen("/live/records", _ => { });
        await connection.InvokeCoreAsync("Open", typeof(object), [101]);
        await Until(() => others.Count >= 2);

        using var disabled = await ada.Put($"/api/accounts/{name}", new { displayName = name, roles = new[] { "loansOfficer" }, isDisabled = true });
        await closed.WaitAsync(Patience);

        // Told that somebody has gone.
        await Until(() => others.Count >= 3);
        await watching.DisposeAsync();
    }

    [Fact]
    public async Task A_connection_whose_right_has_ended_in_the_store_alone_is_closed_at_its_next_call()
    {
        var name = $"guest{Interlocked.Increment(ref people)}";
        await Invite(await site.Known("ada"), name, ["loansOfficer"]);
        var (connection, closed) = await (await Walker.SignedIn(site, name, Password)).Listen("/live/records", _ => { });
        await site.InStore(db => db.SignIns.Where(s => db.Users.Any(u => u.Id == s.AccountId && u.UserName == name)).ExecuteDeleteAsync());

        await Assert.ThrowsAnyAsync<Exception>(() => connection.InvokeCoreAsync("Watch", typeof(object), ["object-loan"]));
        await closed.WaitAsync(Patience);
    }

    [Theory]
    [InlineData("https://elsewhere.example", false)]
    [InlineData("null", false)]
    [InlineData("http://localhost:9999", false)]
    [InlineData("http://localhost", true)]
    public async Task A_page_from_elsewhere_opens_nothing(string origin, bool isOwn)
    {
        var ada = await Walker.SignedIn(site, "ada", "quillhaven");

        var refusal = await Record.ExceptionAsync(() => ada.Sockets(origin).ConnectAsync(new Uri(site.Server.BaseAddress, "/live/records"), CancellationToken.None));

        Assert.Equal(isOwn, refusal is null);
    }

    [Fact]
    public async Task A_client_that_does_not_read_holds_nobody_up_and_is_dropped()
    {
        var lorenz = await Walker.SignedIn(site, "lorenz", "quillhaven");
        using var socket = await lorenz.Sockets().ConnectAsync(new Uri(site.Server.BaseAddress, "/live/records"), CancellationToken.None);
        await Say("{\"protocol\":\"json\",\"version\":1}");
        await Say("{\"type\":1,\"invocationId\":\"1\",\"target\":\"Watch\",\"arguments\":[\"object-loan\"]}");
        var ada = await site.Known("ada");
        var id = await ada.Begin(new { title = "Of a busy type" });

        for (var save = 0; save < 400; save++)
        {
            using var saved = await ada.Save(id, new { title = $"Of a busy type {save}" });
            Assert.Equal(HttpStatusCode.OK, saved.StatusCode);
        }

        // More than it may leave unread has been told by now; and what is larger than anything there is to say ends it at once.
        var ended = await Record.ExceptionAsync(async () =>
        {
            for (var call = 0; call < 100; call++)
            {
                await Say($"{{\"type\":1,\"invocationId\":\"{new string('x', 30_000)}\",\"target\":\"Open\",\"arguments\":[1]}}");
                await Task.Delay(50);
            }
        });
        Assert.NotNull(ended);

        Task Say(string message) => socket.SendAsync(System.Text.Encoding.UTF8.GetBytes(message + '\u001e'), System.Net.WebSockets.WebSocketMessageType.Text, true, CancellationToken.None);
    }

    private static async Task Invite(Caller ada, string name, string[] roles)
    {
        using var invited = await ada.Post("/api/accounts", new { userName = name, displayName = name, roles });
        var key = JsonNode.Parse(await invited.Content.ReadAsStringAsync())!["key"]!.GetValue<string>();
        await SetPassword(ada, key, Password);
    }

    private static async Task SetPassword(Caller caller, string key, string password)
    {
        using var set = await caller.Post("/api/welcome", new { key, password });
        Assert.Equal(HttpStatusCode.NoContent, set.StatusCode);
    }

    private static async Task End(string end, string name, Walker person, Caller ada, JsonNode? token)
    {
        HttpResponseMessage done;
        switch (end)
        {
            case "signed out":
                done = await person.Send(HttpMethod.Delete, "/api/sign-in");
                break;
            case "session ended by oneself":
                using (var mine = await person.Get("/api/sign-ins"))
                {
                    done = await person.Send(HttpMethod.Delete, $"/api/sign-ins/{JsonNode.Parse(await mine.Content.ReadAsStringAsync())![0]!["id"]}");
                }

                break;
            case "session ended by an administrator":
                done = await ada.Send(HttpMethod.Delete, $"/api/accounts/{name}/sign-ins/{(await ada.Read($"/api/accounts/{name}/access"))["signIns"]![0]!["id"]}", null, withToken: true);
                break;
            case "disabled":
                done = await ada.Put($"/api/accounts/{name}", new { displayName = name, roles = new[] { "loansOfficer" }, isDisabled = true });
                break;
            case "role taken away":
                done = await ada.Put($"/api/accounts/{name}", new { displayName = name, roles = new[] { "loansOfficer" }, isDisabled = false });
                break;
            case "password set by a link":
                using (var link = await ada.Post($"/api/accounts/{name}/links", new { }))
                {
                    await SetPassword(ada, JsonNode.Parse(await link.Content.ReadAsStringAsync())!["key"]!.GetValue<string>(), "another good long one");
                    done = new(HttpStatusCode.NoContent);
                }

                break;
            case "token taken back":
                done = await person.Send(HttpMethod.Delete, $"/api/tokens/{token!["id"]}");
                break;
            default:
                done = await ada.Send(HttpMethod.Delete, $"/api/accounts/{name}/tokens/{token!["id"]}", null, withToken: true);
                break;
        }

        Assert.True(done.IsSuccessStatusCode, await done.Content.ReadAsStringAsync());
        done.Dispose();
    }

    /// <summary>How many records somebody has, once no import goes on.</summary>
    private async Task<int> Settled(string name)
    {
        var records = 0;
        await Until(() => !Ask(db => db.Imports.Any(one => one.By == name && one.ThroughAt == null)));
        await site.InStore(async db => records = await db.Records.CountAsync(r => r.ChangedBy == name));
        return records;
    }

    private bool Ask(Func<Store.DibujoDb, bool> question)
    {
        var answer = false;
        site.InStore(db =>
        {
            answer = question(db);
            return Task.CompletedTask;
        }).GetAwaiter().GetResult();
        return answer;
    }

    private static async Task Until(Func<bool> isSo)
    {
        for (var tries = 0; !isSo(); tries++)
        {
            Assert.True(tries < 600, "It did not come to that.");
            await Task.Delay(50);
        }
    }
}
