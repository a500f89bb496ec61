using System.Collections.Immutable;

namespace Dibujo.Core.Forms;

/// <summary>A layout of a record: tabs, in them sections, in them fields.</summary>
public sealed record Form(string Key, string Label, ImmutableArray<Tab> Tabs, Rest? Rest = null)
{
    /// <summary>Keys of all fields on it, in the order in which they are filled in.</summary>
    public IEnumerable<string> Fields() => Tabs.SelectMany(t => t.Sections).SelectMany(s => s.Fields);
}

/// <summary>One leaf of a <see cref="Form"/>.</summary>
public sealed record Tab(string Key, string Label, ImmutableArray<Section> Sections, Rest? Rest = null);

/// <summary>Fields that belong together under one heading.</summary>
/// <param name="Key">Short name; unique within the form.</param>
/// <param name="Label">The heading.</param>
/// <param name="Fields">Keys of fields, in the order in which they are filled in.</param>
/// <param name="Rest">Its state when no rule speaks.</param>
public sealed record Section(string Key, string Label, ImmutableArray<string> Fields, Rest? Rest = null)
{
    /// <summary>The most columns that a section may have.</summary>
    public const int MostColumns = 4;

    /// <summary>How many fields stand side by side where there is room; null: as many as fit.</summary>
    public int? Columns { get; init; }

    /// <summary>How many columns a field takes, by its key, where that is more than one; a width beyond the section's own is the whole row.</summary>
    public ImmutableSortedDictionary<string, int> Widths { get; init => field = value ?? ImmutableSortedDictionary<string, int>.Empty; } = ImmutableSortedDictionary<string, int>.Empty;
}
