using Dibujo.Core.Forms;
using Dibujo.Core.Rules;

namespace Dibujo.Core.Checking;

/// <summary>Whether the rules of a sound record type say something that can be carried out.</summary>
internal sealed class RuleCheck(Definition definition, ProblemList problems)
{
    private readonly ConditionCheck conditions = new(definition.RecordType, problems);
    private readonly HashSet<Element> elements = [.. ElementsOf(definition)];

    internal void Run()
    {
        problems.CheckKeys("/rules", "rule", definition.Rules.Select(r => r.Key));
        foreach (var (i, rule) in definition.Rules.Index())
        {
            CheckRule($"/rules/{i}", rule);
        }
    }

    private static IEnumerable<Element> ElementsOf(Definition definition) =>
        definition.RecordType.Fields.Select(f => Element.Field(f.Key)).Concat(
            definition.RecordType.Forms.SelectMany(form => form.Tabs).SelectMany(tab =>
                tab.Sections.Select(s => Element.Section(s.Key)).Prepend(Element.Tab(tab.Key))));

    private void CheckRule(string place, Rule rule)
    {
        if (string.IsNullOrWhiteSpace(rule.Name))
        {
            problems.Add($"{place}/name", "The rule has no name.", "Give it one that says what it is for.");
        }

        if (rule.Cases.IsEmpty)
        {
            problems.Add($"{place}/cases", "The rule has no case, so it does nothing.", "Add a condition and an effect.");
        }

        foreach (var (i, @case) in rule.Cases.Index())
        {
            var here = $"{place}/cases/{i}";
            if (@case.While is not null)
            {
                conditions.Check($"{here}/while", @case.While);
            }
            else if (i < rule.Cases.Length - 1)
            {
                problems.Add($"{here}/while", "“Otherwise” stands before another case, which is then never reached.",
                    "Move it to the end, or give it a condition.");
            }

            CheckEffects($"{here}/effects", @case);
        }
    }

    private void CheckEffects(string place, Case @case)
    {
        if (@case.Effects.IsEmpty)
        {
            problems.Add(place, "Nothing happens in this case.", "Say what to show, hide, require or lock.");
        }

        var said = new HashSet<(Facet, Element)>();
        foreach (var (i, effect) in @case.Effects.Index())
        {
            if (effect is Require { Level: Requirement.Optional })
            {
                problems.Add($"{place}/{i}/level", "To require at the level “optional” asks for nothing.",
                    "Choose “to save” or “to move on”, or make the element optional.");
            }

            if (effect.Targets.IsEmpty)
            {
                problems.Add($"{place}/{i}/targets", "The effect names no field, section or tab.", "Choose at least one.");
            }

            foreach (var (t, target) in effect.Targets.Index())
            {
                if (!elements.Contains(target))
                {
                    problems.Add($"{place}/{i}/targets/{t}",
                        target.Key is { Length: > 0 }
                            ? $"There is no {target.Kind.ToString().ToLowerInvariant()} “{ProblemList.Shorten(target.Key)}”."
                            : "The effect does not say on what.",
                        "Choose a field, section or tab of this record type.");
                }
                else if (!said.Add((Facets.Of(effect), target)))
                {
                    problems.Add($"{place}/{i}/targets/{t}",
                        $"This case says two things about {Facets.Of(effect).ToString().ToLowerInvariant()} of the same {target.Kind.ToString().ToLowerInvariant()}.",
                        "Keep one of the two.");
                }
            }
        }
    }
}
