using Dibujo.Core.Forms;
using Dibujo.Core.Records;
using Dibujo.Core.Rules;

namespace Dibujo.Core.Compilation;

/// <summary>
/// The elements of one form by number (fields first, numbered as in the record type, then their parts, then tabs and
/// sections, then the form itself) and what encloses them.
/// </summary>
/// <remarks>
/// A field whose own value takes part in hiding or locking a container gets <em>shadows</em> of its containers: elements
/// of its own, not seen by anyone else, on which those rules look at the field's saved value.
/// </remarks>
internal sealed class Layout
{
    private readonly List<Element> elements = [];
    private readonly List<int> parents = [];
    private readonly List<Rest> rests = [];
    private readonly Dictionary<Element, int> byElement = [];

    /// <summary>Tabs, sections and fields in the order in which they are met on the form.</summary>
    private readonly List<int> order = [];

    internal Layout(RecordType type, Form form)
    {
        foreach (var field in type.Fields)
        {
            Add(Element.Field(field.Key), -1, field.Rest);
        }

        FieldCount = type.Fields.Length;
        OnForm = new bool[FieldCount];
        PartsOfField = new (int, string)[FieldCount][];
        for (var field = 0; field < FieldCount; field++)
        {
            var key = type.Fields[field].Key;
            var whole = field;
            PartsOfField[field] = [.. ((type.Fields[field].Type as CompoundType)?.Parts ?? [])
                .Select(part => (Add(Element.Part(key, part.Key), whole, null), part.Key))];
        }

        FirstContainer = elements.Count;
        var root = elements.Count;
        Add(Element.Form(form.Key), -1, form.Rest);
        foreach (var tab in form.Tabs)
        {
            var tabIndex = Add(Element.Tab(tab.Key), root, tab.Rest);
            order.Add(tabIndex);
            foreach (var section in tab.Sections)
            {
                var sectionIndex = Add(Element.Section(section.Key), tabIndex, section.Rest);
                order.Add(sectionIndex);
                foreach (var field in section.Fields)
                {
                    var fieldIndex = byElement[Element.Field(field)];
                    parents[fieldIndex] = sectionIndex;
                    OnForm[fieldIndex] = true;
                    order.Add(fieldIndex);
                }
            }
        }

        ShownCount = elements.Count;
        Containers = [.. parents];
    }

    internal int FieldCount { get; }

    /// <summary>Where tabs, sections and the form begin; between the fields and them lie parts.</summary>
    internal int FirstContainer { get; }

    /// <summary>How many elements there are without shadows.</summary>
    internal int ShownCount { get; }

    /// <summary>How many there are with shadows.</summary>
    internal int Count => elements.Count;

    /// <summary>Whether each field stands on this form.</summary>
    internal bool[] OnForm { get; }

    /// <summary>The parts of each field: their elements and keys; none for a field without parts.</summary>
    internal (int Element, string Key)[][] PartsOfField { get; }

    /// <summary>What encloses each element as people see it, -1 for nothing: never a shadow.</summary>
    internal int[] Containers { get; }

    internal Element this[int index] => elements[index];

    internal bool IsPart(int element) => element >= FieldCount && element < FirstContainer;

    /// <summary>The field that the element is or is a part of.</summary>
    internal int FieldOf(int element) => element < FieldCount ? element : parents[element];

    /// <summary>The next element whose claims count for this one: its container or the container's shadow; -1 for none.</summary>
    internal int Parent(int element) => parents[element];

    internal Rest Rest(int element) => rests[element];

    /// <summary>The element's number, or -1 where it is not on this form.</summary>
    internal int Find(Element element) => byElement.GetValueOrDefault(element, -1);

    /// <summary>The element itself and all that encloses it, from the inside out.</summary>
    internal IEnumerable<int> Chain(int element)
    {
        for (var e = element; e >= 0; e = parents[e])
        {
            yield return e;
        }
    }

    /// <summary>Gives the field shadows of all its containers; each comes with the container that it shadows.</summary>
    internal List<(int Shadow, int Container)> AddShadows(int field)
    {
        var added = new List<(int, int)>();
        var inner = field;
        foreach (var container in Chain(parents[field]).ToList())
        {
            var shadow = elements.Count;
            elements.Add(elements[container]);
            rests.Add(rests[container]);
            parents.Add(-1);
            parents[inner] = shadow;
            inner = shadow;
            added.Add((shadow, container));
        }

        return added;
    }

    /// <summary>
    /// The containers and fields that stand on the form after one field (-1: from the start) and before an element (-1: to
    /// the end). A container is among them only as a whole.
    /// </summary>
    internal IEnumerable<int> Between(int after, int before)
    {
        var end = before < 0 ? order.Count : order.IndexOf(before);
        var start = after < 0 ? 0 : order.IndexOf(after) + 1;
        var within = order.Take(end).Skip(start).ToHashSet();
        return within.Where(e => e < FieldCount || FieldsIn(e).All(within.Contains));
    }

    /// <summary>Where the field stands on the form, counted in fields and containers; -1 where it does not.</summary>
    internal int Place(int field) => order.IndexOf(field);

    private IEnumerable<int> FieldsIn(int container) =>
        Enumerable.Range(0, FieldCount).Where(field => Containers[field] >= 0 && (Containers[field] == container || Containers[Containers[field]] == container));

    private int Add(Element element, int parent, Rest? rest)
    {
        elements.Add(element);
        parents.Add(parent);
        rests.Add(rest ?? Rules.Rest.Ordinary);
        byElement[element] = elements.Count - 1;
        return elements.Count - 1;
    }
}
