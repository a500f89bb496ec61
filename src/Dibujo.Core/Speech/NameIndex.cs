using System.Collections.Concurrent;
using System.Collections.Immutable;

namespace Dibujo.Core.Speech;

/// <summary>Names that can stand in one place, found by what people say for them.</summary>
internal sealed class NameIndex<T>(IEnumerable<Named<T>> names)
{
    /// <summary>What a shortened name neither begins nor ends with: it is part of what is said around it.</summary>
    private static readonly HashSet<string> Between =
        new(["of", "for", "on", "in", "by", "to", "from", "and", "or", "with", "as", "at", "is", "are", "not", "no", "than", "before", "after", "it"], StringComparer.Ordinal);

    private const int MostKept = 2000;

    /// <summary>In which names a word was found that is like the one said: all but the last are said again at each key.</summary>
    private readonly ConcurrentDictionary<string, ImmutableArray<Named<T>>> kept = new(StringComparer.Ordinal);

    /// <summary>Each word of the names once, with the places of those in which it stands.</summary>
    private readonly ImmutableArray<(string Word, ImmutableArray<int> Names)> places =
        [.. names.Where(name => name.Words.Length > 0).SelectMany((name, place) => name.Words.Select(word => (Word: word, place))).GroupBy(one => one.Word, one => one.place, StringComparer.Ordinal).Select(group => (group.Key, group.ToImmutableArray()))];

    /// <summary>The names as they stand in a canonical sentence.</summary>
    internal ImmutableArray<string> Texts { get; } = [.. names.Where(name => name.Words.Length > 0).Select(name => name.Text)];

    internal ImmutableArray<Named<T>> Names { get; } = [.. names.Where(name => name.Words.Length > 0)];

    /// <summary>The names that fit best what comes next: those that take the most words, of these the closest. Several where nothing tells them apart.</summary>
    internal ImmutableArray<NameMatch<T>> Best(Listener listener)
    {
        var matches = Matches(listener);
        if (matches.IsEmpty)
        {
            return [];
        }

        var length = matches.Max(match => match.Length);
        var closeness = matches.Where(match => match.Length == length).Max(match => match.Closeness);
        return [.. matches.Where(match => match.Length == length && match.Closeness == closeness).DistinctBy(match => match.Name.Text)];
    }

    /// <summary>Every name that what comes next could be, with however many words.</summary>
    internal ImmutableArray<NameMatch<T>> Matches(Listener listener)
    {
        if (listener.Next is not { } next)
        {
            return [];
        }

        return next.Kind == WordKind.Quoted
            ? [.. Names.Where(name => IsQuoted(name, next)).Select(name => new NameMatch<T>(name, 1, Closeness.Whole))]
            : [.. With(next.Text).Select(name => Match(name, listener.Words, listener.At)).OfType<NameMatch<T>>()];
    }

    /// <summary>The names in which such a word stands, in their order.</summary>
    private ImmutableArray<Named<T>> With(string word)
    {
        if (kept.Count > MostKept)
        {
            kept.Clear();
        }

        return kept.GetOrAdd(word, said => [.. places.Where(one => Likenesses.Of(said, one.Word) != Likeness.None).SelectMany(one => one.Names).Distinct().Order().Select(place => Names[place])]);
    }

    private static bool IsQuoted(Named<T> name, Word quoted) => quoted.Key is { } key
        ? name.Text.EndsWith($"#{key}", StringComparison.Ordinal)
        : Words.Of(quoted.Text).Select(word => word.Text.ToLowerInvariant()).SequenceEqual(name.Words, StringComparer.Ordinal);

    private static NameMatch<T>? Match(Named<T> name, ImmutableArray<Word> words, int at)
    {
        var (last, slips, forms, length, left) = (-1, 0, 0, 0, 0);
        for (var i = at; i < words.Length && last < name.Words.Length - 1; i++)
        {
            if (words[i] is { Kind: WordKind.Mark, Text: Sentences.Names.Step } && length > 0)
            {
                continue;
            }

            var found = Find(name, words[i].Text, last + 1, slips == 0 && words[i].Kind == WordKind.Plain);
            if (found.Place < 0 || words[i].Kind == WordKind.Quoted)
            {
                break;
            }

            left += found.Place - last - 1;
            last = found.Place;
            slips += found.Likeness == Likeness.Slip ? 1 : 0;
            forms += found.Likeness == Likeness.Form ? 1 : 0;
            length = i - at + 1;
        }

        left += name.Words.Length - 1 - last;
        if (left > 0)
        {
            while (length > 0 && Between.Contains(words[at + length - 1].Text))
            {
                length--;
            }

            if (length == 0 || (length == 1 && Between.Contains(words[at].Text)) || words[at].Text.Length < 2)
            {
                return null;
            }
        }

        return length == 0 ? null : new(name, length,
            left > 0 ? slips > 0 ? Closeness.ShortenedWithSlip : Closeness.Shortened
            : slips > 0 ? Closeness.Slip
            : forms > 0 ? Closeness.OtherForm
            : Closeness.Whole);
    }

    private static (int Place, Likeness Likeness) Find(Named<T> name, string said, int from, bool mayslip)
    {
        var slip = -1;
        for (var place = from; place < name.Words.Length; place++)
        {
            var likeness = Likenesses.Of(said, name.Words[place]);
            if (likeness >= Likeness.Form)
            {
                return (place, likeness);
            }

            if (likeness == Likeness.Slip && slip < 0 && mayslip)
            {
                slip = place;
            }
        }

        return (slip, Likeness.Slip);
    }
}
