using System.Collections.Frozen;
using System.Collections.Immutable;

namespace Dibujo.Core.Speech;

/// <summary>What it costs to pass over a word that is part of nothing.</summary>
internal static class Filler
{
    /// <summary>From this on a word says something, and passing over it has to be told.</summary>
    internal const double Content = 1.5;

    /// <summary>Politeness, and words that join others and say nothing themselves.</summary>
    private static readonly FrozenSet<string> Cheap = new[]
    {
        "please", "pls", "plz", "thx", "ty", "u", "ur", "cheers", "kindly", "could", "would", "you", "we", "i", "think", "really", "just", "actually", "also", "too", "then", "there", "it", "its", "they", "them", "their", "that", "this", "these", "those", "which", "who", "whoever", "am", "making", "keeping", "letting",
        "people", "person", "user", "users", "somebody", "someone", "anybody", "anyone", "make", "let", "us", "me", "my", "our", "your", "he", "she", "his", "her", "one", "ones", "any", "some", "such", "so",
        "be", "is", "are", "was", "were", "been", "being", "has", "have", "had", "do", "does", "did", "will", "gets", "get", "become", "becomes", "of", "at", "in", "on", "by", "to", "for", "with", "as", "from", "into", "about",
        "must", "should", "shall", "may", "can", "might", "sure", "possible", "great", "nice", "good", "idea", "way", "like", "want", "need", "needs", "always", "already", "yet", "again", "still", "now", "here", "right",
        "field", "fields", "value", "values", "record", "records", "form", "box", "section", "entry", "case", "cases", "thing", "things", "hi", "hello", "thanks", "thank", "ok", "well", "same", "time", "whole", "all", "every", "each",
        "exactly", "simply", "automatically", "first", "give", "given", "up", "out", "off", "ever", "whatever", "what", "hereby", "basically", "obviously", "maybe", "perhaps", "choice",
        "date", "day", "number", "name", "role", "stage", "item", "answer", "question", "both", "either", "rule", "put", "go", "goes", "come", "comes", "see", "told", "mean", "means", "kind", "sort", "type", "seen", "set", "filled", "there's", "that's", "say", "says", "words", "word", "keep", "leave", "send", "sent", "ship", "shipped", "read", "eyes", "himself", "sees", "makes", "anything", "whether", "even", "everybody", "everyone", "ask", "asks", "themselves", "itself", "anyway", "certain", "certainly", "own", "happens", "happen", "starts", "start", "three", "kept", "stored",
    }.ToFrozenSet(StringComparer.Ordinal);

    /// <summary>Words that turn what is said into something else: they are never passed over lightly.</summary>
    private static readonly FrozenSet<string> Turning = new[]
    {
        "not", "no", "never", "only", "unless", "except", "otherwise", "else", "nobody", "none", "neither", "nor", "without", "until", "but", "or", "if", "when", "while", "because", "since", "before", "after", "apart",
    }.ToFrozenSet(StringComparer.Ordinal);

    /// <summary>What records are called wherever loans and works are dealt with.</summary>
    private static readonly string[] Records = ["loan", "loans", "job", "jobs", "object", "objects", "item", "items", "request", "requests", "work", "works", "piece", "pieces", "file", "files"];

    /// <summary>Whether it says so little that it is no slip of a name.</summary>
    internal static bool IsCheap(string word) => Cheap.Contains(word) || Turning.Contains(word);

    /// <summary>Whether it turns what is said into something else, as "not" and "if" do.</summary>
    internal static bool IsTurning(string word) => Turning.Contains(word);

    /// <summary>Whether it denies what stands behind it.</summary>
    internal static bool IsDenying(string word) => word is "no" or "not" or "never" or "without" or "none" or "nobody";

    /// <summary>What a record is called in a record type of that name: "the loan" is the record.</summary>
    internal static IReadOnlySet<string> Own(string label) =>
        Words.Of(label).Select(word => Stem.Of(word.Text.ToLowerInvariant())).SelectMany(stem => (string[])[stem, stem + "s", stem + "e", stem + "es", stem + "ing", stem + "ings"]).Concat(Records).ToFrozenSet(StringComparer.Ordinal);

    /// <summary>Whether a record is called so wherever there are records.</summary>
    internal static bool IsRecord(string word) => Records.Contains(word, StringComparer.Ordinal);

    /// <summary>Verbs that join a thing to its name and say little more: "what the state indemnity covers".</summary>
    private static readonly FrozenSet<string> Light = new[]
    {
        "cover", "covers", "covered", "take", "takes", "taken", "bring", "brings", "hold", "holds", "held", "use", "uses", "used", "run", "runs", "happened", "belong", "belongs", "concern", "concerns", "look", "looks", "bear", "bears", "carry", "carries",
        "handle", "handles", "handled", "deal", "deals", "choose", "chooses", "pick", "picks", "wants", "wish", "wishes", "call", "called", "calls", "involves", "includes", "comprises", "applied", "got", "getting", "giving", "having", "going", "coming", "doing", "using",
        "ticks", "tick", "count", "freight", "transport", "shipment", "shipments", "there", "turns", "turn", "show", "shows", "lies", "lie", "sits", "stands", "actual", "particular", "respective", "relevant", "following", "corresponding", "proper", "valid", "extra", "additional", "special", "specific", "present", "current", "entire", "kinds", "types",
    }.ToFrozenSet(StringComparer.Ordinal);

    /// <summary>Two words that only together say nothing.</summary>
    private static readonly FrozenSet<(string, string)> Pairs = new[] { ("any", "more"), ("any", "longer"), ("as", "well"), ("at", "all"), ("of", "course"), ("in", "general"), ("in", "any"), ("by", "all"), ("no", "matter"), ("in", "fact"), ("if", "possible"), ("by", "then") }.ToFrozenSet();

    /// <summary>Whether it belongs to two words that only together say nothing: "any more".</summary>
    internal static bool IsPaired(ImmutableArray<Word> words, int at) =>
        (at > 0 && Pairs.Contains((words[at - 1].Text, words[at].Text))) || (at + 1 < words.Length && Pairs.Contains((words[at].Text, words[at + 1].Text)));

    /// <summary>What it costs to pass over a word.</summary>
    /// <param name="words">What was said.</param>
    /// <param name="at">Which word of it.</param>
    /// <param name="own">What a record is called in the record type: "the loan" is the record.</param>
    internal static double Of(ImmutableArray<Word> words, int at, IReadOnlySet<string> own) =>
        IsPaired(words, at) ? 0.1
        : words[at].Text == "," && at + 1 < words.Length && words[at + 1].Text == "or" ? 0.6
        : at > 0 && words[at].Text == "that" && words[at - 1].Text is "except" or "but" ? 2.6
        : Of(words[at], own);

    private static double Of(Word word, IReadOnlySet<string> own) => word.Kind switch
    {
        WordKind.Quoted or WordKind.Number or WordKind.Day or WordKind.Braced => 4,
        WordKind.Mark => word.Text is "=" ? 0.3 : word.Text is "%" or "<" or ">" or ">=" or "<=" ? 1.6 : word.Text is "&" ? 0.8 : 0.12,
        _ when Turning.Contains(word.Text) => 2.6,
        _ when word.Text is "and" => 1.6,
        _ when Cheap.Contains(word.Text) => 0.15,
        _ when own.Contains(word.Text) => 0.2,
        _ when Light.Contains(word.Text) => 0.7,
        _ => 2.8,
    };
}
