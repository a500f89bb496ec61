namespace Dibujo.Core.Values;

/// <summary>The values of one record by field key. A field that is not mentioned is blank.</summary>
/// <remarks>
/// Immutable, and equal to any other with the same values. It is read far more often than it is changed, so it is a table
/// that <see cref="With"/> copies; whoever fills in many fields gives them all at once.
/// </remarks>
public sealed record RecordValues
{
    /// <summary>A record in which nothing is filled in.</summary>
    public static readonly RecordValues Empty = new([]);

    private readonly Dictionary<string, Value> byField;

    /// <summary>A record with those values; throws where a field is mentioned twice.</summary>
    public RecordValues(IEnumerable<KeyValuePair<string, Value>> byField) => this.byField = new(byField);

    private RecordValues(Dictionary<string, Value> own) => byField = own;

    /// <summary>The fields that are mentioned. One that was given as blank is among them.</summary>
    public IReadOnlyDictionary<string, Value> ByField => byField;

    /// <summary>The field's value; <see cref="Value.Blank"/> when there is none.</summary>
    public Value this[string field] => byField.GetValueOrDefault(field, Value.Blank);

    /// <summary>The same record with one field changed; a blank value takes the field out.</summary>
    public RecordValues With(string field, Value value)
    {
        var copy = new Dictionary<string, Value>(byField);
        if (value.IsBlank)
        {
            copy.Remove(field);
        }
        else
        {
            copy[field] = value;
        }

        return new(copy);
    }

    /// <inheritdoc/>
    public bool Equals(RecordValues? other) => other is not null && byField.Count == other.byField.Count
        && byField.All(entry => other.byField.TryGetValue(entry.Key, out var value) && value.Equals(entry.Value));

    /// <inheritdoc/>
    public override int GetHashCode() => byField.Aggregate(0, (hash, entry) => hash ^ HashCode.Combine(entry.Key, entry.Value));
}
