using System.Globalization;
using System.Net;
using System.Text.Json.Nodes;
using Dibujo.Core.Evaluation;
using Dibujo.Core.Values;
using Dibujo.Server.Accounts;
using Dibujo.Server.RecordTypes;
using Dibujo.Server.Writing;
using Dibujo.Store;
using Microsoft.EntityFrameworkCore;
using Microsoft.Extensions.DependencyInjection;

namespace Dibujo.Server.Tests;

/// <summary>Records are written in one place, and whoever writes anything else waits in the same line.</summary>
public sealed class OneWriterTests(Site site) : IClassFixture<Site>
{
    private const string Password = "a good long one";

    [Fact]
    public async Task Accounts_are_changed_beside_imports_and_saves_and_nobody_fails()
    {
        var ada = await site.Known("ada");
        var ids = new List<int>();
        for (var i = 0; i < 4; i++)
        {
            ids.Add(await ada.Begin(new { title = $"Kept busy {i}" }));
        }

        var file = string.Join('\n', Enumerable.Range(0, 150).Select(row => $"Beside {row},A house").Prepend("title,borrower"));
        var imports = Enumerable.Range(0, 3).Select(async _ =>
        {
            using var answer = await ada.Send(HttpMethod.Post, "/api/record-types/object-loan/records.csv", file, true, "text/csv");
            return answer.StatusCode;
        });
        var saves = ids.Select(async id =>
        {
            var codes = new HashSet<HttpStatusCode>();
            for (var save = 0; save < 15; save++)
            {
                using var answer = await ada.Save(id, new { title = $"Kept busy {id} {save}" });
                codes.Add(answer.StatusCode);
            }

            return codes.Max();
        });
        var changes = Enumerable.Range(0, 8).Select(async i =>
        {
            using var invited = await ada.Post("/api/accounts", new { userName = $"busy{i}", displayName = $"Busy {i}", roles = new[] { "registrar" } });
            using var welcome = await ada.Post("/api/welcome", new { key = JsonNode.Parse(await invited.Content.ReadAsStringAsync())!["key"]!.GetValue<string>(), password = Password });
            using var changed = await ada.Put($"/api/accounts/busy{i}", new { displayName = $"Busy {i}", roles = new[] { "conservator" }, isDisabled = i % 2 == 0 });
            return new[] { invited.StatusCode, welcome.StatusCode, changed.StatusCode }.Max();
        });

        var codes = await Task.WhenAll([.. imports, .. saves, .. changes]).WaitAsync(TimeSpan.FromMinutes(2));

        Assert.All(codes, code => Assert.InRange((int)code, 200, 204));
    }

    [Theory]
    [InlineData("quick")]
    [InlineData("file")]
    [InlineData(null)]
    public async Task A_save_opens_each_form_once_for_verdict_standing_history_and_answer(string? form)
    {
        var ada = await site.Known("ada");
        var id = await ada.Begin(new { title = "Counted" });
        await using var scope = site.Services.CreateAsyncScope();
        var services = scope.ServiceProvider;
        var edition = (await services.GetRequiredService<Editions>().CurrentAsync(services.GetRequiredService<DibujoDb>(), "object-loan", default))!;
        if (form is not null && edition.Program.FindForm(form) is null)
        {
            form = edition.Definition.RecordType.Forms[^1].Key;
        }

        var (opened, writing) = (0, services.GetRequiredService<RecordWriting>());
        Action<Session> count = session => opened += ReferenceEquals(session.Program, edition.Program) ? 1 : 0;
        Session.Opened += count;
        var author = new Author("ada", ["administrator"], Core.Records.Channel.Form);
        var outcome = await writing.SaveAsync(
            new(author, id, 1, System.Collections.Immutable.ImmutableDictionary<string, Value>.Empty.Add("title", new Text("Counted again")), Form: form), default);
        if (outcome is WriteOutcome.Stored { Write: var write })
        {
            _ = Records.RecordView.After(write, write.Through with { Move = null }, services.GetRequiredService<Records.RecordLookup>());
            Assert.NotNull(write.Entry);
        }

        Session.Opened -= count;
        Assert.InRange(opened, 1, edition.Definition.RecordType.Forms.Length);
    }

