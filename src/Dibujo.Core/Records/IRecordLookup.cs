using Dibujo.Core.Values;

namespace Dibujo.Core.Records;

/// <summary>Finds what links and persons in a record lead to.</summary>
public interface IRecordLookup
{
    /// <summary>The values, as saved, of the record of that type and number; null where there is none.</summary>
    RecordValues? Find(string recordType, int number);

    /// <summary>Whether somebody can sign in under that name.</summary>
    bool HasPerson(string userName);
}

/// <summary>Finds no record and doubts no person: for where only the record itself is at hand.</summary>
public sealed class NoRecords : IRecordLookup
{
    /// <inheritdoc/>
    public RecordValues? Find(string recordType, int number) => null;

    /// <inheritdoc/>
    public bool HasPerson(string userName) => true;
}
