using Dibujo.Core.Forms;
using Dibujo.Core.Records;
using Dibujo.Core.Rules;

namespace Dibujo.Core.Compilation;

/// <summary>The elements of one form by number (fields first, numbered as in the record type) and what encloses them.</summary>
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

    internal Layout(RecordType type, Form form)
    {
        foreach (var field in type.Fields)
        {
            Add(Element.Field(field.Key), -1, field.Rest);
        }

        FieldCount = type.Fields.Length;
        OnForm = new bool[FieldCount];
        foreach (var tab in form.Tabs)
        {
            var tabIndex = Add(Element.Tab(tab.Key), -1, tab.Rest);
            foreach (var section in tab.Sections)
            {
                var sectionIndex = Add(Element.Section(section.Key), tabIndex, section.Rest);
                foreach (var field in section.Fields)
                {
                    var fieldIndex = byElement[Element.Field(field)];
                    parents[fieldIndex] = sectionIndex;
                    OnForm[fieldIndex] = true;
                }
            }
        }

        ShownCount = elements.Count;
        Containers = [.. parents];
    }

    internal int FieldCount { get; }

    /// <summary>How many elements there are without shadows.</summary>
    internal int ShownCount { get; }

    /// <summary>How many there are with shadows.</summary>
    internal int Count => elements.Count;

    /// <summary>Whether each field stands on this form.</summary>
    internal bool[] OnForm { get; }

    /// <summary>What encloses each element as people see it, -1 for nothing: never a shadow.</summary>
    internal int[] Containers { get; }

    internal Element this[int index] => elements[index];

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

    private int Add(Element element, int parent, Rest? rest)
    {
        elements.Add(element);
        parents.Add(parent);
        rests.Add(rest ?? Rules.Rest.Ordinary);
        byElement[element] = elements.Count - 1;
        return elements.Count - 1;
    }
}
