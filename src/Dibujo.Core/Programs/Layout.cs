using Dibujo.Core.Forms;
using Dibujo.Core.Records;

namespace Dibujo.Core.Programs;

/// <summary>
/// The elements of a record type by number (fields first, numbered as in the record type, then their parts, then the
/// record, then each form with its tabs and sections) and what encloses them at each <see cref="Door"/>.
/// </summary>
/// <remarks>
/// A field whose own value takes part in hiding or locking a container gets <em>shadows</em> of its containers: elements
/// of its own, not seen by anyone else, on which those rules look at the field's saved value.
/// </remarks>
internal sealed class Layout
{
    private readonly RecordType type;
    private readonly List<Element> elements = [];
    private readonly List<int> parents = [];
    private readonly List<Rest> rests = [];
    private readonly Dictionary<Element, List<int>> byElement = [];

    /// <summary>For each field and door what encloses the field there: a section or its shadow, -1 for nothing.</summary>
    private readonly int[][] sections;

    /// <summary>Numbers the elements.</summary>
    /// <param name="type">The record type.</param>
    /// <param name="shadowed">The fields that get shadows of all that encloses them at any door, ascending.</param>
    internal Layout(RecordType type, IReadOnlyCollection<int> shadowed)
    {
        this.type = type;
        foreach (var field in type.Fields)
        {
            Add(Element.Field(field.Key), -1, field.Rest);
        }

        FieldCount = type.Fields.Length;
        PartsOfField = new (int, string)[FieldCount][];
        for (var field = 0; field < FieldCount; field++)
        {
            var key = type.Fields[field].Key;
            var whole = field;
            PartsOfField[field] = [.. ((type.Fields[field].Type as CompoundType)?.Parts ?? [])
                .Select(part => (Add(Element.Part(key, part.Key), whole, null), part.Key))];
        }

        FirstContainer = elements.Count;
        Record = Add(Element.Record, -1, null);
        Doors = [.. type.Forms.Select((form, number) => Open(number, form))];
        ShownCount = elements.Count;
        sections = [.. Enumerable.Range(0, FieldCount).Select(field => Doors.Select(door => door.SectionOf[field]).ToArray())];
        Groups = new int[FieldCount][][];
        DoorOf = [.. Enumerable.Range(0, ShownCount).Select(_ => -1)];
        foreach (var door in Doors)
        {
            for (var e = door.Element; e < (door.Number + 1 < Doors.Length ? Doors[door.Number + 1].Element : ShownCount); e++)
            {
                DoorOf[e] = door.Number;
            }
        }

        Shadows = [.. shadowed.SelectMany(AddShadows)];
        FindGroups();
        var reach = new Adjacency.Pairs(Count);
        for (var element = 0; element < Count; element++)
        {
            foreach (var outer in Around(element))
            {
                reach.Add(element, outer);
            }
        }

        Reach = reach.ToAdjacency();
        ElementsUnder = Reach.Inverted(Count);
    }

    internal int FieldCount { get; }

    /// <summary>Where the record, forms, tabs and sections begin; between the fields and them lie parts.</summary>
    internal int FirstContainer { get; }

    /// <summary>The element that encloses every form.</summary>
    internal int Record { get; }

    /// <summary>The forms in the record type's order.</summary>
    internal Door[] Doors { get; }

    /// <summary>For each element without shadows, the number of the form that it belongs to; -1 for fields, parts and the record.</summary>
    internal int[] DoorOf { get; }

    /// <summary>How many elements there are without shadows.</summary>
    internal int ShownCount { get; }

    /// <summary>How many there are with shadows.</summary>
    internal int Count => elements.Count;

    /// <summary>The parts of each field: their elements and keys; none for a field without parts.</summary>
    internal (int Element, string Key)[][] PartsOfField { get; }

    /// <summary>
    /// For each field the groups that it belongs to at every door: the sections in which it stands, then their tabs. What
    /// is said of their access and requirement holds for it wherever it is met.
    /// </summary>
    internal int[][][] Groups { get; }

    /// <summary>The shadows of containers, each for one field.</summary>
    internal (int Field, int Shadow, int Container)[] Shadows { get; }

    /// <summary>For each element the element itself and everything that may decide over it, at whatever door, from the inside out.</summary>
    internal Adjacency Reach { get; }

    /// <summary>For each element, the elements whose state its claims decide, itself included.</summary>
    internal Adjacency ElementsUnder { get; }

    internal Element this[int index] => elements[index];

    internal bool IsPart(int element) => element >= FieldCount && element < FirstContainer;

    /// <summary>The field that the element is or is a part of.</summary>
    internal int FieldOf(int element) => element < FieldCount ? element : parents[element];

    internal Rest Rest(int element) => rests[element];

    /// <summary>All elements of that kind and key: of a section or tab one on each form that has it.</summary>
    internal IReadOnlyList<int> Find(Element element) => byElement.TryGetValue(element, out var numbers) ? numbers : [];

