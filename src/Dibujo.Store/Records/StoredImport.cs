namespace Dibujo.Store.Records;

/// <summary>An import: kept while it goes on, and for a day after it, so that it can be told of and taken back. One that is not through when the server starts was broken off by its end.</summary>
public sealed class StoredImport
{
    /// <summary>By which whoever began it asks for it; entries of the history name it.</summary>
    public required Guid Id { get; init; }

    /// <summary>Key of the record type.</summary>
    public required string RecordType { get; init; }

    /// <summary>Account name of who began it.</summary>
    public required string By { get; init; }

    /// <summary>Network address from which it came.</summary>
    public string? Address { get; init; }

    /// <summary>When it was begun, in UTC.</summary>
    public DateTime BegunAt { get; init; }

    /// <summary>How many rows there are.</summary>
    public required int Rows { get; init; }

    /// <summary>How many have been taken in; counted in the same transaction.</summary>
    public int Stored { get; init; }

    /// <summary>When it was through, however it ended, in UTC; null while it goes on.</summary>
    public DateTime? ThroughAt { get; init; }

    /// <summary>What came of it as a whole, as JSON; null while it goes on.</summary>
    public string? Outcome { get; init; }

    /// <summary>What came of each row, as JSON; null while it goes on. It is long, and read only where it is asked for.</summary>
    public string? Details { get; init; }

    /// <summary>The import that this one takes back; null for one from a file.</summary>
    public Guid? TakesBack { get; init; }
}
