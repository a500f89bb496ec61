using System.Collections.Immutable;
using Dibujo.Core.Conditions;
using Dibujo.Core.Rules;
using Dibujo.Core.Values;

namespace Dibujo.Core.Compilation;

/// <summary>The rules of a program in flat form, with the index from conditions to the rules that read them.</summary>
/// <remarks>
/// A <em>variant</em> is a rule as it decides over something: for the record at large, for one field's own value (which it
/// then sees as it was saved), or at one form alone (as jumping ahead does).
/// </remarks>
internal sealed class RuleTable(ClauseTable clauses, GroupTable groups, SlotTable slots)
{
    private readonly List<RuleCode> rules = [];
    private readonly List<int> cases = [];
    private readonly Dictionary<(int Rule, int OwnField, string? Form), int> variants = [];
    private readonly List<Variant> origins = [];
    private readonly List<HashSet<int>> fieldsOf = [];

    internal RuleCode[] Rules { get; private set; } = [];

    /// <summary>For each case, the number of its condition: see <see cref="GroupTable"/>.</summary>
    internal int[] Cases { get; private set; } = [];

    /// <summary>For each clause and group, the variants that have it for the condition of a case.</summary>
    internal int[][] OfCondition { get; private set; } = [];

    internal int Count => rules.Count;

    /// <summary>The number of the rule's variant for the record at large, compiled at the first call.</summary>
    /// <param name="rank">The rule's place in the list.</param>
    /// <param name="cases">Its cases.</param>
    /// <param name="limit">What must hold before any case is looked at; null for nothing.</param>
    internal int Add(int rank, ImmutableArray<Case> cases, Condition? limit) => Add(new(rank, cases, limit), -1, null);

    /// <summary>The variant that decides over the field's own value: one of its own if the rule looks at the field.</summary>
    internal int AddFor(int field, int variant) =>
        Mentions(variants[(RankOf(variant), -1, null)], field) ? Add(origins[variant], field, origins[variant].Form) : variant;

    /// <summary>The variant that holds at that form alone.</summary>
    internal int AddAt(string form, int variant) => Add(origins[variant], -1, form);

    /// <summary>What must hold before any case of the variant is looked at; null for nothing.</summary>
    internal Condition? LimitOf(int variant) => origins[variant].Limit;

    /// <summary>Whether some condition in the variant looks at the field's live value.</summary>
    internal bool Mentions(int variant, int field) => FieldsOf(variant).Contains(field);

    /// <summary>The fields at whose live values the variant looks.</summary>
    internal HashSet<int> FieldsOf(int variant) => fieldsOf[variant];

    /// <summary>The rule's place in the list, of which this is a variant.</summary>
    internal int RankOf(int variant) => rules[variant].Rule;

    /// <summary>The conditions of the variant's cases.</summary>
    internal IEnumerable<int> ConditionsOf(int variant) => Cases.Skip(Rules[variant].CaseStart).Take(Rules[variant].CaseCount);

    internal void Freeze()
    {
        Rules = [.. rules];
        Cases = [.. cases.Select(groups.Now)];
        var readers = new List<int>[groups.Count];
        for (var i = 0; i < readers.Length; i++)
        {
            readers[i] = [];
        }

        foreach (var (i, code) in Rules.Index())
        {
            foreach (var condition in Cases.AsSpan(code.CaseStart, code.CaseCount))
            {
                readers[condition < 0 ? ~condition : condition].Add(i);
            }
        }

        OfCondition = [.. readers.Select(r => r.ToArray())];
    }

    private int Add(Variant origin, int ownField, string? form)
    {
        if (variants.TryGetValue((origin.Rule, ownField, form), out var found))
        {
            return found;
        }

        if (form != origin.Form)
        {
            var atForm = new Clause(new FormSubject(), Test.Is) { Comparands = [new Literal(new Text(form!))] };
            origin = origin with { Form = form, Limit = origin.Limit is null ? atForm : new Group(Quantifier.AllOf, [origin.Limit, atForm]) };
        }

        var start = cases.Count;
        var used = new HashSet<int>();
        foreach (var @case in origin.Cases)
        {
            var condition = origin.Limit is null ? @case.While
                : @case.While is null ? origin.Limit
                : new Group(Quantifier.AllOf, [origin.Limit, @case.While]);
            cases.Add(groups.Add(condition, ownField, used));
        }

        rules.Add(new(origin.Rule, ownField, start, origin.Cases.Length));
        origins.Add(origin);
        fieldsOf.Add([.. used.SelectMany(clauses.SlotsOf).Distinct().SelectMany(slots.FieldsOf)]);
        variants.Add((origin.Rule, ownField, form), rules.Count - 1);
        return rules.Count - 1;
    }

    private sealed record Variant(int Rule, ImmutableArray<Case> Cases, Condition? Limit, string? Form = null);
}
