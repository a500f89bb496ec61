using System.Net.Http.Json;
using System.Text;
using System.Text.Json;
using System.Text.Json.Nodes;
using Microsoft.AspNetCore.Hosting;
using Microsoft.AspNetCore.Mvc.Testing;

namespace Dibujo.Server.Tests;

/// <summary>A server with a demo database of its own, and people who call it past the interface.</summary>
public sealed class Site : WebApplicationFactory<Program>
{
    private readonly string data = ServerProcess.NewDataFolder();

    /// <summary>Somebody who is signed in, or nobody.</summary>
    internal async Task<Caller> As(string? person)
    {
        var caller = new Caller(CreateClient(new() { AllowAutoRedirect = false }));
        await (person is null ? caller.FetchToken() : caller.SignIn(person));
        return caller;
    }

    protected override void ConfigureWebHost(IWebHostBuilder builder)
    {
        builder.UseSetting("DIBUJO_DATA", data);
        builder.UseSetting("demo", "true");
        builder.UseSetting("Serilog:MinimumLevel:Default", "Error");
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
        token = (await http.GetFromJsonAsync<JsonObject>("/api/session"))!["token"]!.GetValue<string>();

    internal async Task SignIn(string person)
    {
        await FetchToken();
        using var signedIn = await Post("/api/session", new { userName = person, password = "quillhaven" });
        signedIn.EnsureSuccessStatusCode();
        await FetchToken();
    }

    internal Task<HttpResponseMessage> Get(string address) => http.GetAsync(new Uri(address, UriKind.Relative));

    internal async Task<JsonObject> Read(string address) => (await http.GetFromJsonAsync<JsonObject>(address))!;

    internal Task<HttpResponseMessage> Post(string address, object body, bool withToken = true) =>
        Send(HttpMethod.Post, address, body as string ?? JsonSerializer.Serialize(body), withToken);

    internal Task<HttpResponseMessage> Put(string address, object body) =>
        Send(HttpMethod.Put, address, JsonSerializer.Serialize(body), true);

    internal async Task<HttpResponseMessage> Send(HttpMethod method, string address, string? body, bool withToken, string contentType = "application/json")
    {
        using var request = new HttpRequestMessage(method, address)
        {
            Content = body is null ? null : new StringContent(body, Encoding.UTF8, contentType),
        };
        if (withToken)
        {
            request.Headers.Add("X-Dibujo-Token", token);
        }

        return await http.SendAsync(request);
    }

    /// <summary>Begins a record and answers with its number.</summary>
    internal async Task<int> Begin(object changes, string? workflow = null)
    {
        using var answer = await Post("/api/record-types/object-loan/records", new { changes, workflow });
        var body = await answer.Content.ReadAsStringAsync();
        Assert.True(answer.IsSuccessStatusCode, body);
        return JsonNode.Parse(body)!["id"]!.GetValue<int>();
    }

    /// <summary>Saves changes on the record's present version.</summary>
    internal async Task<HttpResponseMessage> Save(int id, object changes, string? move = null)
    {
        var version = (await Read($"/api/records/{id}"))["version"]!.GetValue<int>();
        return await Post($"/api/records/{id}/saves", new { version, changes, move });
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
