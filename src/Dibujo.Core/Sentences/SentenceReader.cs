using System.Globalization;
using System.Text;
using System.Text.RegularExpressions;

namespace Dibujo.Core.Sentences;

/// <summary>A sentence with a place in it up to which it has been read, and what could have come at each place.</summary>
internal sealed class SentenceReader(string text)
{
    private readonly List<Expectation> expected = [];
    private int at;

    /// <summary>Something that could have stood at a place: words to take over, or a hint at what may be written.</summary>
    internal readonly record struct Expectation(int Place, string Text, PartKind Kind, bool IsHint);

    internal string Text => text;

    /// <summary>Where the next word begins.</summary>
    internal int At
    {
        get
        {
            while (at < text.Length && char.IsWhiteSpace(text[at]))
            {
                at++;
            }

            return at;
        }
        set => at = value;
    }

    internal IReadOnlyList<Expectation> Expected => expected;

    internal bool IsAtEnd => At >= text.Length;

    /// <summary>Takes the words, if they stand here.</summary>
    internal bool Take(string words, PartKind kind = PartKind.Keyword)
    {
        if (IsAhead(words))
        {
            at += words.Length;
            return true;
        }

        Expect(words, kind);
        return false;
    }

    /// <summary>Whether the words stand here, without taking them.</summary>
    internal bool IsAhead(string words)
    {
        var end = At + words.Length;
        return end <= text.Length && text.AsSpan(at, words.Length).Equals(words, StringComparison.OrdinalIgnoreCase)
            && (end == text.Length || !char.IsLetterOrDigit(words[^1]) || !char.IsLetterOrDigit(text[end]));
    }

    internal void Demand(string words, PartKind kind = PartKind.Keyword)
    {
        if (!Take(words, kind))
        {
            throw Fail();
        }
    }

    /// <summary>Takes a name of the list as it is; null where none stands here.</summary>
    internal string? TakeBare(NameList list, PartKind kind)
    {
        foreach (var (key, _) in list.Entries)
        {
            Expect(list.Write(key), kind);
        }

        if (list.Match(text, At) is not { } match)
        {
            return null;
        }

        at += match.Length;
        return match.Key;
    }

    /// <summary>Takes a name of the list, as it is or in quotation marks; null where none stands here.</summary>
    internal string? TakeName(NameList list, PartKind kind)
    {
        var start = At;
        if (TakeBare(list, kind) is { } bare)
        {
            return bare;
        }

        if (TryQuoted() is not { } label)
        {
            return null;
        }

        if (at < text.Length && text[at] == '#')
        {
            var end = ++at;
            while (end < text.Length && (char.IsAsciiLetterOrDigit(text[end]) || text[end] is '-' or '_'))
            {
                end++;
            }

            var key = text[at..end];
            at = end;
            return list.Has(key) ? key : throw Fail(start);
        }

        if (list.Quoted(label) is { } only)
        {
            return only;
        }

        at = start;
        return null;
    }

    /// <summary>Takes text in quotation marks; null where none stands here.</summary>
    internal string? TakeText(string hint)
    {
        var taken = TryQuoted();
        if (taken is null)
        {
            Expect(hint, PartKind.Detail, isHint: true);
        }

        return taken;
    }

    internal string DemandText(string hint) => TakeText(hint) ?? throw Fail();

    /// <summary>Takes what the pattern matches here; null where it does not. The pattern is anchored with \G.</summary>
    internal Match? Take(Regex pattern, string hint)
    {
        var match = pattern.Match(text, At);
        if (!match.Success)
        {
            Expect(hint, PartKind.Comparand, isHint: true);
            return null;
        }

        at += match.Length;
        return match;
    }

    /// <summary>Takes an expression in braces, which may have texts with braces in it; null where none stands here.</summary>
    internal string? TakeBraced()
    {
        if (!Take("{"))
        {
            return null;
        }

        var start = at;
        var isText = false;
        for (; at < text.Length; at++)
        {
            if (isText && text[at] == '\\')
            {
                at++;
            }
            else if (text[at] == '"')
            {
                isText = !isText;
            }
            else if (text[at] == '}' && !isText)
            {
                return text[start..at++];
            }
        }

        at = text.Length;
        Expect("}", PartKind.Keyword);
        throw Fail();
    }

    internal void Expect(string what, PartKind kind, bool isHint = false) => expected.Add(new(At, what, kind, isHint));

    internal SentenceException Fail(int? place = null) => new(place ?? Math.Min(expected.Count == 0 ? At : expected.Max(e => e.Place), text.Length));

    private string? TryQuoted()
    {
        if (IsAtEnd || text[at] is not ('“' or '"'))
        {
            return null;
        }

        var close = text[at] == '“' ? '”' : '"';
        var content = new StringBuilder();
        for (var i = at + 1; i < text.Length; i++)
        {
            if (text[i] != close)
            {
                content.Append(text[i]);
            }
            else if (i + 1 < text.Length && text[i + 1] == close)
            {
                content.Append(text[i++]);
            }
            else
            {
                at = i + 1;
                return content.ToString();
            }
        }

        at = text.Length;
        Expect(close.ToString(CultureInfo.InvariantCulture), PartKind.Keyword);
        throw Fail();
    }
}

/// <summary>The sentence cannot be read on from that place.</summary>
internal sealed class SentenceException(int place) : Exception
{
    internal int Place => place;
}
