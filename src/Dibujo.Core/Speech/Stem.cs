namespace Dibujo.Core.Speech;

/// <summary>What is left of a word without the endings of number and time.</summary>
internal static class Stem
{
    /// <summary>How far a word is from one that differs by a slip, at the least.</summary>
    internal const double Slip = 0.45;

    private static readonly string[] Endings = ["ing", "ings", "ed", "es", "s", "d"];

    /// <summary>"planned", "planning" and "plans" are all "plan".</summary>
    internal static string Of(string word)
    {
        if (word.Length > 4 && word.EndsWith("ies", StringComparison.Ordinal))
        {
            return word[..^3] + "y";
        }

        foreach (var ending in Endings)
        {
            if (word.Length >= ending.Length + 3 && word.EndsWith(ending, StringComparison.Ordinal) && !(ending == "s" && word[^2] is 's' or 'u' or 'i') && !(ending is "ed" or "d" && word.EndsWith("eed", StringComparison.Ordinal)))
            {
                return Bare(word[..^ending.Length]);
            }
        }

        return Bare(word);
    }

    /// <summary>Without a silent e, and without a consonant that was doubled before an ending.</summary>
    private static string Bare(string word) =>
        word.Length > 3 && word[^1] == 'e' ? word[..^1]
        : word.Length > 3 && word[^1] == word[^2] && word[^1] is not ('a' or 'e' or 'o' or 's' or 'l') ? word[..^1]
        : word;

    /// <summary>
    /// How far a word that was said is from one of a name: 0 for the same, more for another form, for a slip, for a word that begins alike;
    /// null where it is another word.
    /// </summary>
    internal static double? Distance(string said, string meant) => Distance(said, Of(said), meant, Of(meant));

    /// <summary>As the other, of words whose stems are known.</summary>
    internal static double? Distance(string said, string one, string meant, string other)
    {
        if (said == meant)
        {
            return 0;
        }

        if (said.Length < 2 || meant.Length < 2)
        {
            return null;
        }

        if (one == other)
        {
            return 0.05;
        }

        if (said.Length >= 4 && meant.Length >= 4 && (Likenesses.IsSlip(said, meant) || (one.Length >= 4 && Likenesses.IsSlip(one, other))))
        {
            return said[0] == meant[0] || said.Length > 5 ? Slip : 0.8;
        }

        // "Description" for "described".
        var common = one.AsSpan().CommonPrefixLength(other);
        if (common >= 5 && common * 10 >= 8 * Math.Min(one.Length, other.Length))
        {
            return 0.35;
        }

        var shorter = Math.Min(one.Length, other.Length);
        return shorter >= 4 && (one.StartsWith(other, StringComparison.Ordinal) || other.StartsWith(one, StringComparison.Ordinal)) ? 0.3
            : shorter == 3 && Math.Max(one.Length, other.Length) >= 8 && other.StartsWith(one, StringComparison.Ordinal) ? 0.5
            : null;
    }
}
