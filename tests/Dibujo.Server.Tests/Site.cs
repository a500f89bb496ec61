using System.Collections.Concurrent;
using System.Net.Http.Json;
using System.Text;
using System.Text.Json;
using System.Text.Json.Nodes;
using Dibujo.Store;
using Dibujo.Store.Writing;
using Microsoft.AspNetCore.Hosting;
using Microsoft.AspNetCore.Mvc.Testing;
using Microsoft.Extensions.DependencyInjection;

namespace Dibujo.Server.Tests;

/// <summary>A server with a demo database of its own, and people who call it past the interface.</summary>
public sealed class Site : WebApplicationFactory<Program>
{
    private readonly string data = DemoFolder.New();
    private readonly ConcurrentDictionary<string, Task<Caller>> known = new(StringComparer.Ordinal);

    /// <summary>By which the server goes.</summary>
    internal Clock Clock { get; } = new();

    internal string Data => data;

    /// <summary>Somebody who has just signed in, or nobody.</summary>
    internal async Task<Caller> As(string? person)
    {
        var caller = new Caller(CreateClient(new() { AllowAutoRedirect = false }));
        await (person is null ? caller.FetchToken() : caller.SignIn(person));
        return caller;
    }

    /// <summary>The same person's same client each time: for where nobody signs out.</summary>
    internal Task<Caller> Known(string? person) => known.GetOrAdd(person ?? "", _ => As(person));

    /// <summary>A program that acts for a person.</summary>
    internal Task<Caller> Program(string person) => known.GetOrAdd($"token of {person}", async _ =>
    {
        using var made = await (await Known(person)).Post("/api/tokens", new { name = "A program", days = 1 });
        var http = CreateClient(new() { AllowAutoRedirect = false, HandleCookies = false });
        http.DefaultRequestHeaders.Authorization = new("Bearer", JsonNode.Parse(await made.Content.ReadAsStringAsync())!["token"]!.GetValue<string>());
        return new Caller(http);
    });

    /// <summary>Does something in the store, past the server.</summary>
    internal async Task InStore(Func<DibujoDb, Task> act)
    {
        await using var scope = Services.CreateAsyncScope();
        await scope.ServiceProvider.GetRequiredService<UnitOfWork>().RunAsync(() => act(scope.ServiceProvider.GetRequiredService<DibujoDb>()), default);
    }

    protected override void ConfigureWebHost(IWebHostBuilder builder)
    {
        builder.UseSetting("DIBUJO_DATA", data);
        builder.UseSetting("demo", "true");
        builder.UseSetting("Serilog:MinimumLevel:Default", "Fatal");
        builder.UseSetting("Serilog:MinimumLevel:Override:Microsoft", "Fatal");
        builder.ConfigureServices(services => services.AddSingleton<TimeProvider>(Clock));
    }

    protected override void Dispose(bool disposing)
    {
        base.Dispose(disposing);
        // Called twice: xUnit disposes of a fixture both ways.
        if (disposing && Directory.Exists(data))
        {
            Microsoft.Data.Sqlite.SqliteConnection.ClearAllPools();
            Directory.Delete(data, recursive: true);
        }
    }
}

/// <summary>One person's HTTP client.</summary>
internal sealed class Caller(HttpClient http)
{
    private string token = "";

    internal async Task FetchToken() =>
        token = (await http.GetFromJsonAsync<JsonObject>("/api/sign-in"))!["token"]!.GetValue<string>();

    internal async Task SignIn(string person)
    {
        using var signedIn = await Try(person, "quillhaven");
        signedIn.EnsureSuccessStatusCode();
        await FetchToken();
    }

    /// <summary>Tries to sign in.</summary>
    internal async Task<HttpResponseMessage> Try(string person, string password)
    {
        await FetchToken();
        return await Post("/api/sign-in", new { userName = person, password });
    }

    internal Task<HttpResponseMessage> Get(string address) => http.GetAsync(new Uri(address, UriKind.Relative));

    internal async Task<JsonObject> Read(string address) => (await http.GetFromJsonAsync<JsonObject>(address))!;

    internal Task<HttpResponseMessage> Post(string address, object body, bool withToken = true) =>
        Send(HttpMethod.Post, address, body as string ?? JsonSerializer.Serialize(body), withToken);

    internal Task<HttpResponseMessage> Put(string address, object body) =>
        Send(HttpMethod.Put, address, JsonSerializer.Serialize(body), true);

    internal async Task<HttpResponseMessage> Send(HttpMethod method, string address, string? body, bool withToken, string contentType = "application/json")
    {
        using var content = body is null ? null : new StringContent(body, Encoding.UTF8, contentType);
        return await Send(method, address, content, withToken);
    }

    internal async Task<HttpResponseMessage> Send(HttpMethod method, string address, HttpContent? content, bool withToken = true)
    {
        using var request = new HttpRequestMessage(method, address) { Content = content };
        if (withToken)
        {
            request.Headers.Add("X-Dibujo-Token", token);
        }

        return await http.SendAsync(request);
    }

    /// <summary>Posts a question and answers with what comes back.</summary>
    internal async Task<JsonNode> Ask(string address, JsonNode question)
    {
        using var answer = await Post(address, question.ToJsonString());
        var body = await answer.Content.ReadAsStringAsync();
        Assert.True(answer.IsSuccessStatusCode, body);
        return JsonNode.Parse(body)!;
    }

    /// <summary>Reads a list.</summary>
    internal async Task<JsonArray> ReadAll(string address) => (await http.GetFromJsonAsync<JsonArray>(new Uri(address, UriKind.Relative)))!;

    /// <summary>Begins a record and answers with its number.</summary>
    internal async Task<int> Begin(object changes, string? workflow = null)
    {
        using var answer = await Post("/api/record-types/object-loan/records", new { changes, workflow });
        var body = await answer.Content.ReadAsStringAsync();
        Assert.True(answer.IsSuccessStatusCode, body);
        return JsonNode.Parse(body)!["id"]!.GetValue<int>();
    }

    /// <summary>Saves changes on the record's present version.</summary>
    internal async Task<HttpResponseMessage> Save(int id, object changes, string? move = null, string? form = null)
    {
        var version = (await Read($"/api/records/{id}"))["version"]!.GetValue<int>();
        return await Post($"/api/records/{id}/saves", new { version, changes, move, form });
    }
}

internal static class Problems
{
    /// <summary>The reasons of a refusal, as "reason field".</summary>
    internal static async Task<string[]> Refusals(this HttpResponseMessage answer)
    {
        var body = JsonNode.Parse(await answer.Content.ReadAsStringAsync())!;
        Assert.Equal("application/problem+json", answer.Content.Headers.ContentType!.MediaType);
        return [.. body["refusals"]!.AsArray().Select(r => $"{r!["reason"]} {r["field"]}".Trim())];
    }
}
