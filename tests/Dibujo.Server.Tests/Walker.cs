using System.Net.Http.Json;
using System.Text.Json.Nodes;
using Microsoft.AspNetCore.Http.Connections;
using Microsoft.AspNetCore.SignalR.Client;
using Microsoft.AspNetCore.TestHost;

namespace Dibujo.Server.Tests;

/// <summary>Somebody who was let in once, with all the ways in which that is used: requests, connections, files on their way.</summary>
internal sealed class Walker(Site site, IReadOnlyDictionary<string, string> headers)
{
    private readonly HttpClient http = Client(site, headers);

    /// <summary>Signs in as a person on a browser of its own.</summary>
    internal static async Task<Walker> SignedIn(Site site, string person, string password)
    {
        using var browser = site.CreateClient(new() { AllowAutoRedirect = false, HandleCookies = false });
        using var first = await browser.GetAsync(new Uri("/api/sign-in", UriKind.Relative));
        var (cookies, token) = (Cookies(first), (await first.Content.ReadFromJsonAsync<JsonObject>())!["token"]!.GetValue<string>());
        using var request = new HttpRequestMessage(HttpMethod.Post, "/api/sign-in") { Content = JsonContent.Create(new { userName = person, password }) };
        request.Headers.Add("Cookie", cookies);
        request.Headers.Add("X-Dibujo-Token", token);
        using var answer = await browser.SendAsync(request);
        answer.EnsureSuccessStatusCode();
        cookies = $"{cookies}; {Cookies(answer)}";
        using var again = new HttpRequestMessage(HttpMethod.Get, "/api/sign-in");
        again.Headers.Add("Cookie", cookies);
        using var read = await browser.SendAsync(again);
        return new(site, new Dictionary<string, string> { ["Cookie"] = cookies, ["X-Dibujo-Token"] = (await read.Content.ReadFromJsonAsync<JsonObject>())!["token"]!.GetValue<string>() });
    }

    /// <summary>A program with a token.</summary>
    internal static Walker With(Site site, string token) => new(site, new Dictionary<string, string> { ["Authorization"] = $"Bearer {token}" });

    internal Task<HttpResponseMessage> Get(string address) => http.GetAsync(new Uri(address, UriKind.Relative), HttpCompletionOption.ResponseHeadersRead);

    internal async Task<HttpResponseMessage> Send(HttpMethod method, string address, object? body = null, string contentType = "application/json")
    {
        using var request = new HttpRequestMessage(method, address)
        {
            Content = body switch { null => null, string text => new StringContent(text, System.Text.Encoding.UTF8, contentType), _ => JsonContent.Create(body) },
        };
        return await http.SendAsync(request);
    }

    /// <summary>Connects to a hub by a WebSocket; what is said there comes in, and the result is done when it is closed.</summary>
    internal async Task<(HubConnection Connection, Task Closed)> Listen(string hub, Action<string> heard)
    {
        var connection = new HubConnectionBuilder().WithUrl(new Uri(site.Server.BaseAddress, hub), options =>
        {
            (options.Transports, options.SkipNegotiation) = (HttpTransportType.WebSockets, true);
            options.WebSocketFactory = async (context, cancellation) => await Sockets().ConnectAsync(context.Uri, cancellation);
        }).Build();
        var closed = new TaskCompletionSource();
        connection.Closed += _ =>
        {
            closed.TrySetResult();
            return Task.CompletedTask;
        };
        foreach (var (what, of) in ((string, Type[])[])[("Saved", [typeof(int), typeof(string)]), ("Changed", [typeof(object)]), ("Published", [typeof(int)]), ("Here", [typeof(int), typeof(string[])])])
        {
            connection.On(what, of, (_, _) =>
            {
                heard(what);
                return Task.CompletedTask;
            }, new object());
        }

        await connection.StartAsync();
        return (connection, closed.Task);
    }

    /// <summary>Opens sockets as this somebody.</summary>
    internal WebSocketClient Sockets(string? origin = null)
    {
        var client = site.Server.CreateWebSocketClient();
        client.ConfigureRequest = request =>
        {
            foreach (var (name, value) in headers)
            {
                request.Headers[name] = value;
            }

            request.Headers.Origin = origin ?? default(Microsoft.Extensions.Primitives.StringValues);
        };
        return client;
    }

    private static HttpClient Client(Site site, IReadOnlyDictionary<string, string> headers)
    {
        var client = site.CreateClient(new() { AllowAutoRedirect = false, HandleCookies = false });
        foreach (var (name, value) in headers)
        {
            client.DefaultRequestHeaders.Add(name, value);
        }

        return client;
    }

    private static string Cookies(HttpResponseMessage answer) =>
        string.Join("; ", answer.Headers.GetValues("Set-Cookie").Select(cookie => cookie.Split(';')[0]));
}
