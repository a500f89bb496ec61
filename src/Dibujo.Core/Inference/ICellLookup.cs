using Dibujo.Core.Notations;

namespace Dibujo.Core.Inference;

/// <summary>Finds what a cell names: records by title or number, people by name; and the record types to which a column may lead.</summary>
public interface ICellLookup : IKnownNames
{
    /// <summary>Keys of the record types to which a column may lead.</summary>
    IReadOnlyList<string> RecordTypes { get; }

    /// <summary>Key of the record type that is called so; null for none. A column of that heading may hold numbers of its records.</summary>
    string? RecordTypeCalled(string heading);
}
