using System.Diagnostics;

namespace Dibujo.Core.Tests;

/// <summary>Scripts run by Node beside the tests: lines in, lines out.</summary>
internal static class Node
{
    /// <summary>The lines that the script prints for these, in order.</summary>
    internal static async Task<string[]> Run(string[] script, IEnumerable<string> lines, params string[] arguments)
    {
        var input = Path.GetTempFileName();
        try
        {
            await File.WriteAllLinesAsync(input, lines);
            using var node = Process.Start(new ProcessStartInfo("node", [Checkout.Path(["tests", "Dibujo.Core.Tests", .. script]), .. arguments, input])
            {
                UseShellExecute = false,
                RedirectStandardOutput = true,
                RedirectStandardError = true,
            })!;
            var errors = node.StandardError.ReadToEndAsync();
            var output = await node.StandardOutput.ReadToEndAsync();
            await node.WaitForExitAsync();
            Assert.True(node.ExitCode == 0, await errors);
            return output.Split('\n', StringSplitOptions.RemoveEmptyEntries);
        }
        finally
        {
            File.Delete(input);
        }
    }
}
