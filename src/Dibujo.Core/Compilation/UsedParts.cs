namespace Dibujo.Core.Compilation;

/// <summary>The slots, clauses and groups that one rule uses, each once, in the order of its text, inner ones first.</summary>
internal sealed class UsedParts(SlotPool slots, ClausePool clauses)
{
    private readonly List<int> usedSlots = [];
    private readonly List<int> usedClauses = [];
    private readonly List<int> usedGroups = [];

    /// <summary>Derived slots, counted from 0 in <see cref="SlotPool"/>.</summary>
    internal int[] Slots => [.. usedSlots];

    internal int[] Clauses => [.. usedClauses];

    internal int[] Groups => [.. usedGroups];

    /// <summary>Takes in a slot with those that it follows from.</summary>
    internal void AddSlot(int slot)
    {
        var index = slot - slots.FirstDerived;
        if (index < 0 || usedSlots.Contains(index))
        {
            return;
        }

        foreach (var input in slots[index].Inputs)
        {
            AddSlot(input);
        }

        usedSlots.Add(index);
    }

    /// <summary>Takes in a clause with the slots at which it looks.</summary>
    internal void AddClause(int clause)
    {
        if (usedClauses.Contains(clause))
        {
            return;
        }

        usedClauses.Add(clause);
        AddSlot(clauses.SlotOf(clause));
        foreach (var comparand in clauses.ComparandsOf(clause))
        {
            if (comparand >= 0)
            {
                AddSlot(comparand);
            }
        }
    }

    internal void AddGroup(int group)
    {
        if (!usedGroups.Contains(group))
        {
            usedGroups.Add(group);
        }
    }
}
