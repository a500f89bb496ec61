using System.Collections.Immutable;
using Dibujo.Core.Forms;
using Dibujo.Core.Records;
using Dibujo.Core.Rules;
using Dibujo.Core.Sentences;

namespace Dibujo.Core.Analysis;

/// <summary>What another order of the same rules changes: where two of them disagree about an element on some record, the higher one wins.</summary>
/// <param name="Upper">Key of the rule that wins now.</param>
/// <param name="Lower">Key of the rule that won before.</param>
/// <param name="What">What they disagree about, as a sentence.</param>
public sealed record Reordering(string Upper, string Lower, string What)
{
    private const int MostTold = 5;

    /// <summary>The pairs of rules that changed places and disagree on some record, at most five.</summary>
    public static ImmutableArray<Reordering> Between(IReadOnlyList<Rule> before, IReadOnlyList<Rule> after, RecordType type)
    {
        var place = before.Index().ToDictionary(rule => rule.Item.Key, rule => rule.Index, StringComparer.Ordinal);
        var labels = new Labels(type);
        var bySaid = new Dictionary<(Facet, Element), List<Rule>>();
        var found = new List<Reordering>();
        var told = new HashSet<(string, string)>();
        foreach (var lower in after.Where(rule => rule.On && place.ContainsKey(rule.Key)))
        {
            var said = lower.AllCases().SelectMany(of => Claims.Of(of.Effects).Keys).Distinct().ToList();
            foreach (var about in said)
            {
                var above = bySaid.TryGetValue(about, out var list) ? list : bySaid[about] = [];
                foreach (var upper in above.Where(rule => place[rule.Key] > place[lower.Key] && !told.Contains((rule.Key, lower.Key))))
                {
                    if (found.Count < MostTold && new SharedRecord(upper, lower, type).Find(upper, lower, (a, b) => Disagree(a, b, about)) is { } example)
                    {
                        told.Add((upper.Key, lower.Key));
                        found.Add(new(upper.Key, lower.Key, Sentence(upper, lower, about, labels, example)));
                    }
                }

                above.Add(lower);
            }
        }

        return [.. found];
    }

    private static bool Disagree(Case one, Case other, (Facet Facet, Element Element) about) =>
        Claims.Of(one.Effects).TryGetValue(about, out var a) && Claims.Of(other.Effects).TryGetValue(about, out var b) && !a.Equals(b);

    private static string Sentence(Rule upper, Rule lower, (Facet Facet, Element Element) about, Labels labels, string example) =>
        $"“{upper.Name}” now wins over “{lower.Name}” on {About(about.Facet)} {labels.Of(about.Element)}{(example.Length > 0 ? $", as for {example}" : "")}.";

    private static string About(Facet facet) => facet switch
    {
        Facet.Visibility => "showing",
        Facet.Access => "locking",
        Facet.Requirement => "requiring",
        Facet.Value => "the value of",
        _ => "the choices of",
    };
}
