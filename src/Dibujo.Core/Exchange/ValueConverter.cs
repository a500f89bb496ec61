using System.Text.Json;
using System.Text.Json.Serialization;
using Dibujo.Core.Values;

namespace Dibujo.Core.Exchange;

/// <summary>A value as a bare JSON scalar: text, number, true, false or null.</summary>
public sealed class ValueConverter : JsonConverter<Value>
{
    /// <inheritdoc/>
    public override bool HandleNull => true;

    /// <inheritdoc/>
    public override Value Read(ref Utf8JsonReader reader, Type typeToConvert, JsonSerializerOptions options) =>
        reader.TokenType switch
        {
            JsonTokenType.Null => Value.Blank,
            JsonTokenType.True => new YesNo(true),
            JsonTokenType.False => new YesNo(false),
            JsonTokenType.String => new Text(reader.GetString()!),
            JsonTokenType.Number when reader.TryGetDecimal(out var amount) => new Number(amount),
            JsonTokenType.Number => throw new JsonException("this number is too large; at most 28 digits fit"),
            _ => throw new JsonException("a value is text, a number, true, false or null"),
        };

    /// <inheritdoc/>
    public override void Write(Utf8JsonWriter writer, Value value, JsonSerializerOptions options)
    {
        switch (value)
        {
            case Blank:
                writer.WriteNullValue();
                break;
            case Number number:
                writer.WriteNumberValue(number.Amount);
                break;
            case YesNo answer:
                writer.WriteBooleanValue(answer.IsYes);
                break;
            default:
                writer.WriteStringValue(value.Plain);
                break;
        }
    }
}