    [Fact]
    public async Task Saving_what_is_so_already_leaves_no_trace()
    {
        var ada = await site.As("ada");
        var id = await ada.Begin(new { title = "As it was" });
        var before = await ada.Read($"/api/records/{id}");
        var lorenz = await site.Known("lorenz");

        using var again = await lorenz.Save(id, new { title = "As it was" });
        using var nothing = await lorenz.Save(id, new { });

        Assert.Equal((HttpStatusCode.OK, HttpStatusCode.OK), (again.StatusCode, nothing.StatusCode));
        var after = await ada.Read($"/api/records/{id}");
        Assert.Equal((1, "ada", before["changedAt"]!.ToString()), (after["version"]!.GetValue<int>(), after["changedBy"]!.GetValue<string>(), after["changedAt"]!.ToString()));
        Assert.Single(await ada.ReadAll($"/api/records/{id}/history"));
    }

    [Fact]
    public async Task Of_an_import_that_is_ended_as_many_rows_are_told_as_taken_as_there_are()
    {
        var ada = await site.Known("ada");
        var file = string.Join('\n', Enumerable.Range(0, 4000).Select(row => string.Create(CultureInfo.InvariantCulture, $"Ended {row},A house")).Prepend("title,borrower"));
        using var begun = await ada.Send(HttpMethod.Post, "/api/record-types/object-loan/imports", file, true, "text/csv");
        var id = JsonNode.Parse(await begun.Content.ReadAsStringAsync())!["id"]!.GetValue<string>();
        while ((await ada.Read($"/api/imports/{id}"))["looked"]!.GetValue<int>() < 60)
        {
            await Task.Delay(5);
        }

        using var ended = await ada.Send(HttpMethod.Delete, $"/api/imports/{id}", null, true);
        JsonNode? report;
        while ((report = (await ada.Read($"/api/imports/{id}"))["report"]) is null)
        {
            await Task.Delay(20);
        }

        var there = 0;
        await site.InStore(async db => there = await db.Records.CountAsync(r => r.Title.StartsWith("Ended ")));
        Assert.Equal(there, report["imported"]!.GetValue<int>());
        Assert.Equal(4000, there + report["refused"]!.GetValue<int>() + report["notReached"]!.GetValue<int>());
        Assert.NotNull(report["ended"]);
        Assert.Contains(await Audit(ada), about => about.StartsWith($"Object loan, {there} rows, 0 refused, ended before", StringComparison.Ordinal));
    }

    [Fact]
    public async Task An_import_that_the_servers_end_broke_off_is_told_at_the_next_start()
    {
        var id = Guid.NewGuid();
        await site.InStore(db =>
        {
            db.Imports.Add(new() { Id = id, RecordType = "object-loan", By = "ada", Rows = 500, Stored = 150 });
            return Task.CompletedTask;
        });

        await site.Services.GetRequiredService<Exchange.Importer>().TellOfBrokenAsync(default);

        var ada = await site.Known("ada");
        Assert.Contains("150 of 500 rows were taken in", (await ada.Read($"/api/imports/{id}"))["failure"]!.GetValue<string>(), StringComparison.Ordinal);
        Assert.Contains("Object loan, 150 of 500 rows, broken off as the server was stopped", await Audit(ada));
    }

