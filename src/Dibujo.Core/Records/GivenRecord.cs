using System.Collections.Immutable;
using Dibujo.Core.Values;

namespace Dibujo.Core.Records;

/// <summary>A record that is given along with another in a file or an example, for links to lead to.</summary>
/// <param name="RecordType">Key of its record type.</param>
/// <param name="Number">Its number, to which links say that they lead.</param>
/// <param name="Values">Its saved values by field key, bare as in a file.</param>
public sealed record GivenRecord(string RecordType, int Number, ImmutableDictionary<string, Value> Values)
{
    /// <summary>What in it the record type, whose links lead here, does not know: each as a sentence.</summary>
    public IEnumerable<string> Mistakes(RecordType type) => type.FieldsOf(RecordType) is not { } fields
        ? [$"There is no record type “{RecordType}” to which links lead. Name one that does."]
        : from value in Values.OrderBy(v => v.Key, StringComparer.Ordinal)
          let field = fields.FirstOrDefault(f => f.Key == value.Key)
          where field?.Type.Fit(value.Value) is null
          select field is null
              ? $"{RecordType} {Number} has no field “{value.Key}”. Leave it out."
              : $"{field.Label} of {RecordType} {Number} cannot hold this. Give {field.Type.Noun}.";
}

/// <summary>Finds the records that are given, and no others; doubts no person.</summary>
public sealed class GivenRecords(ImmutableArray<GivenRecord> records) : IRecordLookup
{
    /// <inheritdoc/>
    public RecordValues? Find(string recordType, int number) =>
        records.FirstOrDefault(r => r.RecordType == recordType && r.Number == number) is { } given ? new(given.Values) : null;

    /// <inheritdoc/>
    public bool HasPerson(string userName) => true;
}
