namespace Dibujo.Store.Records;

/// <summary>An import that is going on. One that is found when the server starts was broken off by its end.</summary>
public sealed class StoredImport
{
    /// <summary>By which whoever began it asks for it.</summary>
    public required Guid Id { get; init; }

    /// <summary>Key of the record type.</summary>
    public required string RecordType { get; init; }

    /// <summary>Account name of who began it.</summary>
    public required string By { get; init; }

    /// <summary>Network address from which it came.</summary>
    public string? Address { get; init; }

    /// <summary>How many rows there are.</summary>
    public required int Rows { get; init; }

    /// <summary>How many have been taken in; counted in the same transaction.</summary>
    public int Stored { get; set; }
}
