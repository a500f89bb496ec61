using System.Collections.Immutable;
using Dibujo.Core.Rules;

namespace Dibujo.Core.Compilation;

/// <summary>The rules of a program in flat form, with the index from conditions to the rules that read them.</summary>
internal sealed class RuleTable(ClauseTable clauses, GroupTable groups, SlotTable slots)
{
    private readonly List<RuleCode> rules = [];
    private readonly List<int> cases = [];
    private readonly Dictionary<(int Rule, int OwnField), int> readings = [];
    private readonly List<HashSet<int>> fieldsOf = [];

    internal RuleCode[] Rules { get; private set; } = [];

    /// <summary>For each case, the number of its condition: see <see cref="GroupTable"/>.</summary>
    internal int[] Cases { get; private set; } = [];

    /// <summary>For each clause and group, the readings that have it for the condition of a case.</summary>
    internal int[][] OfCondition { get; private set; } = [];

    internal int Count => rules.Count;

    /// <summary>The number of the rule's reading for the form at large, compiled at the first call.</summary>
    internal int Add(int rank, ImmutableArray<Case> cases) => Reading(rank, cases, -1);

    /// <summary>The reading that decides over the field's own value: one of its own if the rule looks at the field.</summary>
    internal int AddFor(int field, int rank, ImmutableArray<Case> cases) =>
        Reading(rank, cases, Mentions(readings[(rank, -1)], field) ? field : -1);

    /// <summary>Whether some condition in the reading looks at the field's live value.</summary>
    internal bool Mentions(int reading, int field) => FieldsOf(reading).Contains(field);

    /// <summary>The fields at whose live values the reading looks.</summary>
    internal HashSet<int> FieldsOf(int reading) => fieldsOf[reading];

    /// <summary>The rule's place in the list, of which this is a reading.</summary>
    internal int RankOf(int reading) => rules[reading].Rule;

    /// <summary>The conditions of the reading's cases.</summary>
    internal IEnumerable<int> ConditionsOf(int reading) => Cases.Skip(Rules[reading].CaseStart).Take(Rules[reading].CaseCount);

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

    private int Reading(int rank, ImmutableArray<Case> ruleCases, int ownField)
    {
        if (readings.TryGetValue((rank, ownField), out var found))
        {
            return found;
        }

        var start = cases.Count;
        var used = new HashSet<int>();
        foreach (var @case in ruleCases)
        {
            cases.Add(groups.Add(@case.While, ownField, used));
        }

        rules.Add(new(rank, ownField, start, ruleCases.Length));
        fieldsOf.Add([.. used.SelectMany(clauses.SlotsOf).Distinct().SelectMany(slots.FieldsOf)]);
        readings.Add((rank, ownField), rules.Count - 1);
        return rules.Count - 1;
    }
}
