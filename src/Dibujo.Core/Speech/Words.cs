using System.Collections.Immutable;
using System.Text.RegularExpressions;
using Dibujo.Core.Notations;
using Dibujo.Core.Values;

namespace Dibujo.Core.Speech;

/// <summary>Takes what somebody typed apart into words.</summary>
/// <remarks>
/// Articles are left out and contractions are written out, so that "the crate isn't needed" is the same as "crate is not
/// needed". Hyphens separate: "read-only" is two words. Names are taken apart in the same way.
/// </remarks>
internal static partial class Words
{
    private static readonly string[] Articles = ["the", "an", "a"];

    private static readonly Dictionary<string, string[]> Contractions = new(StringComparer.Ordinal)
    {
        ["cannot"] = ["can", "not"],
        ["can't"] = ["can", "not"],
        ["won't"] = ["will", "not"],
        ["shan't"] = ["shall", "not"],
        ["there's"] = ["there", "is"],
        ["it's"] = ["it", "is"],
        ["dont"] = ["do", "not"],
        ["doesnt"] = ["does", "not"],
        ["isnt"] = ["is", "not"],
        ["arent"] = ["are", "not"],
        ["cant"] = ["can", "not"],
        ["wont"] = ["will", "not"],
        ["shouldnt"] = ["should", "not"],
        ["mustnt"] = ["must", "not"],
        ["hasnt"] = ["has", "not"],
        ["wasnt"] = ["was", "not"],
    };

    private static readonly Dictionary<string, string> Shortened = new(StringComparer.Ordinal) { ["d"] = "would", ["ll"] = "will", ["re"] = "are", ["ve"] = "have", ["m"] = "am" };

    /// <param name="text">What was typed.</param>
    /// <param name="notation">How its writer writes days and numbers; null for a name, which nobody writes in several ways.</param>
    internal static ImmutableArray<Word> Of(string text, Notation? notation = null)
    {
        var words = ImmutableArray.CreateBuilder<Word>();
        for (var match = Pattern().Match(text); match.Success; match = Pattern().Match(text, match.Index + Taken(match, notation ?? Notation.Plain)))
        {
            Add(words, match, notation ?? Notation.Plain);
        }

        return words.ToImmutable();
    }

    /// <summary>How much of it is one word: what looks like a day and is none is something else, and where a comma is no point it may part numbers.</summary>
    private static int Taken(Match match, Notation notation) =>
        match.Groups["day"].Success && Days(match.Value, notation).Count == 0 ? Lead(match.Value)
        : match.Groups["number"] is { Success: true, Length: var length } number && IsList(number.Value, notation) ? Lead(number.Value)
        : match.Length;

    /// <summary>How long the first run of letters or of digits is.</summary>
    private static int Lead(string text)
    {
        var end = 1;
        while (end < text.Length && char.IsAsciiDigit(text[end]) == char.IsAsciiDigit(text[end - 1]) && char.IsLetterOrDigit(text[end]) || (end == 1 && text[0] == '-'))
        {
            end++;
        }

        return end;
    }

    private static bool IsList(string number, Notation notation) =>
        notation.Marks.Point != ',' && number.Contains(',', StringComparison.Ordinal) && AmountReader.Read(number, notation with { IsDecided = true }, 28).Count == 0 && !number.Contains('.', StringComparison.Ordinal);

    private static void Add(ImmutableArray<Word>.Builder words, Match match, Notation notation)
    {
        var (start, end) = (match.Index, match.Index + match.Length);
        if (match.Groups["quoted"] is { Success: true } quoted)
        {
            words.Add(new(quoted.Value, WordKind.Quoted, start, end) { Key = match.Groups["key"] is { Success: true } key ? key.Value : null });
        }
        else if (match.Groups["day"].Success)
        {
            if (Days(match.Value, notation) is [var day, .. var others])
            {
                words.Add(new(day, WordKind.Day, start, end) { Others = [.. others] });
            }
            else
            {
                var length = Lead(match.Value);
                words.Add(new(match.Value[..length].ToLowerInvariant(), char.IsAsciiDigit(match.Value[0]) ? WordKind.Number : WordKind.Plain, start, start + length));
            }
        }
        else if (match.Groups["number"] is { Success: true } number)
        {
            var length = Taken(match, notation);
            words.Add(length < match.Length ? new(number.Value[..length], WordKind.Number, start, start + length)
                : new(Thousands(number.Value, match.Groups["times"].Value, notation), WordKind.Number, start, end));
        }
        else if (match.Groups["word"].Success)
        {
            foreach (var word in Parts(match.Value.ToLowerInvariant().Replace('’', '\'')))
            {
                words.Add(new(word, WordKind.Plain, start, end));
            }
        }
        else if (match.Value is not ("-" or "–" or "/" or "'" or "’"))
        {
            words.Add(new(match.Value, match.Groups["braced"].Success ? WordKind.Braced : WordKind.Mark, start, end));
        }
    }

    private static string[] Parts(string word) =>
        Articles.Contains(word, StringComparer.Ordinal) ? []
        : Contractions.GetValueOrDefault(word) is { } known ? known
        : word.Length > 4 && word.EndsWith("n't", StringComparison.Ordinal) ? [word[..^3], "not"]
        : word.Length > 2 && word.EndsWith("'s", StringComparison.Ordinal) ? [word[..^2]]
        : word.Length > 3 && word.IndexOf('\'', StringComparison.Ordinal) is > 0 and var mark && Shortened.GetValueOrDefault(word[(mark + 1)..]) is { } whole ? [word[..mark], whole]
        : [word.TrimEnd('\'')];

    /// <summary>"50k" is 50,000.</summary>
    private static string Thousands(string number, string times, Notation notation) =>
        times.Length > 0 && AmountReader.Read(number, notation, 28) is [var read] ? notation.Amount(read.Amount * (times is "k" or "K" ? 1000 : 1_000_000)) : number;

    /// <summary>The days that it may be, as they are stored; that which its writer means first.</summary>
    private static List<string> Days(string text, Notation notation) => [.. DayReader.Read(text, notation, default).Select(day => new Date(day).Plain)];

    [GeneratedRegex(
        """
        “(?<quoted>[^”]*)”(\#(?<key>[\w-]+))?|"(?<quoted>[^"]*)"(\#(?<key>[\w-]+))?
        |(?<braced>\{[^}]*\})
        |(?<day>\d{1,4}(?<mark>[-/.])\d{1,2}\k<mark>\d{1,4}|\d{1,2}\.?\ \p{L}{3,12}\.?,?\ \d{4}|(?i:jan|feb|mar|apr|may|jun|jul|aug|sep|oct|nov|dec)\p{L}*\.?\ \d{1,2}(st|nd|rd|th)?,?\ \d{4})(?![\w])
        |(?<number>-?(\d{1,3}([.,'’\u00A0\u202F]\d{3})+|\d+)([.,]\d+)?)(?<times>[kKmM])?(?!\w)
        |(?<word>[\p{L}\p{N}_]+(['’][\p{L}]+)*['’]?)
        |>=|<=|<>|!=|\S
        """,
        RegexOptions.ExplicitCapture | RegexOptions.IgnorePatternWhitespace, 1000)]
    private static partial Regex Pattern();
}
