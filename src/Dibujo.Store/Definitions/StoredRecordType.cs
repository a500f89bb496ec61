using System.Collections.Immutable;
using Dibujo.Core.Drafts;
using Dibujo.Core.Rules;

namespace Dibujo.Store.Definitions;

/// <summary>A record type with the draft that administrators work on.</summary>
public sealed class StoredRecordType
{
    /// <summary>Key of the record type.</summary>
    public required string Key { get; init; }

    /// <summary>What is worked on; may have problems.</summary>
    public required Definition Draft
    {
        get;
        set
        {
            field = value;
            Label = value.RecordType.Label;
            RuleCount = value.Rules.Length;
        }
    }

    /// <summary>What people call one such record: a copy out of the draft, so that a list need not read that.</summary>
    public string Label { get; private set; } = "";

    /// <summary>How many rules the draft has: a copy as well.</summary>
    public int RuleCount { get; private set; }

    /// <summary>Counts the saves of the draft; a save based on another version is refused.</summary>
    public int DraftVersion { get; set; } = 1;

    /// <summary>The last change of each rule, by its key; none for a rule that is as it came with the record type.</summary>
    public ImmutableSortedDictionary<string, Revision> Revisions { get; set; } = ImmutableSortedDictionary<string, Revision>.Empty;

    /// <summary>The draft's version by which the record type itself was last changed.</summary>
    public int TypeRevision { get; set; }

    /// <summary>Number of the edition in force; null before the first one.</summary>
    public int? Published { get; set; }
}
