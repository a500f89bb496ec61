using System.Text.Json;
using Dibujo.Core.Checking;
using Dibujo.Core.Json;
using Dibujo.Core.Values;

namespace Dibujo.Core.Packs;

/// <summary>A pack as the bytes of a file.</summary>
public static class PackFile
{
    private static readonly JsonSerializerOptions Strict = JsonText.StrictOf(PackJson.Default);

    /// <summary>The pack, or the first mistake in its form. Whether it says something sensible: <see cref="DefinitionCheck"/>.</summary>
    public static (Pack? Pack, Problem? Problem) Read(ReadOnlySpan<byte> utf8)
    {
        var (pack, problem) = JsonText.Read<Pack>(utf8, Strict);
        return pack switch
        {
            null => (null, problem),
            { Format: not Pack.FormatName } => (null, new("/format",
                $"This is not a pack: its format is “{Excerpt.Of(pack.Format)}”.", $"A pack says “{Pack.FormatName}”.")),
            { Version: not Pack.CurrentVersion } => (null, new("/version",
                $"Packs of version {pack.Version} are not known here.", $"Use version {Pack.CurrentVersion}.")),
            _ => (pack, null),
        };
    }

    /// <summary>The pack as JSON text in UTF-8.</summary>
    public static byte[] Write(Pack pack) => JsonSerializer.SerializeToUtf8Bytes(pack, PackJson.Default.Pack);
}
