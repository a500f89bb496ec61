using System.Diagnostics;
using System.Net;

namespace Dibujo.Tests;

/// <summary>The built server as a process of its own, on demo data in a folder of its own unless told otherwise.</summary>
internal sealed class ServerProcess : IAsyncDisposable
{
    private readonly Process process;
    private readonly System.Text.StringBuilder said;

    private ServerProcess(Process process, Uri address, System.Text.StringBuilder said)
    {
        (this.process, this.said) = (process, said);
        Address = address;
    }

    /// <summary>Everything that it has printed so far.</summary>
    internal string Said
    {
        get
        {
            lock (said)
            {
                return said.ToString();
            }
        }
    }

    internal Uri Address { get; }

    internal int Id => process.Id;

    /// <summary>A new folder for a database, below DIBUJO_DATA where that is set.</summary>
    internal static string NewDataFolder() => Directory.CreateDirectory(Path.Combine(
        Environment.GetEnvironmentVariable("DIBUJO_DATA") ?? Path.GetTempPath(), $"dibujo-test-{Guid.NewGuid():N}")).FullName;

    /// <summary>Starts the server at DIBUJO_URLS, or where a port is free, and waits until it is ready.</summary>
    /// <param name="data">Its data folder.</param>
    /// <param name="largestFile">Kilobytes that no file of it may exceed, as if the disk were full; null for no such limit.</param>
    /// <param name="settings">More for its command line.</param>
    internal static Task<ServerProcess> Start(string data, int? largestFile = null, params string[] settings) => StartAt(
        new Uri(Environment.GetEnvironmentVariable("DIBUJO_URLS") ?? $"http://127.0.0.1:{FreePort()}"), data, largestFile, settings);

    /// <summary>Starts it again at the address where it was.</summary>
    internal static async Task<ServerProcess> StartAt(Uri address, string data, int? largestFile = null, params string[] settings)
    {
        var started = Process.Start(StartInfo(data, address, largestFile, settings))!;
        var output = new System.Text.StringBuilder();
        started.OutputDataReceived += (_, line) =>
        {
            lock (output)
            {
                output.AppendLine(line.Data);
            }
        };
        started.BeginOutputReadLine();
        using var http = new HttpClient { BaseAddress = address };
        for (var attempt = 0; attempt < 480; attempt++)
        {
            try
            {
                using var health = await http.GetAsync(new Uri("/health", UriKind.Relative));
                if (health.IsSuccessStatusCode)
                {
                    return new(started, address, output);
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

    /// <summary>Starts the server where it cannot start: what it says and with which code it ends.</summary>
    internal static async Task<(int ExitCode, string Says)> Fail(string data, int? largestFile = null)
    {
        var info = StartInfo(data, new Uri($"http://127.0.0.1:{FreePort()}"), largestFile, []);
        info.RedirectStandardError = true;
        using var failing = Process.Start(info)!;
        failing.OutputDataReceived += (_, _) => { };
        failing.BeginOutputReadLine();
        var says = await failing.StandardError.ReadToEndAsync();
        await failing.WaitForExitAsync();
        return (failing.ExitCode, says);
    }

    /// <summary>Runs the server's command for a copy of its data: its exit code.</summary>
    internal static async Task<int> BackUp(string data, string target)
    {
        using var copying = Process.Start(StartInfo(data, new Uri($"http://127.0.0.1:{FreePort()}"), null, [$"--backup={target}"]))!;
        copying.OutputDataReceived += (_, _) => { };
        copying.BeginOutputReadLine();
        await copying.WaitForExitAsync();
        return copying.ExitCode;
    }

    /// <summary>Runs the server's command that makes an account an administrator's again: what it prints.</summary>
    internal static async Task<string> Rescue(string data, string name)
    {
        using var rescuing = Process.Start(StartInfo(data, new Uri($"http://127.0.0.1:{FreePort()}"), null, ["--demo=false", $"--administrator={name}"]))!;
        var printed = await rescuing.StandardOutput.ReadToEndAsync();
        await rescuing.WaitForExitAsync();
        return printed;
    }

    private static ProcessStartInfo StartInfo(string data, Uri address, int? largestFile, string[] settings)
    {
        var server = Checkout.Path("artifacts", "server");
        string[] command = ["dotnet", Path.Combine(server, "Dibujo.Server.dll"), "--demo=true", "--contentRoot", server, .. settings];
        string[] limited = ["bash", "-c", $"trap '' XFSZ; ulimit -S -f {largestFile}; exec \"$@\"", "bash", .. command];
        var (first, others) = largestFile is null ? (command[0], command[1..]) : (limited[0], limited[1..]);
        return new ProcessStartInfo(first, others)
        {
            UseShellExecute = false,
            RedirectStandardOutput = true,
            // Else the runtime wants a file in memory that is larger than the limit.
            Environment = { ["DIBUJO_DATA"] = data, ["DIBUJO_URLS"] = address.ToString(), ["DOTNET_EnableWriteXorExecute"] = largestFile is null ? "1" : "0" },
        };
    }

    private static int FreePort()
    {
        using var listener = new System.Net.Sockets.TcpListener(IPAddress.Loopback, 0);
        listener.Start();
        return ((IPEndPoint)listener.LocalEndpoint).Port;
    }
}
