using System.Collections.Immutable;
using Dibujo.Core.Conditions;
using Dibujo.Core.Records;
using Dibujo.Core.Rules;
using Dibujo.Core.Sentences;
using Dibujo.Core.Values;

namespace Dibujo.Core.Checking;

/// <summary>Whether single rules of a sound record type say something that can be carried out.</summary>
internal sealed class RuleCheck
{
    private readonly RecordType type;
    private readonly ProblemList problems = new();
    private readonly ConditionCheck conditions;
    private readonly EffectCheck effects;
    private readonly TableCheck tables;
    private readonly SkipCheck skips;

    /// <param name="type">The rules' record type, which has no problem.</param>
    /// <param name="accounts">Who can sign in; null where nobody here knows.</param>
    internal RuleCheck(RecordType type, IReadOnlySet<string>? accounts)
    {
        this.type = type;
        var subjects = new SubjectTypes(type);
        var comparands = new ComparandCheck(subjects, accounts, problems);
        conditions = new(comparands, new Labels(type), problems);
        effects = new(type, subjects, comparands, problems);
        skips = new(type, problems);
        tables = new(type, comparands, conditions, effects, problems);
    }

    /// <summary>The problem of a rule whose key another one has as well.</summary>
    internal static Problem Twice(Rule rule) => new("/key", $"Two rules have the key “{rule.Key}”.", "Give one of them another key.");

    /// <summary>What is wrong with how the rule is called, with places within it.</summary>
    internal static ImmutableArray<Problem> OfNames(Rule rule)
    {
        var found = new ProblemList();
        if (!ProblemList.IsKey(rule.Key))
        {
            found.AddKey("", "rule", rule.Key);
        }

        if (BlankText.IsBlank(rule.Name))
        {
            found.Add("/name", "The rule has no name.", "Give it one that says what it is for.");
        }

        return found.ToImmutable();
    }

    /// <summary>What is wrong with what the rule says, with places within it.</summary>
    internal ImmutableArray<Problem> Of(Rule rule)
    {
        Check("", rule);
        return problems.Take();
    }

    private void Check(string place, Rule rule)
    {
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
            if (!type.Forms.Any(f => f.Key == form))
            {
                problems.Add($"{place}/forms/{i}", $"There is no form “{Excerpt.Of(form)}”.", "Name a form of this record type.");
            }
        }
    }
}
