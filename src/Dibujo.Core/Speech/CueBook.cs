using System.Collections.Concurrent;
using System.Collections.Frozen;
using System.Collections.Immutable;

namespace Dibujo.Core.Speech;

/// <summary>The ways of saying each <see cref="Cue"/>, as <c>cues.txt</c> has them.</summary>
internal static class CueBook
{
    private static readonly ImmutableArray<Phrase> All = Read();

    /// <summary>Each way of saying something, by its first word.</summary>
    private static readonly FrozenDictionary<string, ImmutableArray<Phrase>> ByFirstWord = All.Distinct().GroupBy(phrase => phrase.Words[0], StringComparer.Ordinal)
        .ToFrozenDictionary(group => group.Key, group => group.ToImmutableArray(), StringComparer.Ordinal);

    private static readonly FrozenDictionary<Cue, string> FirstWays = All.GroupBy(phrase => phrase.Cue).ToFrozenDictionary(group => group.Key, group => string.Join(' ', group.First().Words));

    /// <summary>Cues whose first word may be written with a slip: short words become others too easily.</summary>
    private static readonly ImmutableArray<Phrase> Long = [.. ByFirstWord.Values.SelectMany(all => all).Where(phrase => phrase.Words is [{ Length: >= 6 }] or [{ Length: >= 6 }, _])];

    /// <summary>What each word was found to be a slip of: all but the last are said again at each key.</summary>
    private static readonly ConcurrentDictionary<string, ImmutableArray<Phrase>> Slips = new(StringComparer.Ordinal);

    /// <summary>What may stand between the words of any way of saying something, and changes nothing.</summary>
    private static readonly FrozenSet<string> Adverbs = new[] { "always", "also", "still", "then", "now", "really", "first", "already", "both", "simply", "actually", "please", "definitely", "absolutely", "normally", "usually" }.ToFrozenSet(StringComparer.Ordinal);

    /// <summary>One way of saying a cue.</summary>
    internal readonly record struct Phrase(Cue Cue, ImmutableArray<string> Words);

    /// <summary>The way of saying it that stands first: what people read for it.</summary>
    internal static string NameOf(Cue cue) => FirstWays[cue];

    /// <summary>Every cue that begins with that word of what was said, and how many words it takes.</summary>
    /// <param name="words">What was said.</param>
    /// <param name="at">The word.</param>
    /// <param name="own">What a record is called: "before a loan can be" is "before it can be".</param>
    internal static IEnumerable<(Cue Cue, int Length)> At(ImmutableArray<Word> words, int at, IReadOnlySet<string>? own = null) =>
        ByFirstWord.TryGetValue(words[at].Text, out var phrases)
            ? phrases.Select(phrase => (phrase.Cue, Length: Said(phrase, words, at, own))).Where(one => one.Length > 0)
            : [];

    /// <summary>Cues of two words, of which these are the first and the second.</summary>
    internal static IEnumerable<Cue> Around(string first, string second) =>
        ByFirstWord.TryGetValue(first, out var phrases) ? phrases.Where(phrase => phrase.Words.Length == 2 && phrase.Words[1] == second).Select(phrase => phrase.Cue) : [];

    /// <summary>Cues of one word or two, the first of which differs from the word there by a slip; and how many words they take.</summary>
    internal static IEnumerable<(Cue Cue, int Length)> Slipped(ImmutableArray<Word> words, int at)
    {
        var word = words[at].Text;
        if (word.Length < 5 || ByFirstWord.ContainsKey(word) || Filler.IsCheap(word))
        {
            return [];
        }

        var like = Slips.GetOrAdd(word, said => [.. Long.Where(phrase => Likenesses.IsSlip(said, phrase.Words[0]))]);
        if (Slips.Count > 2000)
        {
            Slips.Clear();
        }

        var next = at + 1 < words.Length ? words[at + 1].Text : "";
        return like.Where(phrase => phrase.Words.Length == 1 || phrase.Words[1] == next).Select(phrase => (phrase.Cue, phrase.Words.Length)).Distinct();
    }

    /// <summary>How many words it takes there; 0 where it is not said. "Must always be given" is "must be given".</summary>
    private static int Said(Phrase phrase, ImmutableArray<Word> words, int at, IReadOnlySet<string>? own)
    {
        var next = at;
        foreach (var word in phrase.Words)
        {
            if (next > at && next < words.Length && words[next].Text != word && Adverbs.Contains(words[next].Text))
            {
                next++;
            }

            if (next >= words.Length || words[next].Kind == WordKind.Quoted || (words[next].Text != word && !(word == "it" && own?.Contains(words[next].Text) == true)))
            {
                return 0;
            }

            next++;
        }

        return next - at;
    }

    private static ImmutableArray<Phrase> Read()
    {
        using var stream = typeof(CueBook).Assembly.GetManifestResourceStream("cues.txt")!;
        using var reader = new StreamReader(stream);
        return [.. reader.ReadToEnd().Split('\n').Where(line => line.Contains(": ", StringComparison.Ordinal) && line[0] != '#')
            .SelectMany(line => Of(line, line.IndexOf(": ", StringComparison.Ordinal)))];
    }

    private static IEnumerable<Phrase> Of(string line, int colon) =>
        line[(colon + 2)..].Split(" | ").Select(said => new Phrase(Enum.Parse<Cue>(line[..colon], ignoreCase: true), [.. said.Trim().Split(' ')]));
}
