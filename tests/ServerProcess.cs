using System.Diagnostics;
using System.Net;

namespace Dibujo.Tests;

/// <summary>The built server as a process of its own, on demo data in a folder of its own unless told otherwise.</summary>
internal sealed class ServerProcess : IAsyncDisposable
{
    private readonly Process process;

    private ServerProcess(Process process, Uri address)
    {
        this.process = process;
        Address = address;
    }

    internal Uri Address { get; }

    /// <summary>A new folder for a database, below DIBUJO_DATA where that is set.</summary>
    internal static string NewDataFolder() => Directory.CreateDirectory(Path.Combine(
        Environment.GetEnvironmentVariable("DIBUJO_DATA") ?? Path.GetTempPath(), $"dibujo-test-{Guid.NewGuid():N}")).FullName;

    /// <summary>Starts the server at DIBUJO_URLS, or where a port is free, and waits until it is ready.</summary>
    internal static async Task<ServerProcess> Start(string data)
    {
        var address = new Uri(Environment.GetEnvironmentVariable("DIBUJO_URLS") ?? $"http://127.0.0.1:{FreePort()}");
        var server = Checkout.Path("artifacts", "server");
        var started = Process.Start(new ProcessStartInfo("dotnet", [Path.Combine(server, "Dibujo.Server.dll"), "--demo=true", "--contentRoot", server])
        {
            UseShellExecute = false,
            RedirectStandardOutput = true,
            Environment = { ["DIBUJO_DATA"] = data, ["DIBUJO_URLS"] = address.ToString() },
        })!;
        started.OutputDataReceived += (_, _) => { };
        started.BeginOutputReadLine();
        using var http = new HttpClient { BaseAddress = address };
        for (var attempt = 0; attempt < 480; attempt++)
        {
            try
            {
                using var health = await http.GetAsync(new Uri("/health", UriKind.Relative));
                if (health.IsSuccessStatusCode)
                {
                    return new(started, address);
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

    /// <summary>Ends the process without warning, as <c>kill -9</c> does.</summary>
    public async ValueTask DisposeAsync()
    {
        process.Kill(entireProcessTree: true);
        await process.WaitForExitAsync();
        process.Dispose();
    }

    private static int FreePort()
    {
        using var listener = new System.Net.Sockets.TcpListener(IPAddress.Loopback, 0);
        listener.Start();
        return ((IPEndPoint)listener.LocalEndpoint).Port;
    }
}
