using System.Runtime.Versioning;

[assembly: SupportedOSPlatform("browser")]

namespace Dibujo.Browser;

internal static class Program
{
    internal static void Main()
    {
        // The runtime wants an entry point; everything else is called from JavaScript.
    }
}
