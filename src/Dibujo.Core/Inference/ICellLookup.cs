namespace Dibujo.Core.Inference;

/// <summary>Finds what a cell names: records by title or number, people by name.</summary>
public interface ICellLookup
{
    /// <summary>Keys of the record types to which a column may lead.</summary>
    IReadOnlyList<string> RecordTypes { get; }

    /// <summary>Key of the record type that is called so; null for none. A column of that heading may hold numbers of its records.</summary>
    string? RecordTypeCalled(string heading);

    /// <summary>Number of the one record of that type that is called so, or has that number; null for none, or for several.</summary>
    int? FindRecord(string recordType, string cell);

    /// <summary>The name by which the one person who is called so signs in; null for none, or for several.</summary>
    string? FindPerson(string cell);
}
