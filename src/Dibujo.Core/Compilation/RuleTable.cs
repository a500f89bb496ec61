using System.Collections.Immutable;
using Dibujo.Core.Conditions;
using Dibujo.Core.Rules;

namespace Dibujo.Core.Compilation;

/// <summary>The rules of a program in flat form, with the index from clauses to the rules that read them.</summary>
internal sealed class RuleTable(ClauseTable clauses, SlotTable slots)
{
    private readonly List<RuleCode> rules = [];
    private readonly List<CaseCode> cases = [];
    private readonly List<NodeCode> nodes = [];
    private readonly Dictionary<(int Rule, int OwnField), int> readings = [];
    private readonly List<HashSet<int>> clausesOf = [];
    private readonly List<HashSet<int>?> fieldsOf = [];

    internal RuleCode[] Rules { get; private set; } = [];

    internal CaseCode[] Cases { get; private set; } = [];

    internal NodeCode[] Nodes { get; private set; } = [];

    /// <summary>The readings that have each clause in a condition.</summary>
    internal int[][] OfClause { get; private set; } = [];

    internal int Count => rules.Count;

    /// <summary>The number of the rule's reading for the form at large, compiled at the first call.</summary>
    internal int Add(int rank, ImmutableArray<Case> cases) => Reading(rank, cases, -1);

    /// <summary>The reading that decides over the field's own value: one of its own if the rule looks at the field.</summary>
    internal int AddFor(int field, int rank, ImmutableArray<Case> cases) =>
        Reading(rank, cases, Mentions(readings[(rank, -1)], field) ? field : -1);

    /// <summary>Whether some condition in the reading looks at the field's live value.</summary>
    internal bool Mentions(int reading, int field) => FieldsOf(reading).Contains(field);

    /// <summary>The fields at whose live values the reading looks.</summary>
    internal HashSet<int> FieldsOf(int reading) => fieldsOf[reading] ??= [.. clausesOf[reading].SelectMany(clauses.SlotsOf).Distinct().SelectMany(slots.FieldsOf)];

    /// <summary>The rule's place in the list, of which this is a reading.</summary>
    internal int RankOf(int reading) => rules[reading].Rule;

    internal void Freeze()
    {
        Rules = [.. rules];
        Cases = [.. cases];
        Nodes = [.. nodes];
        var readers = new List<int>[clauses.Codes.Length];
        for (var i = 0; i < readers.Length; i++)
        {
            readers[i] = [];
        }

        for (var i = 0; i < clausesOf.Count; i++)
        {
            foreach (var clause in clausesOf[i])
            {
                readers[clause].Add(i);
            }
        }

        OfClause = [.. readers.Select(r => r.ToArray())];
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
            var from = nodes.Count;
            if (@case.While is not null)
            {
                Write(@case.While, ownField, used);
            }

            cases.Add(new(from, nodes.Count));
        }

        rules.Add(new(rank, ownField, start, ruleCases.Length));
        clausesOf.Add(used);
        fieldsOf.Add(null);
        readings.Add((rank, ownField), rules.Count - 1);
        return rules.Count - 1;
    }

    private void Write(Condition condition, int ownField, HashSet<int> used)
    {
        if (condition is Clause clause)
        {
            var (code, negated) = clauses.Add(clause, ownField);
            used.Add(code);
            nodes.Add(new(NodeKind.Clause, negated, code, nodes.Count + 1));
            return;
        }

        var group = (Group)condition;
        var at = nodes.Count;
        nodes.Add(default);
        foreach (var member in group.Members)
        {
            Write(member, ownField, used);
        }

        var kind = group.Quantifier switch
        {
            Quantifier.AllOf => NodeKind.AllOf,
            Quantifier.AnyOf => NodeKind.AnyOf,
            _ => NodeKind.NoneOf,
        };
        nodes[at] = new(kind, false, -1, nodes.Count);
    }
}
