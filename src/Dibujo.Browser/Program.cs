using System.Runtime.InteropServices.JavaScript;
using System.Runtime.Versioning;
using System.Text;

[assembly: SupportedOSPlatform("browser")]

namespace Dibujo.Browser;

internal static partial class Program
{
    internal static void Main()
    {
        // The runtime wants an entry point; everything else is called from JavaScript.
    }

    [JSExport]
    internal static string Norm(string a) => a.Normalize(NormalizationForm.FormC).ToUpperInvariant();

    [JSExport]
    internal static int[] Ints(int n) => [n, 2, 3];
}
