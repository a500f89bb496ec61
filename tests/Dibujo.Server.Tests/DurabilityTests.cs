using System.Diagnostics;
using System.Net;

namespace Dibujo.Server.Tests;

/// <summary>The built server as a process of its own, killed without warning.</summary>
public sealed class DurabilityTests : IDisposable
{
    private readonly string data = Directory.CreateTempSubdirectory("dibujo-kill-").FullName;
    private readonly Uri address = new($"http://127.0.0.1:{Port()}");

    [Fact]
    public async Task An_answered_save_outlives_the_process()
    {
        using var first = await Start();
        var lorenz = await SignIn("lorenz");
        var id = await lorenz.Begin(new { title = "Tidal Cloak for Oststrand" });
        using var saved = await lorenz.Save(id, new { borrower = "Institute of Oststrand" });
        first.Kill(entireProcessTree: true);
        Assert.Equal(HttpStatusCode.OK, saved.StatusCode);
        await first.WaitForExitAsync();

        using var second = await Start();
        var again = await SignIn("lorenz");
        var record = await again.Read($"/api/records/{id}");
        second.Kill(entireProcessTree: true);
        await second.WaitForExitAsync();

        Assert.Equal("Institute of Oststrand", record["values"]!["borrower"]!.GetValue<string>());
        Assert.Equal(2, record["version"]!.GetValue<int>());
    }

    public void Dispose() => Directory.Delete(data, recursive: true);

    private static int Port()
    {
        using var listener = new System.Net.Sockets.TcpListener(IPAddress.Loopback, 0);
        listener.Start();
        return ((IPEndPoint)listener.LocalEndpoint).Port;
    }

    private async Task<Process> Start()
    {
        var server = Checkout.Path("artifacts", "server");
        var start = new ProcessStartInfo("dotnet", [Path.Combine(server, "Dibujo.Server.dll"), "--demo=true", "--contentRoot", server])
        {
            UseShellExecute = false,
            RedirectStandardOutput = true,
            Environment = { ["DIBUJO_DATA"] = data, ["DIBUJO_URLS"] = address.ToString() },
        };
        var process = Process.Start(start)!;
        process.OutputDataReceived += (_, _) => { };
        process.BeginOutputReadLine();
        using var http = new HttpClient { BaseAddress = address };
        for (var attempt = 0; attempt < 240; attempt++)
        {
            try
            {
                using var health = await http.GetAsync(new Uri("/health", UriKind.Relative));
                if (health.IsSuccessStatusCode)
                {
                    return process;
                }
            }
            catch (HttpRequestException)
            {
                // Not listening yet.
            }

            await Task.Delay(250);
        }

        throw new TimeoutException("The server did not become ready.");
    }

    private async Task<Caller> SignIn(string person)
    {
        var caller = new Caller(new HttpClient(new HttpClientHandler { CookieContainer = new() }) { BaseAddress = address });
        await caller.FetchToken();
        using var signedIn = await caller.Post("/api/session", new { userName = person, password = "quillhaven" });
        signedIn.EnsureSuccessStatusCode();
        await caller.FetchToken();
        return caller;
    }
}
