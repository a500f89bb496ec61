using System.Collections.Frozen;
using System.Collections.Immutable;
using Dibujo.Core.Conditions;

namespace Dibujo.Core.Speech;

/// <summary>Words for sizes, which say what is measured: "heavier than" asks for a weight.</summary>
internal static class Measure
{
    private static readonly FrozenDictionary<string, (string Noun, Test Test)> Nouns = new Dictionary<string, (string Noun, Test Test)>
    {
        ["heavier"] = ("weight", Test.MoreThan),
        ["lighter"] = ("weight", Test.LessThan),
        ["longer"] = ("length", Test.MoreThan),
        ["shorter"] = ("length", Test.LessThan),
        ["wider"] = ("width", Test.MoreThan),
        ["broader"] = ("width", Test.MoreThan),
        ["narrower"] = ("width", Test.LessThan),
        ["taller"] = ("height", Test.MoreThan),
        ["higher"] = ("height", Test.MoreThan),
        ["lower"] = ("height", Test.LessThan),
        ["deeper"] = ("depth", Test.MoreThan),
        ["older"] = ("age", Test.MoreThan),
        ["younger"] = ("age", Test.LessThan),
        ["dearer"] = ("price", Test.MoreThan),
        ["costlier"] = ("price", Test.MoreThan),
        ["cheaper"] = ("price", Test.LessThan),
        ["brighter"] = ("light", Test.MoreThan),
        ["dimmer"] = ("light", Test.LessThan),
    }.ToFrozenDictionary(StringComparer.Ordinal);

    /// <summary>What a size is called by behind its number: "2 m long".</summary>
    private static readonly FrozenDictionary<string, string> Behind = new Dictionary<string, string> { ["long"] = "length", ["wide"] = "width", ["high"] = "height", ["tall"] = "height", ["deep"] = "depth", ["heavy"] = "weight", ["old"] = "age" }.ToFrozenDictionary(StringComparer.Ordinal);

    /// <summary>What asks for a size before "more than".</summary>
    private static readonly FrozenDictionary<string, string> Asking =
        new Dictionary<string, string> { ["worth"] = "value", ["weighs"] = "weight", ["weigh"] = "weight", ["weighing"] = "weight", ["costs"] = "price", ["cost"] = "price", ["costing"] = "price" }.ToFrozenDictionary(StringComparer.Ordinal);

    private static readonly FrozenDictionary<string, Test> Worth = new Dictionary<string, Test>
    {
        ["more"] = Test.MoreThan,
        ["over"] = Test.MoreThan,
        ["above"] = Test.MoreThan,
        ["less"] = Test.LessThan,
        ["under"] = Test.LessThan,
        ["below"] = Test.LessThan,
    }.ToFrozenDictionary(StringComparer.Ordinal);

    private static readonly FrozenSet<string> Plurals = new[] { "measures", "measurements", "dimensions", "sizes", "fields", "values", "entries" }.ToFrozenSet(StringComparer.Ordinal);

    /// <summary>What is measured there, how it is compared, and in how many words that is said; null where nothing is.</summary>
    internal static (string Noun, Test Test, int Length)? At(ImmutableArray<Word> words, int at)
    {
        var next = at + 1 < words.Length ? words[at + 1].Text : "";
        if (Nouns.TryGetValue(words[at].Text, out var measured))
        {
            return next == "than" ? (measured.Noun, measured.Test, 2) : null;
        }

        if (at > 0 && Behind.TryGetValue(words[at].Text, out var noun))
        {
            return (noun, Test.MoreThan, 1);
        }

        return Asking.TryGetValue(words[at].Text, out var asked) && Worth.TryGetValue(next, out var test)
            ? (asked, test, at + 2 < words.Length && words[at + 2].Text == "than" ? 3 : 2)
            : null;
    }

    /// <summary>What is measured by the number behind that word: "worth 100,000 or more"; null where it is no such word, or no number comes.</summary>
    internal static string? Before(ImmutableArray<Word> words, int at) =>
        at + 1 < words.Length && words[at + 1].Kind == WordKind.Number && Asking.TryGetValue(words[at].Text, out var noun) ? noun : null;

    /// <summary>Whether it stands for several fields behind the word that these have in common.</summary>
    internal static bool IsPlural(string word) => Plurals.Contains(word);
}
