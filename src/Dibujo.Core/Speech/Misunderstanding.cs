using System.Collections.Immutable;

namespace Dibujo.Core.Speech;

/// <summary>Why nothing can be made of what was said.</summary>
/// <param name="Place">Characters from the start up to which it could be understood.</param>
/// <param name="Message">What was expected there, as sentences.</param>
/// <param name="Nearest">What the word at that place could have been meant to be; each takes the place of it.</param>
public sealed record Misunderstanding(int Place, string Message, ImmutableArray<Wordage> Nearest)
{
    private const int MostNamed = 6;

    /// <summary>Whether it says more than that something is not understood: how to go on, or why that cannot be asked.</summary>
    internal bool IsTelling { get; init; }

    private static readonly string[] States = ["hidden", "shown", "visible", "locked", "required", "mandatory", "optional", "read"];

    internal static Misunderstanding Of(Listener listener, Lexicon lexicon)
    {
        var at = listener.Furthest;
        var place = listener.StartOf(at);
        var here = listener.ExpectedFrom(at).ToList();
        var hints = here.Where(one => one.IsHint).Select(one => one.What).Distinct(StringComparer.Ordinal).ToList();
        var words = here.Where(one => !one.IsHint).Select(one => one.What).Distinct(StringComparer.Ordinal).ToList();
        if (at >= listener.Words.Length)
        {
            return new(place, $"Go on with {Named(hints.Count > 0 ? hints : words)}.", []) { IsTelling = true };
        }

        var said = listener.Words[at];
        if (States.Contains(said.Text, StringComparer.Ordinal))
        {
            return new(place, $"A rule cannot look at whether something is {said.Text}: it looks at values, the stage and the person. Say what makes it so instead.", []) { IsTelling = true };
        }

        var nearest = words.Select(word => (Word: word, Distance: Distance(said.Text, word.ToLowerInvariant()))).Where(one => one.Distance <= 2)
            .OrderBy(one => one.Distance).Take(3).Select(one => new Wordage(one.Word, one.Word)).ToImmutableArray();
        var unknown = lexicon.Names.Type.Label;
        return new(place, hints.Count > 0 || words.Count > 0
            ? $"“{listener.Said[said.Start..said.End]}” is not understood here. Expected: {Named(hints.Count > 0 ? hints : words)}."
            : $"“{listener.Said[said.Start..said.End]}” is not understood; it names nothing in {unknown}.", nearest);
    }

    private static string Named(List<string> what) =>
        what.Count == 0 ? "what the rule does" : string.Join(", ", what.Take(MostNamed)) + (what.Count > MostNamed ? " …" : "");

    /// <summary>How many letters have to be changed (Levenshtein 1966).</summary>
    private static int Distance(string one, string other)
    {
        if (Math.Abs(one.Length - other.Length) > 2)
        {
            return int.MaxValue;
        }

        var row = Enumerable.Range(0, other.Length + 1).ToArray();
        for (var i = 1; i <= one.Length; i++)
        {
            var diagonal = row[0];
            row[0] = i;
            for (var j = 1; j <= other.Length; j++)
            {
                (diagonal, row[j]) = (row[j], Math.Min(Math.Min(row[j], row[j - 1]) + 1, diagonal + (one[i - 1] == other[j - 1] ? 0 : 1)));
            }
        }

        return row[^1];
    }
}
