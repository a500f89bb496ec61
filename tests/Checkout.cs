namespace Dibujo.Tests;

/// <summary>Where the project lies on this machine.</summary>
internal static class Checkout
{
    internal static string Root { get; } = Find();

    internal static string Path(params string[] parts) => System.IO.Path.Combine([Root, .. parts]);

    private static string Find()
    {
        var folder = new DirectoryInfo(AppContext.BaseDirectory);
        while (!File.Exists(System.IO.Path.Combine(folder.FullName, "Dibujo.slnx")))
        {
            folder = folder.Parent ?? throw new InvalidOperationException("The tests do not lie in a checkout of Dibujo.");
        }

        return folder.FullName;
    }
}
