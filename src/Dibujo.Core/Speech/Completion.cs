using System.Collections.Immutable;
using Dibujo.Core.Sentences;

namespace Dibujo.Core.Speech;

/// <summary>What may come next where a rule is said as people say it.</summary>
internal static class Completion
{
    /// <summary>How many words of a name may be there already.</summary>
    private const int LongestName = 8;

    /// <param name="listener">That which heard it.</param>
    /// <param name="lexicon">What can be named.</param>
    internal static ImmutableArray<SentenceOffer> Of(Listener listener, Lexicon lexicon)
    {
        var said = listener.Said;
        // An article that stands last may be the beginning of something else.
        var rest = listener.EndOf(listener.Words.Length);
        var isBetween = said.Length == 0 || char.IsWhiteSpace(said[^1]);
        while (rest < said.Length && char.IsWhiteSpace(said[rest]))
        {
            rest++;
        }

        return
        [
            .. listener.ExpectedFrom(listener.Words.Length - LongestName).Select(one => (one.What, one.IsHint, Start: one.At < listener.Words.Length ? listener.StartOf(one.At) : rest))
                .Where(one => !lexicon.IsRetired(one.What))
                .Where(one => one.Start == said.Length ? isBetween
                    : !one.IsHint && one.What.Length > said.Length - one.Start && one.What.StartsWith(said[one.Start..], StringComparison.OrdinalIgnoreCase))
                .OrderByDescending(one => one.Start).ThenBy(one => one.IsHint).DistinctBy(one => one.What)
                .Select(one => new SentenceOffer(one.What, PartKind.Detail, one.Start, one.IsHint)),
        ];
    }
}
