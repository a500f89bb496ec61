using Dibujo.Core.Conditions;

namespace Dibujo.Core.Programs;

/// <summary>A group of a condition in the form in which it is evaluated: it holds where as many of its members hold as it takes.</summary>
/// <param name="MemberStart">Where its members begin in <see cref="GroupTable.Members"/>.</param>
/// <param name="MemberCount">How many it has.</param>
/// <param name="Least">How many of them have to hold at least.</param>
/// <param name="Most">How many of them may hold at most.</param>
internal readonly record struct GroupCode(int MemberStart, int MemberCount, int Least, int Most)
{
    internal static GroupCode Of(Quantifier quantifier, int memberStart, int memberCount) => quantifier switch
    {
        Quantifier.AllOf => new(memberStart, memberCount, memberCount, memberCount),
        Quantifier.AnyOf => new(memberStart, memberCount, 1, memberCount),
        _ => new(memberStart, memberCount, 0, 0),
    };

    /// <summary>Whether it holds only when all members hold.</summary>
    internal bool TakesAll => Least == MemberCount;

    /// <summary>Whether it holds only when no member holds.</summary>
    internal bool TakesNone => Most == 0 && MemberCount > 0;

    /// <summary>Whether it holds when so many members hold.</summary>
    internal bool Holds(int members) => (uint)(members - Least) <= (uint)(Most - Least);
}
