namespace Dibujo.Core.Programs;

/// <summary>The distinct groups of all conditions, innermost first. However many rules share a group, it is here once.</summary>
/// <remarks>
/// Clauses and groups share one line of numbers, clauses first, so that a member of a group or the condition of a case is
/// one number; the complement of a number stands for the negation.
/// </remarks>
internal sealed class GroupTable
{
    internal GroupTable(int first, GroupCode[] codes, int[] members)
    {
        (First, Codes, Members) = (first, codes, members);
        var around = new Adjacency.Pairs(Count);
        for (var group = 0; group < codes.Length; group++)
        {
            foreach (var member in members.AsSpan(codes[group].MemberStart, codes[group].MemberCount))
            {
                around.Add(member < 0 ? ~member : member, member < 0 ? ~group : group);
            }
        }

        Around = around.ToAdjacency();
    }

    internal GroupCode[] Codes { get; }

    internal int[] Members { get; }

    /// <summary>The number of the first group; those below are clauses.</summary>
    internal int First { get; }

    /// <summary>How many clauses and groups there are.</summary>
    internal int Count => First + Codes.Length;

    /// <summary>For each clause and group, the groups, counted from 0, of which it is a member; the complement where it is so negated.</summary>
    internal Adjacency Around { get; }

    /// <summary>The clauses that a condition consists of.</summary>
    internal IEnumerable<int> ClausesUnder(int condition)
    {
        var number = condition < 0 ? ~condition : condition;
        return number < First
            ? [number]
            : Members.Skip(Codes[number - First].MemberStart).Take(Codes[number - First].MemberCount).SelectMany(ClausesUnder);
    }
}
