using System.Collections.Immutable;
using System.Globalization;
using Dibujo.Core.Forms;
using Dibujo.Core.Rules;

namespace Dibujo.Core.Speech;

/// <summary>Hears what is to be added to a rule that is there: "add Glazing to rule 5", "add Valuer to the second valuation".</summary>
internal sealed class AdditionListener(Listener listener, Lexicon lexicon, ImmutableArray<Rule> rules)
{
    /// <summary>The rule with its first effect on elements acting on these as well; null where nothing can be made of the words.</summary>
    internal Rule? Rule()
    {
        listener.TookAny("please", "also");
        if (!listener.TookAny("add") || new NameListener(listener, lexicon).Targets() is not { } targets || !listener.TookAny("to", "in"))
        {
            return null;
        }

        var isNumbered = listener.TookAny("rule", "rule no", "rule number");
        listener.Expect("the number of a rule, or its name", isHint: true);
        var from = listener.At;
        var meant = isNumbered && listener.Next is { Kind: WordKind.Number, Text: var digits } && int.TryParse(digits, NumberStyles.None, CultureInfo.InvariantCulture, out var number)
            ? [.. rules.Skip(number - 1).Take(1)]
            : Named();
        meant = [.. meant.Where(rule => rule.Cases.Any(of => of.Effects.Any(effect => effect is StateEffect)))];
        if (meant.Length == 0)
        {
            return null;
        }

        listener.At = listener.Words.Length;
        if (meant.Length > 1)
        {
            listener.Ask(from, meant.Take(6).Select(rule => new Wordage(rule.Name, string.Create(CultureInfo.InvariantCulture, $"{(isNumbered ? "" : "rule ")}{rules.IndexOf(rule) + 1}"))));
        }

        return With(meant[0], targets);
    }

    /// <summary>Those in whose names all the words stand that come next.</summary>
    private ImmutableArray<Rule> Named()
    {
        var words = listener.Words[listener.At..].Select(word => word.Text).ToList();
        return words.Count == 0 ? [] : [.. rules.Where(rule => words.TrueForAll(Words.Of(rule.Name).Select(word => word.Text).Contains))];
    }

    private static Rule With(Rule rule, ImmutableArray<Element> added)
    {
        var at = rule.Cases.Index().First(of => of.Item.Effects.Any(effect => effect is StateEffect)).Index;
        var effect = rule.Cases[at].Effects.OfType<StateEffect>().First();
        var more = effect with { Targets = [.. effect.Targets.Union(added)] };
        return rule with { Cases = rule.Cases.SetItem(at, rule.Cases[at] with { Effects = rule.Cases[at].Effects.Replace(effect, more) }) };
    }
}
