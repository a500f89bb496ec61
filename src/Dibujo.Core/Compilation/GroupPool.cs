using System.Runtime.InteropServices;
using Dibujo.Core.Conditions;

namespace Dibujo.Core.Compilation;

/// <summary>The distinct groups that rules of a record type have used so far; a number once given stays.</summary>
/// <remarks>
/// A condition is a clause or a group under one number: a clause has an even one, a group an odd one; the complement of a
/// number stands for the negation.
/// </remarks>
internal sealed class GroupPool(ClausePool clauses)
{
    /// <summary>For each group its quantifier and the conditions in it.</summary>
    private readonly SequencePool codes = new();

    internal int Count => codes.Count;

    internal Quantifier QuantifierOf(int group) => (Quantifier)codes[group][0];

    /// <summary>The conditions in the group.</summary>
    internal ReadOnlySpan<int> MembersOf(int group) => codes[group][1..];

    /// <summary>The condition's number; of nothing, that of a group that always holds.</summary>
    /// <param name="condition">One without problems.</param>
    /// <param name="ownField">The field whose saved value the clauses look at in place of its live one; -1 for none.</param>
    /// <param name="used">Takes in the clauses and groups that are used, inner ones first.</param>
    internal int Add(Condition? condition, int ownField, UsedParts used)
    {
        if (condition is Clause clause)
        {
            var (number, negated) = clauses.Add(clause, ownField);
            used.AddClause(number);
            return negated ? ~(number << 1) : number << 1;
        }

        List<int> code = [(int)Quantifier.AllOf];
        if (condition is Group group)
        {
            code[0] = (int)group.Quantifier;
            foreach (var member in group.Members)
            {
                code.Add(Add(member, ownField, used));
            }
        }

        var found = codes.Add(CollectionsMarshal.AsSpan(code));
        used.AddGroup(found);
        return (found << 1) | 1;
    }
}
