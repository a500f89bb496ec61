namespace Dibujo.Core.Speech;

/// <summary>How much a word that was said is like one of a name.</summary>
internal enum Likeness
{
    None,

    /// <summary>One letter is wrong, missing, too many, or changed places with the next.</summary>
    Slip,

    /// <summary>Singular for plural, or the other way round.</summary>
    Form,

    Same,
}

internal static class Likenesses
{
    /// <summary>Shorter words become others by a single slip.</summary>
    private const int ShortestWithSlip = 4;

    internal static Likeness Of(string said, string meant) =>
        said == meant ? Likeness.Same
        : Singular(said) == Singular(meant) ? Likeness.Form
        : said.Length >= ShortestWithSlip && meant.Length >= ShortestWithSlip && IsSlip(said, meant) ? Likeness.Slip
        : Likeness.None;

    /// <summary>The word without the ending of its plural.</summary>
    internal static string Singular(string word) =>
        word.Length > 4 && word.EndsWith("ies", StringComparison.Ordinal) ? word[..^3] + "y"
        : word.Length > 4 && (word.EndsWith("sses", StringComparison.Ordinal) || word.EndsWith("xes", StringComparison.Ordinal)
            || word.EndsWith("ches", StringComparison.Ordinal) || word.EndsWith("shes", StringComparison.Ordinal)) ? word[..^2]
        : word.Length > 3 && word[^1] == 's' && word[^2] is not ('s' or 'u' or 'i') ? word[..^1]
        : word;

    /// <summary>Whether one can be made of the other by one insertion, deletion, exchange or swap (Damerau 1964).</summary>
    internal static bool IsSlip(string one, string other)
    {
        if (Math.Abs(one.Length - other.Length) > 1)
        {
            return false;
        }

        var same = one.AsSpan().CommonPrefixLength(other);
        var a = one.AsSpan(same);
        var b = other.AsSpan(same);
        return a.Length == b.Length
            ? a.Length == 0 || a[1..].SequenceEqual(b[1..]) || (a.Length > 1 && a[0] == b[1] && a[1] == b[0] && a[2..].SequenceEqual(b[2..]))
            : a.Length > b.Length ? a[1..].SequenceEqual(b) : b[1..].SequenceEqual(a);
    }
}
