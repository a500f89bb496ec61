using Dibujo.Core.Drafts;

namespace Dibujo.Store.Definitions;

/// <summary>Edits that were made to a draft together. Never changes once written.</summary>
public sealed class StoredDraftStep
{
    /// <summary>Counts all steps.</summary>
    public long Id { get; init; }

    /// <summary>Key of the record type.</summary>
    public required string RecordType { get; init; }

    /// <summary>The draft's version after it.</summary>
    public required int Version { get; init; }

    /// <summary>What was done.</summary>
    public required DraftStep Step { get; init; }

    /// <summary>Who did it.</summary>
    public required string By { get; init; }

    /// <summary>When, in UTC.</summary>
    public required DateTime At { get; init; }
}
