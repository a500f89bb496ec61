using Dibujo.Core.Rules;

namespace Dibujo.Store.Definitions;

/// <summary>A published definition. Never changes once written.</summary>
public sealed class StoredEdition
{
    /// <summary>Key of the record type.</summary>
    public required string RecordType { get; init; }

    /// <summary>Counts from 1 within the record type.</summary>
    public required int Number { get; init; }

    /// <summary>What was published.</summary>
    public required Definition Definition { get; init; }

    /// <summary>What the publisher said about it.</summary>
    public required string Note { get; init; }

    /// <summary>Who published it.</summary>
    public required string By { get; init; }

    /// <summary>When, in UTC.</summary>
    public required DateTime At { get; init; }
}
