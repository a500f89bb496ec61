using System.Diagnostics;
using System.Net;

namespace Dibujo.Interface.Tests;

/// <summary>The built server with a demo database of its own.</summary>
public sealed class Server : IAsyncLifetime
{
    private readonly string data = Directory.CreateTempSubdirectory("dibujo-interface-").FullName;
    private Process? process;

    internal Uri Address { get; } = new($"http://127.0.0.1:{FreePort()}");

    public async Task InitializeAsync()
    {
        var server = Checkout.Path("artifacts", "server");
        process = Process.Start(new ProcessStartInfo("dotnet", [Path.Combine(server, "Dibujo.Server.dll"), "--demo=true", "--contentRoot", server])
        {
            UseShellExecute = false,
            RedirectStandardOutput = true,
            Environment = { ["DIBUJO_DATA"] = data, ["DIBUJO_URLS"] = Address.ToString() },
        })!;
        process.OutputDataReceived += (_, _) => { };
        process.BeginOutputReadLine();
        using var http = new HttpClient { BaseAddress = Address };
        for (var attempt = 0; attempt < 240; attempt++)
        {
            try
            {
                using var health = await http.GetAsync(new Uri("/health", UriKind.Relative));
                if (health.IsSuccessStatusCode)
                {
                    return;
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

    public async Task DisposeAsync()
    {
        process!.Kill(entireProcessTree: true);
        await process.WaitForExitAsync();
        process.Dispose();
        Directory.Delete(data, recursive: true);
    }

    private static int FreePort()
    {
        using var listener = new System.Net.Sockets.TcpListener(IPAddress.Loopback, 0);
        listener.Start();
        return ((IPEndPoint)listener.LocalEndpoint).Port;
    }
}
