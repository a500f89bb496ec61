using System.Collections.Immutable;
using Dibujo.Core.Records;

namespace Dibujo.Core.Values;

/// <summary>The values of one record by field key. A field that is not mentioned is blank.</summary>
public sealed record RecordValues(ImmutableDictionary<string, Value> ByField)
{
    /// <summary>A record in which nothing is filled in.</summary>
    public static readonly RecordValues Empty = new(ImmutableDictionary.Create<string, Value>(StringComparer.Ordinal));

    /// <summary>The field's value; <see cref="Value.Blank"/> when there is none.</summary>
    public Value this[string field] => ByField.GetValueOrDefault(field, Value.Blank);

    /// <summary>The same record with one field changed; a blank value takes the field out.</summary>
    public RecordValues With(string field, Value value) =>
        new(value.IsBlank ? ByField.Remove(field) : ByField.SetItem(field, value));

    /// <summary>These values fitted to the record type's fields; what fits none of them is left out.</summary>
    public RecordValues FittedTo(RecordType type) => type.Fields.Aggregate(
        Empty, (fitted, field) => field.Type.Fit(this[field.Key]) is { } value ? fitted.With(field.Key, value) : fitted);
}
