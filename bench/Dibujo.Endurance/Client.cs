using System.Net;
using System.Net.Http.Json;
using System.Text.Json.Nodes;

namespace Dibujo.Endurance;

/// <summary>One person's connection to the server.</summary>
internal sealed class Client : IDisposable
{
    private readonly CookieContainer cookies = new();
    private readonly HttpClient http;
    private readonly Uri address;
    private string token = "";

    internal Client(Uri address)
    {
        this.address = address;
        http = new(new SocketsHttpHandler { MaxConnectionsPerServer = 4, CookieContainer = cookies }) { BaseAddress = address, Timeout = TimeSpan.FromMinutes(5) };
    }

    /// <summary>The cookies by which the server knows this person.</summary>
    internal IReadOnlyCollection<Cookie> Cookies => cookies.GetCookies(address);

    internal static async Task<Client> SignInAsync(Uri address, string person)
    {
        var client = new Client(address);
        await client.FetchTokenAsync();
        using var answer = await client.SendAsync(HttpMethod.Post, "/api/sign-in", JsonContent.Create(new { userName = person, password = "quillhaven" }));
        answer.EnsureSuccessStatusCode();
        await client.FetchTokenAsync();
        return client;
    }

    internal Task<HttpResponseMessage> GetAsync(string address) => SendAsync(HttpMethod.Get, address, null);

    internal async Task<JsonNode> ReadAsync(string address)
    {
        using var answer = await GetAsync(address);
        answer.EnsureSuccessStatusCode();
        return JsonNode.Parse(await answer.Content.ReadAsStringAsync())!;
    }

    internal async Task<int> BeginAsync(string title)
    {
        using var answer = await SendAsync(HttpMethod.Post, "/api/record-types/object-loan/records", JsonContent.Create(new { changes = new { title } }));
        answer.EnsureSuccessStatusCode();
        return JsonNode.Parse(await answer.Content.ReadAsStringAsync())!["id"]!.GetValue<int>();
    }

    /// <summary>Saves a title on a version.</summary>
    internal Task<HttpResponseMessage> SaveAsync(int id, int version, string title) =>
        SendAsync(HttpMethod.Post, $"/api/records/{id}/saves", JsonContent.Create(new { version, changes = new { title } }));

    /// <summary>Posts text.</summary>
    internal Task<HttpResponseMessage> PostAsync(string address, string body, string type = "application/json") =>
        SendAsync(HttpMethod.Post, address, new StringContent(body, System.Text.Encoding.UTF8, type));

    internal async Task<HttpResponseMessage> SendAsync(HttpMethod method, string address, HttpContent? content)
    {
        using var request = new HttpRequestMessage(method, new Uri(address, UriKind.Relative)) { Content = content };
        request.Headers.Add("X-Dibujo-Token", token);
        return await http.SendAsync(request);
    }

    public void Dispose() => http.Dispose();

    private async Task FetchTokenAsync() => token = (await ReadAsync("/api/sign-in"))["token"]!.GetValue<string>();
}
