using Dibujo.Core.Conditions;

namespace Dibujo.Core.Programs;

/// <summary>What of the setting has a slot of its own: the places of <see cref="SettingSubject.All"/>.</summary>
internal enum SettingSlot
{
    Stage,
    Roles,
    New,
    Move,
    Workflow,
    Person,
    Form,
    Channel,
    Use,
    Today,
    Now,
}

/// <summary>
/// Where a program finds what clauses look at, by number: live field values first, then saved ones, then the setting, then
/// what is derived from those.
/// </summary>
internal sealed class SlotTable
{
    internal const int SettingCount = (int)SettingSlot.Now + 1;

    private readonly FieldIndex fields;

    internal SlotTable(FieldIndex fields, SubjectTypes subjects, DerivedSlot[] derived)
    {
        (this.fields, Subjects, Derived) = (fields, subjects, derived);
        var following = new Adjacency.Pairs(Count);
        for (var i = 0; i < derived.Length; i++)
        {
            var inputs = derived[i].Inputs;
            for (var input = 0; input < inputs.Length; input++)
            {
                if (inputs.IndexOf(inputs[input]) == input)
                {
                    following.Add(inputs[input], FirstDerived + i);
                }
            }
        }

        Following = following.ToAdjacency();
    }

    internal int FirstDerived => First(fields.Count);

    internal int Count => FirstDerived + Derived.Length;

    internal SubjectTypes Subjects { get; }

    /// <summary>How each derived slot is computed, in the order of their numbers.</summary>
    internal DerivedSlot[] Derived { get; }

    /// <summary>For each slot, the derived slots that follow from it directly.</summary>
    internal Adjacency Following { get; }

    /// <summary>The number of the first derived slot where there are so many fields.</summary>
    internal static int First(int fieldCount) => (2 * fieldCount) + SettingCount;

    internal int Saved(int field) => fields.Count + field;

    internal int Of(SettingSlot slot) => (2 * fields.Count) + (int)slot;

    /// <summary>The slot of a subject at which some rule of the program looks.</summary>
    /// <param name="subject">One that exists.</param>
    /// <param name="ownField">The field whose saved value is looked at in place of its live one; -1 for none.</param>
    internal int Of(Subject subject, int ownField) => SubjectSlots.Of(
        subject, ownField, fields, Subjects, derived => FirstDerived + Array.FindIndex(Derived, derived.IsSame));

    /// <summary>The fields whose live values the slot follows from.</summary>
    internal IEnumerable<int> FieldsOf(int slot) => slot >= FirstDerived
        ? Derived[slot - FirstDerived].Inputs.SelectMany(FieldsOf).Distinct()
        : slot < fields.Count ? [slot] : [];
}
