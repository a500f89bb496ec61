using System.Net;
using System.Text.Json.Nodes;
using Microsoft.AspNetCore.Http.Connections;
using Microsoft.AspNetCore.SignalR.Client;

namespace Dibujo.Server.Tests;

/// <summary>Administrators who have a draft open are told when somebody changes it, and nobody else is.</summary>
public sealed class LiveDraftTests(Site site) : IClassFixture<Site>
{
    private static readonly TimeSpan Patience = TimeSpan.FromSeconds(10);

    [Fact]
    public async Task Whoever_watches_a_draft_is_told_of_every_change_to_it()
    {
        var told = new TaskCompletionSource();
        await using var connection = Connection(await Token("ada"));
        connection.On<int>("Changed", _ => told.TrySetResult());
        await connection.StartAsync();
        await connection.InvokeAsync("Watch", "object-loan");

        using var made = await (await site.Known("ada")).Post($"{Draft.Address}/steps", """{"edits": [{"key": "live", "base": 0, "rule": {"key": "live", "name": "Live"}, "isPlaced": true}]}""");

        Assert.Equal(HttpStatusCode.OK, made.StatusCode);
        await told.Task.WaitAsync(Patience);
    }

    [Fact]
    public async Task The_page_that_has_made_a_step_is_not_told_of_it_and_others_are()
    {
        var (own, other) = (new TaskCompletionSource(), new TaskCompletionSource());
        var token = await Token("ada");
        await using var mine = Connection(token);
        await using var theirs = Connection(token);
        mine.On<int>("Changed", _ => own.TrySetResult());
        theirs.On<int>("Changed", _ => other.TrySetResult());
        foreach (var connection in (HubConnection[])[mine, theirs])
        {
            await connection.StartAsync();
            await connection.InvokeAsync("Watch", "object-loan");
        }

        using var client = site.CreateClient();
        client.DefaultRequestHeaders.Add("Authorization", $"Bearer {token}");
        client.DefaultRequestHeaders.Add("X-Dibujo-Connections", mine.ConnectionId);
        using var step = new StringContent("""{"edits": [{"key": "quiet", "base": 0, "rule": {"key": "quiet", "name": "Quiet"}, "isPlaced": true}]}""", System.Text.Encoding.UTF8, "application/json");
        using var made = await client.PostAsync(new Uri($"{Draft.Address}/steps", UriKind.Relative), step);

        Assert.Equal(HttpStatusCode.OK, made.StatusCode);
        await other.Task.WaitAsync(Patience);
        await mine.InvokeAsync("Watch", "object-loan");
        Assert.False(own.Task.IsCompleted);
    }

    [Fact]
    public async Task Whoever_watches_another_draft_is_not_told()
    {
        var told = new TaskCompletionSource();
        await using var connection = Connection(await Token("ada"));
        connection.On<int>("Changed", _ => told.TrySetResult());
        await connection.StartAsync();
        await connection.InvokeAsync("Watch", "gallery-works");

        using var made = await (await site.Known("ada")).Post($"{Draft.Address}/steps", """{"edits": [{"key": "other", "base": 0, "rule": {"key": "other", "name": "Other"}, "isPlaced": true}]}""");
        await connection.InvokeAsync("Watch", "gallery-works");

        Assert.False(told.Task.IsCompleted);
    }

    [Theory]
    [InlineData("lorenz")]
    [InlineData(null)]
    public async Task Nobody_but_an_administrator_may_watch(string? person)
    {
        await using var connection = Connection(person is null ? null : await Token(person));

        var refusal = await Assert.ThrowsAsync<HttpRequestException>(() => connection.StartAsync());

        Assert.Equal(person is null ? HttpStatusCode.Unauthorized : HttpStatusCode.Forbidden, refusal.StatusCode);
    }

    private async Task<string> Token(string person)
    {
        using var made = await (await site.Known(person)).Post("/api/tokens", new { name = "A watcher", days = 1 });
        return JsonNode.Parse(await made.Content.ReadAsStringAsync())!["token"]!.GetValue<string>();
    }

    private HubConnection Connection(string? token) => new HubConnectionBuilder().WithUrl(new Uri(site.Server.BaseAddress, "/live/drafts"), options =>
    {
        options.HttpMessageHandlerFactory = _ => site.Server.CreateHandler();
        options.Transports = HttpTransportType.LongPolling;
        if (token is not null)
        {
            options.Headers["Authorization"] = $"Bearer {token}";
        }
    }).Build();
}
