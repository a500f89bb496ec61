using Dibujo.Core.Forms;

namespace Dibujo.Core.Programs;

/// <summary>One form as a way to the record: which fields stand on it, in which order, and what encloses each.</summary>
internal sealed class Door(int number, Form form, int fieldCount)
{
    /// <summary>Tabs, sections and fields in the order in which they are met.</summary>
    private readonly List<int> order = [];

    /// <summary>For each of them, where it stands.</summary>
    private readonly Dictionary<int, int> places = [];

    /// <summary>For each tab and section, the fields in it.</summary>
    private readonly Dictionary<int, List<int>> fieldsIn = [];

    /// <summary>Counts from 0 in the record type's list of forms.</summary>
    internal int Number => number;

    internal Form Form => form;

    /// <summary>The form's own element.</summary>
    internal int Element { get; init; }

    /// <summary>For each field the section in which it stands here, as people see it: never a shadow; -1 where it does not stand here.</summary>
    internal int[] SectionOf { get; } = [.. Enumerable.Repeat(-1, fieldCount)];

    /// <summary>What encloses each element here, its container or the container's shadow; -1 for nothing.</summary>
    internal int[] Parents { get; set; } = [];

    /// <summary>For each element the state when no rule speaks, of its own or taken from what encloses it.</summary>
    internal Rest[] Rests { get; set; } = [];

    internal bool Has(int field) => SectionOf[field] >= 0;

    internal void Append(int element)
    {
        places.Add(element, order.Count);
        order.Add(element);
    }

    internal void Append(int field, int section, int tab)
    {
        Append(field);
        SectionOf[field] = section;
        FieldsIn(section).Add(field);
        FieldsIn(tab).Add(field);
    }

    /// <summary>Where the element stands, counted in fields and containers; -1 where it does not.</summary>
    internal int Place(int element) => places.GetValueOrDefault(element, -1);

    /// <summary>The containers and fields after one place and before another. A container is among them only as a whole.</summary>
    internal IEnumerable<int> Between(int after, int before)
    {
        var within = order.Take(before).Skip(after + 1).ToHashSet();
        return within.Where(e => e < fieldCount || FieldsIn(e).TrueForAll(within.Contains));
    }

    /// <summary>The place after the last.</summary>
    internal int End => order.Count;

    private List<int> FieldsIn(int container)
    {
        if (!fieldsIn.TryGetValue(container, out var fields))
        {
            fieldsIn[container] = fields = [];
        }

        return fields;
    }
}
