using Dibujo.Core.Drafts;

namespace Dibujo.Store.Definitions;

/// <summary>An edit that came too late: somebody else had changed the rule. It waits until one of the two versions is chosen.</summary>
public sealed class StoredCollision
{
    /// <summary>Counts all of them.</summary>
    public int Id { get; init; }

    /// <summary>Key of the record type.</summary>
    public required string RecordType { get; init; }

    /// <summary>The edit that was not made; one edit in it.</summary>
    public required DraftStep Step { get; init; }

    /// <summary>Who would have made it.</summary>
    public required string By { get; init; }

    /// <summary>When, in UTC.</summary>
    public required DateTime At { get; init; }
}
