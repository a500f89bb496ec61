using System.Diagnostics;
using System.Globalization;
using System.Net.Sockets;

namespace Dibujo.Endurance;

/// <summary>The built server as a process of its own, on this machine, on a folder of its own.</summary>
internal sealed class BuiltServer : IAsyncDisposable
{
    private const string Dll = "artifacts/server/Dibujo.Server.dll";

    private readonly Process process;
    private bool isEnded;

    private BuiltServer(Process process, Uri address) => (this.process, Address) = (process, address);

    internal Uri Address { get; }

    /// <summary>Megabytes of memory that it holds now.</summary>
    internal double Memory
    {
        get
        {
            process.Refresh();
            return process.WorkingSet64 / 1048576.0;
        }
    }

    /// <summary>Starts it, waits until it is healthy, and tells how long that took.</summary>
    internal static async Task<(BuiltServer Server, TimeSpan Took)> StartAsync(string data, int records = 400)
    {
        var address = new Uri($"http://127.0.0.1:{FreePort().ToString(CultureInfo.InvariantCulture)}");
        var clock = Stopwatch.StartNew();
        var started = Process.Start(new ProcessStartInfo("dotnet",
            [Dll, "--demo=true", $"--demo-records={records.ToString(CultureInfo.InvariantCulture)}", "--contentRoot", Path.GetFullPath("artifacts/server")])
        {
            UseShellExecute = false,
            RedirectStandardOutput = true,
            Environment = { ["DIBUJO_DATA"] = data, ["DIBUJO_URLS"] = address.ToString() },
        })!;
        started.OutputDataReceived += (_, _) => { };
        started.BeginOutputReadLine();
        using var http = new HttpClient { BaseAddress = address };
        while (true)
        {
            try
            {
                using var health = await http.GetAsync(new Uri("/health", UriKind.Relative));
                if (health.IsSuccessStatusCode)
                {
                    return (new(started, address), clock.Elapsed);
                }
            }
            catch (HttpRequestException) when (!started.HasExited)
            {
                // Not listening yet.
            }

            await Task.Delay(20);
        }
    }

    /// <summary>Ends it without warning, as <c>kill -9</c> does.</summary>
    public async ValueTask DisposeAsync()
    {
        if (isEnded)
        {
            return;
        }

        isEnded = true;
        process.Kill();
        await process.WaitForExitAsync();
        process.Dispose();
    }

    internal static string NewFolder() => Directory.CreateTempSubdirectory("dibujo-endurance-").FullName;

    private static int FreePort()
    {
        using var listener = new TcpListener(System.Net.IPAddress.Loopback, 0);
        listener.Start();
        return ((System.Net.IPEndPoint)listener.LocalEndpoint).Port;
    }
}
