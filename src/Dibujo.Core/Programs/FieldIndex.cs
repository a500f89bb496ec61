using Dibujo.Core.Records;

namespace Dibujo.Core.Programs;

/// <summary>The fields of a record type by number, in the order of the record type.</summary>
internal sealed class FieldIndex
{
    private readonly Field[] fields;
    private readonly Dictionary<string, int> byKey = new(StringComparer.Ordinal);

    internal FieldIndex(RecordType type)
    {
        fields = [.. type.Fields];
        foreach (var (i, field) in fields.Index())
        {
            byKey.Add(field.Key, i);
        }
    }

    internal int Count => fields.Length;

    /// <summary>The field's number; throws where a definition without problems has no such field.</summary>
    internal int this[string key] => byKey[key];

    internal Field this[int index] => fields[index];

    internal FieldType Type(int index) => fields[index].Type;

    /// <summary>The field's number, or -1.</summary>
    internal int Find(string key) => byKey.GetValueOrDefault(key, -1);
}
