using System.Collections.Immutable;
using Dibujo.Core.Checking;
using Dibujo.Core.Json;
using Dibujo.Core.Packs;

namespace Dibujo.Cli;

/// <summary>Files named on the command line.</summary>
internal static class InputFile
{
    /// <summary>The pack in that file, or its problems printed.</summary>
    internal static Pack? ReadPack(string path, TextWriter output) => Bytes(path, output) is { } bytes ? Take(PackFile.Read(bytes), path, output) : null;

    /// <summary>What the file says, or what is wrong with it printed.</summary>
    internal static T? Read<T>(string path, TextWriter output)
        where T : class => Bytes(path, output) is { } bytes ? Take(JsonText.Read<T>(bytes), path, output) : null;

    internal static void Print(string path, IEnumerable<Problem> problems, TextWriter output)
    {
        foreach (var problem in problems)
        {
            output.WriteLine($"{path}#{problem.Place}: {problem.What} {problem.Mend}");
        }
    }

    /// <summary>What the file holds; null, with the reason printed, where it cannot be read.</summary>
    internal static byte[]? Bytes(string path, TextWriter output)
    {
        try
        {
            return File.ReadAllBytes(path);
        }
        catch (Exception e) when (e is IOException or UnauthorizedAccessException)
        {
            output.WriteLine($"{path}: cannot be read. {e.Message}");
            return null;
        }
    }

    private static T? Take<T>((T? Value, Problem? Problem) read, string path, TextWriter output)
        where T : class
    {
        ImmutableArray<Problem> problems = read.Problem is { } problem ? [problem] : [];
        Print(path, problems, output);
        return read.Value;
    }
}
