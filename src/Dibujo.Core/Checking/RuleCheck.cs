using Dibujo.Core.Conditions;
using Dibujo.Core.Rules;
using Dibujo.Core.Sentences;
using Dibujo.Core.Values;

namespace Dibujo.Core.Checking;

/// <summary>Whether the rules of a sound record type say something that can be carried out.</summary>
internal sealed class RuleCheck
{
    private readonly Definition definition;
    private readonly ProblemList problems;
    private readonly ConditionCheck conditions;
    private readonly EffectCheck effects;
    private readonly TableCheck tables;
    private readonly SkipCheck skips;

    internal RuleCheck(Definition definition, ProblemList problems)
    {
        this.definition = definition;
        this.problems = problems;
        var subjects = new SubjectTypes(definition.RecordType);
        conditions = new(subjects, new Labels(definition.RecordType), problems);
        effects = new(definition.RecordType, subjects, problems);
        skips = new(definition.RecordType, problems);
        tables = new(definition.RecordType, subjects, conditions, effects, problems);
    }

    internal void Run()
    {
        problems.CheckKeys("/rules", "rule", definition.Rules.Select(r => r.Key));
        foreach (var (i, rule) in definition.Rules.Index())
        {
            CheckRule($"/rules/{i}", rule);
        }
    }

    private void CheckRule(string place, Rule rule)
    {
        if (BlankText.IsBlank(rule.Name))
        {
            problems.Add($"{place}/name", "The rule has no name.", "Give it one that says what it is for.");
        }

        CheckScope($"{place}/where", rule.Where);
        if (rule.Table is { } table)
        {
            if (!rule.Cases.IsEmpty)
            {
                problems.Add($"{place}/cases", "The rule has cases and a table.", "Keep one of the two.");
            }

            tables.Check($"{place}/table", table);
            return;
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

            effects.Check($"{here}/effects", @case.Effects);
            skips.Check($"{here}/effects", @case);
        }
    }

    private void CheckScope(string place, Scope? where)
    {
        foreach (var (i, form) in (where?.Forms ?? []).Index())
        {
            if (!definition.RecordType.Forms.Any(f => f.Key == form))
            {
                problems.Add($"{place}/forms/{i}", $"There is no form “{Excerpt.Of(form)}”.", "Name a form of this record type.");
            }
        }
    }
}
