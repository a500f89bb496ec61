using Dibujo.Core.Conditions;

namespace Dibujo.Core.Compilation;

/// <summary>The distinct groups of all conditions, innermost first. However many rules share a group, it is here once.</summary>
/// <remarks>
/// Clauses and groups share one line of numbers, clauses first, so that a member of a group or the condition of a case is
/// one number; the complement of a number stands for the negation. While groups are gathered, they are numbered from
/// <see cref="Offset"/> on, since it is not known yet how many clauses there will be.
/// </remarks>
internal sealed class GroupTable(ClauseTable clauses)
{
    private const int Offset = 1 << 30;

    private readonly Dictionary<string, int> known = new(StringComparer.Ordinal);
    private readonly List<GroupCode> codes = [];
    private readonly List<int> members = [];
    private int[] around = [];
    private int[] aroundStarts = [];

    internal GroupCode[] Codes { get; private set; } = [];

    internal int[] Members { get; private set; } = [];

    /// <summary>How many clauses and groups there are.</summary>
    internal int Count => First + codes.Count;

    /// <summary>The number of the first group.</summary>
    internal int First => clauses.Codes.Length;

    /// <summary>The condition's number; of nothing, that of a group that always holds.</summary>
    /// <param name="condition">One without problems.</param>
    /// <param name="ownField">The field whose saved value the clauses look at in place of its live one; -1 for none.</param>
    /// <param name="used">Takes in the clauses that are used.</param>
    internal int Add(Condition? condition, int ownField, HashSet<int> used)
    {
        if (condition is Clause clause)
        {
            var (number, negated) = clauses.Add(clause, ownField);
            used.Add(number);
            return negated ? ~number : number;
        }

        var (quantifier, inner) = condition is Group group ? (group.Quantifier, group.Members) : (Quantifier.AllOf, []);
        int[] numbers = [.. inner.Select(member => Add(member, ownField, used))];
        var key = $"{quantifier}:{string.Join(',', numbers)}";
        if (!known.TryGetValue(key, out var found))
        {
            found = Offset + codes.Count;
            known.Add(key, found);
            codes.Add(GroupCode.Of(quantifier, members.Count, numbers.Length));
            members.AddRange(numbers);
        }

        return found;
    }

    /// <summary>The groups, counted from 0, of which the clause or group is a member; the complement where it is so negated.</summary>
    internal ReadOnlySpan<int> Around(int condition) =>
        around.AsSpan(aroundStarts[condition], aroundStarts[condition + 1] - aroundStarts[condition]);

    /// <summary>The clauses that a condition consists of.</summary>
    internal IEnumerable<int> ClausesUnder(int condition)
    {
        var number = condition < 0 ? ~condition : condition;
        return number < First
            ? [number]
            : Members.Skip(Codes[number - First].MemberStart).Take(Codes[number - First].MemberCount).SelectMany(ClausesUnder);
    }

    /// <summary>The number now of what was gathered under another.</summary>
    internal int Now(int number) => number < 0 ? ~Now(~number) : number >= Offset ? First + number - Offset : clauses.Numbers[number];

    /// <summary>To be called after the clauses have got their numbers; none can be added after.</summary>
    internal void Freeze()
    {
        Codes = [.. codes];
        Members = [.. members.Select(Now)];
        var memberships = Codes.Index()
            .SelectMany(group => Members.Skip(group.Item.MemberStart).Take(group.Item.MemberCount)
                .Select(member => member < 0 ? (Member: ~member, Group: ~group.Index) : (Member: member, Group: group.Index)))
            .ToLookup(m => m.Member, m => m.Group);
        around = [.. Enumerable.Range(0, Count).SelectMany(condition => memberships[condition])];
        aroundStarts = new int[Count + 1];
        for (var condition = 0; condition < Count; condition++)
        {
            aroundStarts[condition + 1] = aroundStarts[condition] + memberships[condition].Count();
        }
    }
}
