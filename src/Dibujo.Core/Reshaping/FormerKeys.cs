using System.Collections.Immutable;
using Dibujo.Core.Records;

namespace Dibujo.Core.Reshaping;

/// <summary>Keys that fields have had in earlier editions.</summary>
public static class FormerKeys
{
    /// <summary>For every key that a field once had, the key of that field now. A key that has been given to another field since means that one.</summary>
    /// <param name="reshaping">What the editions did to records, from the first to the one in force.</param>
    public static ImmutableDictionary<string, string> Of(IEnumerable<Reshape> reshaping)
    {
        var now = new Dictionary<string, string>(StringComparer.Ordinal);
        foreach (var renamed in reshaping.OfType<FieldRenamed>())
        {
            foreach (var key in now.Where(one => one.Value == renamed.From).Select(one => one.Key).ToList())
            {
                now[key] = renamed.To;
            }

            now[renamed.From] = renamed.To;
            now.Remove(renamed.To);
        }

        return now.ToImmutableDictionary(StringComparer.Ordinal);
    }

    /// <summary>What records have to become so that an earlier edition can be in force again.</summary>
    /// <param name="reshaping">What the editions after that one did to records, in their order. A merged choice and a removed stage cannot be told apart again.</param>
    public static ImmutableArray<Reshape> Back(IEnumerable<Reshape> reshaping) =>
        [.. reshaping.OfType<FieldRenamed>().Reverse().Select(renamed => new FieldRenamed(renamed.To, renamed.From))];
}
