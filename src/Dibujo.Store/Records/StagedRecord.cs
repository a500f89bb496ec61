using Dibujo.Core.Values;

namespace Dibujo.Store.Records;

/// <summary>
/// What a record will be once a publication is through. Nobody reads it before that; what one left that did not get through
/// is cleared by the next.
/// </summary>
public sealed class StagedRecord
{
    /// <summary>Number of the record.</summary>
    public int Id { get; init; }

    /// <summary>Key of its record type.</summary>
    public required string RecordType { get; init; }

    /// <summary>The stage that it will be in.</summary>
    public required string Stage { get; init; }

    /// <summary>What it will be called.</summary>
    public required string Title { get; init; }

    /// <summary>All its values then.</summary>
    public required RecordValues Values { get; init; }

    /// <summary>Values of the changed fields before.</summary>
    public required RecordValues Before { get; init; }

    /// <summary>Values of the changed fields after.</summary>
    public required RecordValues After { get; init; }

    /// <summary>Whether anything but what it is called is other: then it gets a version and an entry in its history.</summary>
    public required bool IsChange { get; init; }
}
