using System.Collections.Immutable;
using Dibujo.Core.Forms;

namespace Dibujo.Core.Speech;

/// <summary>Hears names. What is only close to one is noted as a guess; what could be several as a question.</summary>
internal sealed class NameListener(Listener listener, Lexicon lexicon)
{
    /// <summary>How many other names a guess offers.</summary>
    private const int MostOthers = 6;

    private static readonly (string Word, ElementKind Kind)[] Kinds =
    [
        ("section", ElementKind.Section), ("tab", ElementKind.Tab), ("form", ElementKind.Form), ("field", ElementKind.Field), ("page", ElementKind.Tab),
        ("group", ElementKind.Section),
    ];

    /// <summary>The name that comes next; null if none does.</summary>
    internal Named<T>? Name<T>(NameIndex<T> index, string what, Closeness least = Closeness.ShortenedWithSlip)
    {
        Expected(index, what);
        return Pick(index, [.. index.Best(listener).Where(match => match.Closeness >= least)]);
    }

    private void Expected<T>(NameIndex<T> index, string what)
    {
        listener.Expect(what, isHint: true);
        listener.Expect(index.Texts);
    }

    /// <summary>Takes one of several matches: notes it as a guess, or asks.</summary>
    internal Named<T>? Pick<T>(NameIndex<T> index, ImmutableArray<NameMatch<T>> best)
    {
        if (best.IsEmpty)
        {
            return null;
        }

        var from = listener.At;
        var others = index.Matches(listener).Select(match => match.Name).Where(name => name.Text != best[0].Name.Text)
            .DistinctBy(name => name.Text).Take(MostOthers).ToList();
        listener.At += best[0].Length;
        if (best.Length > 1)
        {
            listener.Ask(from, best.Select(match => new Wordage(match.Name.Text, match.Name.Text)));
        }
        else if (best[0].Closeness <= Closeness.Shortened)
        {
            listener.Guess(from, best[0].Name.Text, others.Select(name => new Wordage(name.Text, name.Text)));
        }

        return best[0].Name;
    }

    /// <summary>Several names, with commas, "and" or "or" between them.</summary>
    internal ImmutableArray<Named<T>>? List<T>(Func<Named<T>?> one)
    {
        listener.TookAny("both", "either");
        if (one() is not { } first)
        {
            return null;
        }

        var all = ImmutableArray.CreateBuilder<Named<T>>();
        all.Add(first);
        while (listener.Try(() => TookAnd() ? one() : null) is { } next)
        {
            all.Add(next);
        }

        return [.. all.DistinctBy(name => name.Text)];
    }

    /// <summary>Elements that an effect is to act on.</summary>
    internal ImmutableArray<Element>? Targets() =>
        List(Target) is { } targets ? [.. targets.Select(target => target.Thing)] : null;

    /// <summary>An element: a field or part, or something with its kind before or after it.</summary>
    private Named<Element>? Target() => listener.First(Record, KindFirst, KindLast, Part, Bare);

    /// <summary>What is called the same as a field is the field: anything else is called with its kind, as in a canonical sentence.</summary>
    private Named<Element>? Bare()
    {
        var best = lexicon.Targets.Best(listener);
        var fields = best.Where(match => match.Name.Thing.Kind == ElementKind.Field).ToImmutableArray();
        Expected(lexicon.Targets, "a field, section, tab or form");
        return Pick(lexicon.Targets, fields.Length == 1 && fields[0].Closeness >= Closeness.OtherForm ? fields : best);
    }

    private Named<Element>? Record() =>
        listener.TookAny("whole record", "record", "everything") ? lexicon.Targets.Names.First(name => name.Thing == Element.Record) : null;

    private Named<Element>? KindFirst() => Kinds.FirstOrDefault(kind => listener.IsAhead(kind.Word)) is ({ } word, var kind) && listener.Take(word)
        ? Name(OfKind(kind), $"the name of a {word}")
        : null;

    private Named<Element>? KindLast()
    {
        foreach (var (word, kind) in Kinds)
        {
            var index = OfKind(kind);
            var from = listener.At;
            var matches = index.Matches(listener).Where(match => IsFollowedBy(match.Length, word)).ToList();
            if (matches.Count > 0)
            {
                var closest = matches.Max(match => match.Closeness);
                var found = Pick(index, [.. matches.Where(match => match.Closeness == closest)]);
                listener.Take(word);
                return found;
            }

            listener.At = from;
        }

        return null;
    }

    /// <summary>"Country of the borrower address".</summary>
    private Named<Element>? Part() => Of(lexicon.Targets, ElementKind.Part);

    private Named<Element>? Of(NameIndex<Element> index, ElementKind kind)
    {
        var at = listener.At;
        for (var of = at + 1; of < Math.Min(at + 4, listener.Words.Length); of++)
        {
            if (listener.Words[of] is not { Kind: WordKind.Plain, Text: "of" })
            {
                continue;
            }

            // The part comes first and its field after "of": looked up the other way round, as the name has them.
            var part = listener.Words[at..of].Select(word => word.Text).ToList();
            foreach (var name in index.Names.Where(name => name.Thing.Kind == kind && EndsWith(name.Words, part)))
            {
                var whole = name.Words[..^part.Count];
                if (of + whole.Length < listener.Words.Length + 1 && whole.Length <= listener.Words.Length - of - 1
                    && whole.SequenceEqual(listener.Words.Slice(of + 1, whole.Length).Select(word => word.Text), StringComparer.Ordinal))
                {
                    listener.At = of + 1 + whole.Length;
                    return name;
                }
            }
        }

        return null;
    }

    private static bool EndsWith(ImmutableArray<string> words, List<string> end) =>
        words.Length > end.Count && words.Skip(words.Length - end.Count).SequenceEqual(end, StringComparer.Ordinal);

    private NameIndex<Element> OfKind(ElementKind kind) => lexicon.TargetsOf(kind);

    private bool IsFollowedBy(int words, string word) =>
        listener.At + words < listener.Words.Length && listener.Words[listener.At + words] is { Kind: WordKind.Plain } next && next.Text == word;

    private bool TookAnd() => listener.Take(",") ? listener.TookAny("and", "or", "nor", "&") || true : listener.TookAny("and", "or", "nor", "&");
}
