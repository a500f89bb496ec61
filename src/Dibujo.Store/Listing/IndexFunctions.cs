using System.Text;
using System.Text.Json;
using Dibujo.Core.Json;
using Dibujo.Core.Listing;
using Dibujo.Core.Values;
using Dibujo.Store.Writing;
using Microsoft.Data.Sqlite;

namespace Dibujo.Store.Listing;

/// <summary>
/// What the database calls to keep its index of values: triggers on the records use it, so every connection that writes them has to
/// know it. See the migration that makes the index.
/// </summary>
internal static class IndexFunctions
{
    /// <summary>Makes the functions known to a connection.</summary>
    internal static void AddTo(SqliteConnection connection)
    {
        connection.CreateFunction<object?, string, byte[]?>("dibujo_key", (value, type) => RecordIndex.Key(Of(value, type)), isDeterministic: true);
        connection.CreateFunction<string, string>("dibujo_text", values => RecordIndex.Text(new(Document(values))), isDeterministic: true);
        connection.CreateFunction("dibujo_by_trigger", () => RecordIndexing.IsByTrigger);
        connection.CreateFunction<byte[], string, string, bool>("dibujo_holds", Holds, isDeterministic: true);
    }

    /// <summary>Whether one of those fields, named in a list with commas, has the folded text in it. It is called for very many records, and makes nothing of them.</summary>
    private static bool Holds(byte[] values, string fields, string text)
    {
        var reader = new Utf8JsonReader(values);
        ReadOnlySpan<byte> field = default;
        while (reader.Read())
        {
            if (reader is { TokenType: JsonTokenType.PropertyName, CurrentDepth: 1 })
            {
                field = reader.ValueSpan;
            }
            else if (reader.TokenType == JsonTokenType.String && ListKey.Folded(reader.GetString()!).Contains(text, StringComparison.Ordinal) && IsNamed(field, fields))
            {
                return true;
            }
        }

        return false;
    }

    private static bool IsNamed(ReadOnlySpan<byte> field, string fields) => fields.Split(',').Contains(Encoding.UTF8.GetString(field));

    private static IReadOnlyDictionary<string, Value> Document(string json) => JsonSerializer.Deserialize(json, CoreJson.Default.IReadOnlyDictionaryStringValue)!;

    /// <summary>A value as the database takes it out of a record: with what it was in JSON.</summary>
    private static Value Of(object? value, string type) => (value, type) switch
    {
        (_, "true") => new YesNo(true),
        (_, "false") => new YesNo(false),
        (long whole, _) => new Number(whole),
        (double amount, _) => new Number(decimal.CreateSaturating(amount)),
        (string json, "array" or "object") => JsonSerializer.Deserialize(json, CoreJson.Default.Value)!,
        (string text, _) => new Text(text),
        _ => Value.Blank,
    };
}
