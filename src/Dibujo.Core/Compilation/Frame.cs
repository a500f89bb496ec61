using Dibujo.Core.Conditions;
using Dibujo.Core.Programs;
using Dibujo.Core.Records;

namespace Dibujo.Core.Compilation;

/// <summary>
/// What the rules of one record type are compiled against: its fields and elements by number, and the slots, clauses and
/// groups that rules have used so far. Those only grow; a program is linked with numbers of its own.
/// </summary>
internal sealed class Frame
{
    private (int[] Shadowed, Layout Layout)? shadowed;

    internal Frame(RecordType type)
    {
        Type = type;
        Fields = new(type);
        Subjects = new(type);
        Layout = new(type, []);
        Slots = new(Fields, Subjects);
        Clauses = new(type, Slots, Subjects);
        Groups = new(Clauses);
        Dispatches = new(Clauses);
    }

    internal RecordType Type { get; }

    internal FieldIndex Fields { get; }

    internal SubjectTypes Subjects { get; }

    /// <summary>The elements without shadows.</summary>
    internal Layout Layout { get; }

    internal SlotPool Slots { get; }

    internal ClausePool Clauses { get; }

    internal GroupPool Groups { get; }

    internal DispatchPool Dispatches { get; }

    /// <summary>The elements with shadows for those fields, ascending; made anew only where other fields have them.</summary>
    internal Layout LayoutWith(int[] fields)
    {
        if (fields.Length == 0)
        {
            return Layout;
        }

        if (shadowed is not { } known || !known.Shadowed.AsSpan().SequenceEqual(fields))
        {
            shadowed = known = (fields, new(Type, fields));
        }

        return known.Layout;
    }
}
