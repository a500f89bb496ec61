using System.Collections.Immutable;

namespace Dibujo.Core.Sentences;

/// <summary>What can be named at one place of a sentence: keys with the labels that people read.</summary>
/// <remarks>
/// A label stands as it is where it can be read in one way only; else in quotation marks, and with its key after # where
/// two labels are the same. The writer and the parser decide by the same list, so that what one writes the other reads.
/// </remarks>
internal sealed class NameList
{
    /// <summary>Words that may come after a name.</summary>
    private static readonly HashSet<string> Followers = new(StringComparer.OrdinalIgnoreCase)
    {
        "is", "has", "contains", "does", "starts", "includes", "to", "and", "or", "on", "for", "because", "as", "saying", "at", "through", "with", "&",
    };

    private readonly Dictionary<string, string> written = new(StringComparer.Ordinal);
    private readonly ImmutableArray<(string Label, string Key)> bare;
    private readonly ILookup<string, string> byLabel;

    /// <param name="entries">Keys with labels, most likely first.</param>
    /// <param name="reserved">What a label in this place must not begin with to stand as it is.</param>
    /// <param name="taken">Other names in this place, which always stand as they are.</param>
    internal NameList(IEnumerable<(string Key, string Label)> entries, IReadOnlyCollection<string> reserved, IReadOnlyCollection<string> taken)
    {
        Entries = [.. entries.DistinctBy(e => e.Key)];
        byLabel = Entries.ToLookup(e => Straight(e.Label), e => e.Key, StringComparer.OrdinalIgnoreCase);
        var readOn = Entries.SelectMany(e => ReadOnFrom(e.Label)).ToHashSet(StringComparer.OrdinalIgnoreCase);
        bare = [.. Entries.Where(e => IsPlain(e.Label) && byLabel[Straight(e.Label)].Count() == 1
                && !reserved.Any(word => Begins(e.Label, word)) && !readOn.Contains(e.Label)
                && !taken.Any(name => string.Equals(name, e.Label, StringComparison.OrdinalIgnoreCase) || ReadOnFrom(e.Label).Contains(name, StringComparer.OrdinalIgnoreCase)))
            .Select(e => (e.Label, e.Key)).OrderByDescending(e => e.Label.Length)];
        var plain = bare.Select(e => e.Key).ToHashSet(StringComparer.Ordinal);
        foreach (var (key, label) in Entries)
        {
            written[key] = plain.Contains(key) ? label : byLabel[Straight(label)].Count() == 1 ? Quote(label) : $"{Quote(label)}#{key}";
        }
    }

    internal ImmutableArray<(string Key, string Label)> Entries { get; }

    /// <summary>Text in quotation marks; a closing mark within it is doubled.</summary>
    internal static string Quote(string text) => $"“{text.Replace("”", "””", StringComparison.Ordinal)}”";

    /// <summary>The name as it stands in a sentence. An unknown key stands for itself, an empty one for something to be filled in.</summary>
    internal string Write(string key) => written.GetValueOrDefault(key) ?? (key.Length == 0 ? "…" : Quote(key) + "#" + key);

    /// <summary>The longest name that stands as it is at that place of a text, with its length; null if there is none.</summary>
    internal (string Key, int Length)? Match(string text, int at)
    {
        foreach (var (label, key) in bare)
        {
            if (Begins(text.AsSpan(at), label))
            {
                return (key, label.Length);
            }
        }

        return null;
    }

    /// <summary>The key of a name in quotation marks; null where there is none, or more than one.</summary>
    internal string? Quoted(string label) => byLabel[Straight(label)].ToList() is [var key] ? key : null;

    internal bool Has(string key) => written.ContainsKey(key);

    private static bool Begins(ReadOnlySpan<char> text, ReadOnlySpan<char> word)
    {
        if (text.Length < word.Length || (text.Length > word.Length && char.IsLetterOrDigit(text[word.Length])))
        {
            return false;
        }

        for (var i = 0; i < word.Length; i++)
        {
            if (text[i] != word[i] && Typed(text[i]) != Typed(word[i]))
            {
                return false;
            }
        }

        return true;
    }

    /// <summary>A letter as it is compared: keyboards have the straight apostrophe, labels often the curly one.</summary>
    private static char Typed(char letter) => letter == '’' ? '\'' : char.ToUpperInvariant(letter);

    private static string Straight(string label) => label.Replace('’', '\'');

    /// <summary>The shorter names that, with a word after them that belongs to the sentence, could be taken for this one.</summary>
    private static IEnumerable<string> ReadOnFrom(string label)
    {
        for (var space = label.IndexOf(' ', StringComparison.Ordinal); space >= 0; space = label.IndexOf(' ', space + 1))
        {
            var next = label.IndexOf(' ', space + 1);
            if (Followers.Contains(label[(space + 1)..(next < 0 ? label.Length : next)]))
            {
                yield return label[..space];
            }
        }
    }

    private static bool IsPlain(string label) =>
        label.Length > 0 && char.IsLetterOrDigit(label[0]) && char.IsLetterOrDigit(label[^1])
        && label.All(c => char.IsLetterOrDigit(c) || c is ' ' or '-' or '’' or '\'' or '/' or '&' or '%')
        && !label.Contains("  ", StringComparison.Ordinal);
}
