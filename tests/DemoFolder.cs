namespace Dibujo.Tests;

/// <summary>Folders with the demo's data in them. The data is invented once for a run of tests, and copied.</summary>
internal static class DemoFolder
{
    private static readonly Lazy<string> Invented = new(Invent);

    /// <summary>A new folder with a copy in it, to be deleted by whoever asked.</summary>
    internal static string New()
    {
        var copy = ServerProcess.NewDataFolder();
        foreach (var file in Directory.EnumerateFiles(Invented.Value, "*", SearchOption.AllDirectories).Where(file => Path.GetExtension(file) != ".lock"))
        {
            var target = Path.Combine(copy, Path.GetRelativePath(Invented.Value, file));
            Directory.CreateDirectory(Path.GetDirectoryName(target)!);
            File.Copy(file, target);
        }

        return copy;
    }

    private static string Invent()
    {
        var data = ServerProcess.NewDataFolder();
        AppDomain.CurrentDomain.ProcessExit += (_, _) => Directory.Delete(data, recursive: true);
        Task.Run(async () => await (await ServerProcess.Start(data)).DisposeAsync()).GetAwaiter().GetResult();
        return data;
    }
}
