using Dibujo.Core.Notations;
using Dibujo.Core.Packs;
using Dibujo.Core.Speech;

namespace Dibujo.Core.Tests.Speech;

using Comparison = Dibujo.Core.Speech.Comparison;
using Node = Dibujo.Core.Speech.Node;

public sealed class NeighboursTests
{
    /// <summary>How many nodes of a kind are tried with all others.</summary>
    private const int MostOfAKind = 12;

    [Fact]
    public void What_is_never_asked_of_the_grammars_would_make_nothing()
    {
        var type = PackFile.Read(File.ReadAllBytes(Checkout.Path("src", "Dibujo.Server", "Demo", "object-loan.pack.json"))).Pack!.RecordType;
        var comparison = new Comparison(Lexicon.Of(type).Names.Subjects);
        var (conditions, effects, links, rules) = (new ConditionGrammar(type, comparison), new EffectGrammar(type, comparison), new LinkGrammar(type, comparison), new RuleGrammar(Lexicon.Of(type), comparison));
        IEnumerable<Node> Made(Node left, Node right) => conditions.Of(left, right).Concat(effects.Of(left, right)).Concat(links.Of(left, right)).Concat(rules.Of(left, right));
        var seen = new Dictionary<Type, List<Node>>();
        foreach (var said in File.ReadLines(Checkout.Path("tests", "Dibujo.Core.Tests", "Speech", "said.tsv")).Select(line => line.Split('\t')).Where(parts => parts[1] == "object-loan").Select(parts => parts[2]))
        {
            var words = Words.Of(said, Notation.Plain);
            _ = new Chart(new Seeds(said, words, MentionIndex.Of(type), Notation.Plain, NoNames.Instance).All(), [.. words.Select(_ => 0.5)], Keep, node => conditions.ByItself(node).Concat(EffectGrammar.ByItself(node)).Concat(links.ByItself(node)));
        }

        var all = seen.Values.SelectMany(nodes => nodes).ToList();
        Assert.True(seen.Count > 20, "Most kinds are seen.");
        Assert.Empty(
            from left in all
            from right in all
            where (Neighbours.AfterOf(left) & Neighbours.KindOf(right)) == 0 && Made(left, right).Any()
            select $"{left.GetType().Name} {right.GetType().Name}");

        IEnumerable<Node> Keep(Node left, Node right)
        {
            foreach (var node in (Node[])[left, right])
            {
                var nodes = seen.TryGetValue(node.GetType(), out var others) ? others : seen[node.GetType()] = [];
                if (nodes.Count < MostOfAKind && !nodes.Contains(node))
                {
                    nodes.Add(node);
                }
            }

            return Made(left, right);
        }
    }
}
