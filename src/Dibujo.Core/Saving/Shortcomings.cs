using Dibujo.Core.Evaluation;
using Dibujo.Core.Forms;

namespace Dibujo.Core.Saving;

/// <summary>What speaks against a save on one form before anything is changed: a save need not mend it, but may not add to it.</summary>
/// <param name="Missing">Keys of the fields that are needed to save and missing.</param>
/// <param name="NotOffered">Keys of the fields that hold what a rule does not offer.</param>
/// <param name="Stops">What stops it, each by its rule, the case in force and the element: its text may have other values in it later.</param>
internal sealed record Shortcomings(HashSet<string?> Missing, HashSet<string?> NotOffered, HashSet<(int Rule, int Case, Element? At)> Stops)
{
    internal static Shortcomings Of(Session session)
    {
        var end = new EndCheck(session, null, isAtHand: false);
        return new(
            session.Missing().Where(missing => missing.IsNeededFor(null)).Select(missing => (string?)missing.Field).ToHashSet(StringComparer.Ordinal),
            end.NotOffered().Select(refusal => refusal.Field).ToHashSet(StringComparer.Ordinal),
            end.Stops().Select(stop => Said(session, stop.Message)).ToHashSet());
    }

    internal static (int Rule, int Case, Element? At) Said(Session session, SaidMessage message) => (message.Rule, session.CaseInForce(message.Rule), message.At);
}
