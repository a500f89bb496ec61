namespace Dibujo.Store.Records;

/// <summary>How many records of a type are at a stage. The database keeps it by itself (triggers): counting them takes time with their number.</summary>
public sealed class RecordCount
{
    /// <summary>Key of the record type.</summary>
    public required string RecordType { get; init; }

    /// <summary>Key of the stage.</summary>
    public required string Stage { get; init; }

    /// <summary>How many there are.</summary>
    public int Records { get; init; }
}
