using System.Collections.Immutable;
using System.Globalization;
using Dibujo.Core.Conditions;
using Dibujo.Core.Forms;
using Dibujo.Core.Records;
using Dibujo.Core.Rules;
using Dibujo.Core.Values;

namespace Dibujo.Core.Speech;

/// <summary>Hears what is to be added to a rule that is there: "add Glazing to rule 5", "rule 5 also for metal", "also lock the valuer in rule 5".</summary>
internal sealed class AdditionListener(Listener listener, Lexicon lexicon, ImmutableArray<Rule> rules)
{
    /// <summary>How many rules are asked about at once.</summary>
    private const int MostAsked = 6;

    private static readonly string[] Likewise =
        ["like", "same as", "same way as", "in same way as", "just like", "exactly like", "behaves like", "behave like", "should behave like", "must behave like", "works like", "should work like", "is treated like", "should be treated like", "is like", "should be like", "goes with", "works same as", "works same way as", "behaves same as", "should be same as"];

    private readonly NameListener names = new(listener, lexicon);

    /// <summary>The rule with an effect on elements acting on these as well, or with more choices in its condition; null where nothing can be made of the words.</summary>
    internal Rule? Rule() => listener.First(RuleLast, RuleFirst, LikeAnother);

    private Rule? RuleLast()
    {
        listener.TookAny("please", "also");
        var isAdded = listener.TookAny("add");
        if (More() is not { } more)
        {
            return null;
        }

        listener.TookAny("too", "as well");
        listener.TookAny(",");
        return listener.TookAny("to", "in", "for") && (isAdded || listener.IsAhead("rule")) && Meant() is { IsEmpty: false } meant && listener.IsAtEnd ? With(meant, more) : null;
    }

    private Rule? RuleFirst()
    {
        listener.TookAny("please");
        listener.TookAny("in", "for");
        if (!listener.IsAhead("rule") || Meant() is not { IsEmpty: false } meant)
        {
            return null;
        }

        listener.TookAny(",", ":");
        if (!listener.TookAny("also", "too", "is also", "should also", "applies also", "also applies", "and also"))
        {
            return null;
        }

        listener.TookAny("for", "to", "with", "add");
        return More() is { } more && listener.IsAtEnd ? With(meant, more) : null;
    }

    /// <summary>"Treat Glazing like Light limit": what a rule does to the one it does to the other as well. Where several rules do something to it, it is asked in which.</summary>
    private Rule? LikeAnother()
    {
        listener.TookAny("please");
        listener.TookAny("treat", "handle");
        var from = listener.At;
        if (names.Targets() is not { } added || !listener.TookAny(Likewise) || names.Targets() is not [var like])
        {
            return null;
        }

        listener.TookAny(",", "does", "is");
        var doing = rules.Where(rule => ActsOn(rule, like)).ToList();
        if (listener.TookAny("in", "as in") && Meant() is [var only] && IsOver())
        {
            return doing.Contains(only) ? Beside(only, like, added) : null;
        }

        if (!IsOver() || doing.Count == 0)
        {
            return null;
        }

        if (doing.Count > 1)
        {
            var said = listener.Said[listener.Words[from].Start..].TrimEnd(' ', '.', ',', '!');
            listener.Ask(from, doing.Take(MostAsked).Select(rule => new Wordage($"in rule {rules.IndexOf(rule) + 1}, {rule.Name}", $"{said} in rule {rules.IndexOf(rule) + 1}")));
        }

        return Beside(doing[0], like, added);
    }

    private bool IsOver()
    {
        listener.TookAny(".", "!");
        return listener.IsAtEnd;
    }

    private static bool ActsOn(Rule rule, Element element) =>
        rule.Cases.Any(of => of.Effects.Any(effect => effect is StateEffect state && state.Targets.Contains(element))) || rule.Table?.Outputs.Any(output => output is StateOutput states && states.Targets.Contains(element)) == true;

    /// <summary>The rule, doing to those as well what it does to that one.</summary>
    private static Rule Beside(Rule rule, Element like, ImmutableArray<Element> added) => rule with
    {
        Cases = [.. rule.Cases.Select(of => of with { Effects = [.. of.Effects.Select(effect => effect is StateEffect state && state.Targets.Contains(like) ? state with { Targets = [.. state.Targets.Union(added)] } : effect)] })],
        Table = rule.Table is { } table
            ? table with { Outputs = [.. table.Outputs.Select(output => output is StateOutput states && states.Targets.Contains(like) ? states with { Targets = [.. states.Targets.Union(added)] } : output)] }
            : null,
    };

