using System.Collections.Immutable;
using System.Globalization;
using System.Text.RegularExpressions;
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
    };

    internal static ImmutableArray<Word> Of(string text)
    {
        var words = ImmutableArray.CreateBuilder<Word>();
        for (var match = Pattern().Match(text); match.Success; match = match.NextMatch())
        {
            Add(words, match);
        }

        return words.ToImmutable();
    }

    private static void Add(ImmutableArray<Word>.Builder words, Match match)
    {
        var (start, end) = (match.Index, match.Index + match.Length);
        if (match.Groups["quoted"] is { Success: true } quoted)
        {
            words.Add(new(quoted.Value, WordKind.Quoted, start, end) { Key = match.Groups["key"] is { Success: true } key ? key.Value : null });
        }
        else if (match.Groups["day"].Success && Day(match.Value) is { } day)
        {
            words.Add(new(day, WordKind.Day, start, end));
        }
        else if (match.Groups["number"] is { Success: true } number)
        {
            words.Add(new(Thousands(number.Value, match.Groups["times"].Value), WordKind.Number, start, end));
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
        : [word.TrimEnd('\'')];

    /// <summary>"50k" is 50,000.</summary>
    private static string Thousands(string number, string times) => times.ToUpperInvariant() switch
    {
        "K" when ExactDecimal.TryParseGrouped(number, out var amount) => (amount * 1000).ToString(CultureInfo.InvariantCulture),
        "M" when ExactDecimal.TryParseGrouped(number, out var amount) => (amount * 1_000_000).ToString(CultureInfo.InvariantCulture),
        _ => number,
    };

    private static string? Day(string text) => DateOnly.TryParseExact(
        text.Replace(",", "", StringComparison.Ordinal), ["yyyy-MM-dd", "d.M.yyyy", "d MMM yyyy", "d MMMM yyyy"],
        CultureInfo.InvariantCulture, DateTimeStyles.None, out var day)
        ? new Date(day).Plain
        : null;

    [GeneratedRegex(
        """
        “(?<quoted>[^”]*)”(\#(?<key>[\w-]+))?|"(?<quoted>[^"]*)"(\#(?<key>[\w-]+))?
        |(?<braced>\{[^}]*\})
        |(?<day>\d{4}-\d{2}-\d{2}|\d{1,2}\.\d{1,2}\.\d{4}|\d{1,2}\ [A-Za-z]{3,9},?\ \d{4})(?!\w)
        |(?<number>-?(\d{1,3}(,\d{3})+|\d+)(\.\d+)?)(?<times>[kKmM])?(?!\w)
        |(?<word>[\p{L}\p{N}_]+(['’][\p{L}]+)*['’]?)
        |>=|<=|<>|!=|\S
        """,
        RegexOptions.ExplicitCapture | RegexOptions.IgnorePatternWhitespace, 1000)]
    private static partial Regex Pattern();
}
