using Dibujo.Core.Records;
using Dibujo.Core.Values;

namespace Dibujo.Core.Bulk;

/// <summary>Many records of one type, column by column, to be evaluated any number of times, under any rules of that type.</summary>
/// <remarks>Fields of forms repeat their values, so what a rule asks is asked of each distinct value once.</remarks>
public sealed class RecordColumns
{
    private readonly Column[] columns;

    /// <summary>Takes in the records as they are saved, fitted to their type.</summary>
    public RecordColumns(RecordType type, IEnumerable<RecordValues> records)
    {
        Type = type;
        columns = [.. type.Fields.Select(_ => new Column())];
        var places = type.Fields.Index().ToDictionary(field => field.Item.Key, field => field.Index, StringComparer.Ordinal);
        string[] keys = [.. type.Fields.Select(field => field.Key)];
        foreach (var record in records)
        {
            var field = -1;
            foreach (var (key, value) in record.ByField)
            {
                // Records mostly mention their fields in the same order.
                field = field + 1 < keys.Length && keys[field + 1] == key ? field + 1 : places.GetValueOrDefault(key, -1);
                if (field >= 0)
                {
                    columns[field].Add(value);
                }
            }

            Count++;
            foreach (var column in columns)
            {
                column.FillUpTo(Count);
            }
        }
    }

    /// <summary>What kind of records they are.</summary>
    public RecordType Type { get; }

    /// <summary>How many records there are; their places run from 0, in the order in which they came.</summary>
    public int Count { get; }

    /// <summary>The record at that place.</summary>
    public RecordValues this[int record] => new(Type.Fields.Index()
        .Select(field => KeyValuePair.Create(field.Item.Key, columns[field.Index][record])).Where(entry => !entry.Value.IsBlank));

    internal Column Of(int field) => columns[field];
}