    /// <summary>What is to be added: elements, with the kind of effect if that was said, or choices.</summary>
    private Addition? More()
    {
        var effect = Deed.Taken(listener)?.On([]) is [var done] ? done.GetType() : null;
        return listener.First(
            () => effect is null && names.List(() => names.Name(lexicon.Values, "a choice", Closeness.OtherForm)) is { } choices && choices.Select(choice => choice.Thing.Field).Distinct().Count() == 1
                ? new Addition(null, [], choices[0].Thing.Field, [.. choices.Select(choice => choice.Thing.Option)])
                : null,
            () => names.Targets() is { } targets ? new Addition(effect, targets, null, []) : null);
    }

    private sealed record Addition(Type? Effect, ImmutableArray<Element> Targets, Field? Field, ImmutableArray<string> Choices);

    /// <summary>The rules that are called so: one by its number; several where only words of their names were said, and then it is asked which.</summary>
    private ImmutableArray<Rule> Meant()
    {
        var isNumbered = listener.TookAny("rule", "rule no", "rule number");
        listener.Expect("the number of a rule, or its name", isHint: true);
        var from = listener.At;
        if (isNumbered && listener.Next is { Kind: WordKind.Number, Text: var digits } && int.TryParse(digits, NumberStyles.None, CultureInfo.InvariantCulture, out var number))
        {
            listener.At++;
            return [.. rules.Skip(number - 1).Take(1)];
        }

        var meant = Named();
        if (meant.IsEmpty)
        {
            return [];
        }

        listener.At = listener.Words.Length;
        if (meant.Length > 1)
        {
            listener.Ask(from, meant.Take(6).Select(rule => new Wordage(rule.Name, string.Create(CultureInfo.InvariantCulture, $"{(isNumbered ? "" : "rule ")}{rules.IndexOf(rule) + 1}"))));
        }

        return meant;
    }

    /// <summary>Those in whose names all the words stand that come next.</summary>
    private ImmutableArray<Rule> Named()
    {
        var words = listener.Words[listener.At..].Select(word => word.Text).ToList();
        return words.Count == 0 ? [] : [.. rules.Where(rule => rule.Cases.Any(of => of.Effects.Any(effect => effect is StateEffect)) && words.TrueForAll(Words.Of(rule.Name).Select(word => word.Text).Contains))];
    }

    private static Rule? With(ImmutableArray<Rule> meant, Addition more) => more.Field is { } field ? Choosing(meant[0], field, more.Choices) : Acting(meant[0], more);

    private static Rule? Acting(Rule rule, Addition more)
    {
        foreach (var (at, of) in rule.Cases.Index())
        {
            if (of.Effects.OfType<StateEffect>().FirstOrDefault(effect => more.Effect is null || effect.GetType() == more.Effect) is { } effect)
            {
                return rule with { Cases = rule.Cases.SetItem(at, of with { Effects = of.Effects.Replace(effect, effect with { Targets = [.. effect.Targets.Union(more.Targets)] }) }) };
            }
        }

        return null;
    }

    /// <summary>The rule, holding for those choices as well, where its condition names others of that field.</summary>
    private static Rule? Choosing(Rule rule, Field field, ImmutableArray<string> choices)
    {
        foreach (var (at, of) in rule.Cases.Index())
        {
            if (of.While is { } condition && With(condition, field, choices) is { } wider)
            {
                return rule with { Cases = rule.Cases.SetItem(at, of with { While = wider }) };
            }
        }

        return null;
    }

    private static Condition? With(Condition condition, Field field, ImmutableArray<string> choices)
    {
        if (condition is Group group)
        {
            foreach (var (at, member) in group.Members.Index())
            {
                if (group.Quantifier != Quantifier.NoneOf && With(member, field, choices) is { } wider)
                {
                    return group with { Members = group.Members.SetItem(at, wider) };
                }
            }

            return null;
        }

        return condition is Clause { Subject: FieldSubject { Part: null, Saved: false, Field: var key }, Test: Test.Is or Test.OneOf or Test.IncludesAny } clause && key == field.Key
            ? clause with { Test = clause.Test == Test.IncludesAny ? Test.IncludesAny : Test.OneOf, Comparands = [.. clause.Comparands.Union(choices.Select(choice => new Literal(new Text(choice))))] }
            : null;
    }
}