    /// <summary>The element as that door knows it; -1 where it does not.</summary>
    internal int Find(Element element, Door door)
    {
        foreach (var number in Find(element))
        {
            if (DoorOf[number] < 0 || DoorOf[number] == door.Number || element.Kind == ElementKind.Form)
            {
                return number;
            }
        }

        return -1;
    }

    private IEnumerable<int> Around(int element)
    {
        if (element >= FirstContainer)
        {
            return Up(element);
        }

        var field = FieldOf(element);
        var own = element == field ? new[] { field } : [element, field];
        return own.Concat(sections[field].Where(s => s >= 0).SelectMany(Up)).Distinct();
    }

    private List<(int Field, int Shadow, int Container)> AddShadows(int field)
    {
        var added = new List<(int, int, int)>();
        var shadows = new Dictionary<int, int>();
        for (var door = 0; door < Doors.Length; door++)
        {
            if (sections[field][door] is >= 0 and var section)
            {
                sections[field][door] = Shadow(section);
            }
        }

        return added;

        int Shadow(int container)
        {
            if (container < 0)
            {
                return -1;
            }

            if (!shadows.TryGetValue(container, out var shadow))
            {
                var parent = Shadow(parents[container]);
                shadow = elements.Count;
                elements.Add(elements[container]);
                rests.Add(rests[container]);
                parents.Add(parent);
                shadows.Add(container, shadow);
                added.Add((field, shadow, container));
            }

            return shadow;
        }
    }

    private void FindGroups()
    {
        for (var field = 0; field < FieldCount; field++)
        {
            int[] standing = [.. sections[field].Where(s => s >= 0)];
            Groups[field] = [standing, [.. standing.Select(s => parents[s]).Distinct()]];
        }

        foreach (var door in Doors)
        {
            door.Parents = [.. parents];
            for (var field = 0; field < FieldCount; field++)
            {
                door.Parents[field] = sections[field][door.Number];
            }

            door.Rests = [.. Enumerable.Range(0, elements.Count).Select(element => element < FirstContainer ? RestAt(door, element) : RestOfContainer(element))];
        }
    }

    /// <summary>The form at hand as it encloses a field that stands on it: its shadow, where the field has one.</summary>
    internal int FormAround(int field, Door door) => parents[parents[sections[field][door.Number]]];

    /// <summary>Whether the element is a part that its type lets be left out.</summary>
    internal bool IsOptionalPart(int element)
    {
        if (!IsPart(element))
        {
            return false;
        }

        var compound = (CompoundType)type.Fields[FieldOf(element)].Type;
        var key = elements[element].Key;
        return compound.OptionalParts.Contains(key[(key.IndexOf('.', StringComparison.Ordinal) + 1)..], StringComparer.Ordinal);
    }

    /// <summary>
    /// Requirement and access at rest: the nearest that are not the ordinary ones, of several groups at once the strongest.
    /// A part that may be left out asks for nothing where only what encloses it is asked for.
    /// </summary>
    private Rest RestAt(Door door, int element)
    {
        var field = FieldOf(element);
        IEnumerable<int[]> levels = [[field], .. Groups[field], .. door.Has(field) ? [[FormAround(field, door)]] : Array.Empty<int[]>()];
        var requirement = levels.Select(level => level.Select(e => rests[e].Requirement).DefaultIfEmpty().Max()).FirstOrDefault(r => r != Requirement.Optional);
        var access = levels.SelectMany(level => level).Any(e => rests[e].Access == Access.Locked) ? Access.Locked : Access.Open;
        return new(rests[element].Visibility, IsOptionalPart(element) ? Requirement.Optional : requirement, access);
    }

    private Rest RestOfContainer(int container) => new(
        rests[container].Visibility,
        Up(container).Select(e => rests[e].Requirement).FirstOrDefault(r => r != Requirement.Optional),
        Up(container).Any(e => rests[e].Access == Access.Locked) ? Access.Locked : Access.Open);

    private IEnumerable<int> Up(int container)
    {
        for (var e = container; e >= 0; e = parents[e])
        {
            yield return e;
        }
    }

    private Door Open(int number, Form form)
    {
        var door = new Door(number, form, FieldCount) { Element = Add(Element.Form(form.Key), Record, form.Rest) };
        foreach (var tab in form.Tabs)
        {
            var tabNumber = Add(Element.Tab(tab.Key), door.Element, tab.Rest);
            door.Append(tabNumber);
            foreach (var section in tab.Sections)
            {
                var sectionNumber = Add(Element.Section(section.Key), tabNumber, section.Rest);
                door.Append(sectionNumber);
                foreach (var field in section.Fields)
                {
                    door.Append(byElement[Element.Field(field)][0], sectionNumber, tabNumber);
                }
            }
        }

        return door;
    }

    private int Add(Element element, int parent, Rest? rest)
    {
        elements.Add(element);
        parents.Add(parent);
        rests.Add(rest ?? Forms.Rest.Ordinary);
        if (!byElement.TryGetValue(element, out var numbers))
        {
            byElement[element] = numbers = [];
        }

        numbers.Add(elements.Count - 1);
        return elements.Count - 1;
    }
}