    [Fact]
    public async Task Of_two_administrators_who_disable_each_other_one_is_refused_and_somebody_always_stays()
    {
        var ada = await site.Known("ada");
        var others = new List<Caller>();
        foreach (var name in (string[])["cato", "cleo"])
        {
            using var invited = await ada.Post("/api/accounts", new { userName = name, displayName = name, roles = new[] { "administrator" } });
            using var set = await ada.Post("/api/welcome", new { key = JsonNode.Parse(await invited.Content.ReadAsStringAsync())!["key"]!.GetValue<string>(), password = Password });
            var caller = await site.As(null);
            using var signedIn = await caller.Post("/api/sign-in", new { userName = name, password = Password });
            await caller.FetchToken();
            others.Add(caller);
        }

        var codes = await Task.WhenAll(Disable(others[0], "cleo"), Disable(others[1], "cato"));

        Assert.Single(codes, HttpStatusCode.NoContent);
        Assert.Contains(codes.Min() == codes[0] ? codes[1] : codes[0], new[] { HttpStatusCode.Forbidden, HttpStatusCode.Unauthorized });
        // And where nobody would be left it is refused as well.
        await using var scope = site.Services.CreateAsyncScope();
        var db = scope.ServiceProvider.GetRequiredService<DibujoDb>();
        var left = await db.Users.SingleAsync(u => u.UserName == (codes[0] == HttpStatusCode.NoContent ? "cato" : "cleo"));
        Assert.True(await Administrators.IsThereAnotherAsync(db, left, DateTimeOffset.UtcNow, default));

        static async Task<HttpStatusCode> Disable(Caller by, string whom)
        {
            using var answer = await by.Put($"/api/accounts/{whom}", new { displayName = whom, roles = new[] { "administrator" }, isDisabled = true });
            return answer.StatusCode;
        }
    }

    [Fact]
    public async Task Of_many_invitations_of_one_name_at_once_one_is_made()
    {
        var ada = await site.Known("ada");

        var codes = await Task.WhenAll(Enumerable.Range(0, 6).Select(async _ =>
        {
            using var answer = await ada.Post("/api/accounts", new { userName = "only-one", displayName = "Only One", roles = Array.Empty<string>() });
            return answer.StatusCode;
        }));

        Assert.Equal([HttpStatusCode.OK, .. Enumerable.Repeat(HttpStatusCode.Conflict, 5)], codes.Order());
    }

    [Fact]
    public async Task However_many_tokens_are_asked_for_at_once_no_more_are_made_than_one_may_have()
    {
        var conrad = await site.As("conrad");

        var codes = await Task.WhenAll(Enumerable.Range(0, 30).Select(async i =>
        {
            using var answer = await conrad.Post("/api/tokens", new { name = $"Program {i}", days = 1 });
            return answer.StatusCode;
        }));

        Assert.Equal(20, codes.Count(code => code == HttpStatusCode.OK));
    }

    [Theory]
    [InlineData(".", "Somebody")]
    [InlineData("..", "Somebody")]
    [InlineData("fine", "Some\u202Ebody")]
    [InlineData("fine", "Some\u200Bbody")]
    [InlineData("fine", "Some\u0007body")]
    [InlineData("fine", "\u2066Somebody")]
    public async Task Names_that_mislead_are_refused(string userName, string displayName)
    {
        using var answer = await (await site.Known("ada")).Post("/api/accounts", new { userName, displayName, roles = Array.Empty<string>() });

        Assert.Equal(HttpStatusCode.BadRequest, answer.StatusCode);
    }

    [Fact]
    public async Task Guesses_under_names_that_come_to_the_same_are_counted_together()
    {
        var codes = new List<HttpStatusCode>();
        foreach (var name in (string[])["mår", "MÅR", "ma\u030Ar", "MA\u030AR", "Mår", "mÅr", "mår"])
        {
            using var answer = await (await site.As(null)).Try(name, "wrong-password");
            codes.Add(answer.StatusCode);
        }

        Assert.Equal(HttpStatusCode.TooManyRequests, codes[^1]);
    }

    private static async Task<List<string>> Audit(Caller ada) =>
        [.. (await ada.ReadAll("/api/audit?search=Object%20loan")).Select(entry => entry!["about"]?.GetValue<string>() ?? "")];
}
