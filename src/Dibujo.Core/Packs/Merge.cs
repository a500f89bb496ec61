using System.Collections.Immutable;
using Dibujo.Core.Rules;

namespace Dibujo.Core.Packs;

/// <summary>Puts single rules into a definition, where a pack would take the place of all of it.</summary>
public static class Merge
{
    /// <summary>A rule with the key of one that is there takes its place in the list; any other comes last.</summary>
    public static Definition Rules(Definition definition, ImmutableArray<Rule> incoming)
    {
        var byKey = incoming.DistinctBy(r => r.Key).ToDictionary(r => r.Key, StringComparer.Ordinal);
        return definition with
        {
            Rules =
            [
                .. definition.Rules.Select(rule => byKey.GetValueOrDefault(rule.Key, rule)),
                .. incoming.Where(rule => !definition.Rules.Any(known => known.Key == rule.Key)),
            ],
        };
    }
}
