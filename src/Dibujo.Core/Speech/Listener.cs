using System.Collections.Immutable;
using Dibujo.Core.Notations;

namespace Dibujo.Core.Speech;

/// <summary>Words with a place in them up to which they have been understood, what was guessed on the way, and what could have come at each place.</summary>
/// <param name="said">What was said.</param>
/// <param name="notation">How whoever said it writes days and numbers.</param>
internal sealed class Listener(string said, Notation notation)
{
    private readonly List<Guess> guesses = [];
    private readonly List<Question> questions = [];
    private readonly List<Expectation> expected = [];
    private readonly HashSet<(int At, ImmutableArray<string> Names)> names = [];

    /// <summary>Something that could have stood before the word of that number.</summary>
    internal readonly record struct Expectation(int At, string What, bool IsHint);

    internal string Said => said;

    internal ImmutableArray<Word> Words { get; } = Speech.Words.Of(said, notation);

    /// <summary>How whoever said it writes days and numbers.</summary>
    internal Notation Notation => notation;

    /// <summary>Number of the word that comes next.</summary>
    internal int At { get; set; }

    internal ImmutableArray<Guess> Guesses => [.. guesses.Distinct()];

    internal ImmutableArray<Question> Questions => [.. questions];

    /// <summary>The furthest place at which something was expected.</summary>
    internal int Furthest => Math.Max(expected.Count == 0 ? 0 : expected.Max(one => one.At), names.Count == 0 ? 0 : names.Max(one => one.At));

    /// <summary>What was expected there and behind it.</summary>
    internal IEnumerable<Expectation> ExpectedFrom(int at) =>
        expected.Where(one => one.At >= at).Concat(names.Where(one => one.At >= at).SelectMany(one => one.Names.Select(name => new Expectation(one.At, name, false))));

    internal bool IsAtEnd => At >= Words.Length;

    internal Word? Next => IsAtEnd ? null : Words[At];

    /// <summary>Goes on only if something comes of it; else all is as before, but for what was expected.</summary>
    internal T? Try<T>(Func<T?> listen)
        where T : class
    {
        var (at, guessed, asked) = (At, guesses.Count, questions.Count);
        if (listen() is { } heard)
        {
            return heard;
        }

        At = at;
        guesses.RemoveRange(guessed, guesses.Count - guessed);
        questions.RemoveRange(asked, questions.Count - asked);
        return null;
    }

    /// <summary>The first of these that something comes of.</summary>
    internal T? First<T>(params ReadOnlySpan<Func<T?>> ways)
        where T : class
    {
        foreach (var way in ways)
        {
            if (Try(way) is { } heard)
            {
                return heard;
            }
        }

        return null;
    }

    /// <summary>Whether these words come next.</summary>
    internal bool IsAhead(string phrase) => LengthOf(phrase) > 0;

    /// <summary>Takes these words, if they come next.</summary>
    internal bool Take(string phrase)
    {
        var length = LengthOf(phrase);
        At += length;
        return length > 0;
    }

    /// <summary>Takes the longest of these that comes next; null if none does.</summary>
    internal string? TakeAny(params ReadOnlySpan<string> phrases)
    {
        var (longest, most) = ((string?)null, 0);
        foreach (var phrase in phrases)
        {
            if (LengthOf(phrase) is var length && length > most)
            {
                (longest, most) = (phrase, length);
            }
        }

        At += most;
        return longest;
    }

    internal bool TookAny(params ReadOnlySpan<string> phrases) => TakeAny(phrases) is not null;

    internal void Expect(string what, bool isHint = false) => expected.Add(new(At, what, isHint));

    /// <summary>As the other, of all the names that may stand in one place: most are never looked at.</summary>
    internal void Expect(ImmutableArray<string> all) => names.Add((At, all));

    /// <summary>Notes that the words from that one up to here were taken for something that they do not say.</summary>
    internal void Guess(int from, string meant, IEnumerable<Wordage> others)
    {
        var guess = new Guess(StartOf(from), EndOf(At), meant, [.. others]);
        // What was made of the same words before is part of it.
        guesses.RemoveAll(one => (one.Start, one.End) == (guess.Start, guess.End) && guess.Others.IsEmpty);
        guesses.Add(guess);
    }

    internal void Ask(int from, IEnumerable<Wordage> options) =>
        questions.Add(new(StartOf(from), EndOf(At), said[StartOf(from)..EndOf(At)], [.. options]));

    internal int StartOf(int word) => word < Words.Length ? Words[word].Start : said.Length;

    /// <summary>Where what was said before that word ends.</summary>
    internal int EndOf(int word) => word == 0 ? 0 : Words[word - 1].End;

    private int LengthOf(string phrase)
    {
        var at = At;
        foreach (var part in phrase.AsSpan().Split(' '))
        {
            if (at >= Words.Length || Words[at].Kind is not (WordKind.Plain or WordKind.Mark) || !Words[at].Text.AsSpan().SequenceEqual(phrase.AsSpan(part)))
            {
                return 0;
            }

            at++;
        }

        return at - At;
    }
}
