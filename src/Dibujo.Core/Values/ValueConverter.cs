using System.Buffers;
using System.Collections.Immutable;
using System.Text;
using System.Text.Json;
using System.Text.Json.Serialization;

namespace Dibujo.Core.Values;

/// <summary>A value as bare JSON: text, number, true, false, null, a list of keys, or parts by their keys.</summary>
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
            JsonTokenType.Number => ReadNumber(ref reader),
            JsonTokenType.StartArray => ReadChoices(ref reader),
            JsonTokenType.StartObject => ReadParts(ref reader),
            _ => throw Misfit(),
        };

    /// <inheritdoc/>
    public override void Write(Utf8JsonWriter writer, Value value, JsonSerializerOptions options) => Write(writer, value);

    /// <summary>Writes the value; null as a blank one.</summary>
    internal static void Write(Utf8JsonWriter writer, Value? value)
    {
        switch (value)
        {
            case null or Blank:
                writer.WriteNullValue();
                break;
            case Number number:
                writer.WriteNumberValue(number.Amount);
                break;
            case YesNo answer:
                writer.WriteBooleanValue(answer.IsYes);
                break;
            case Link link:
                writer.WriteNumberValue(link.Record);
                break;
            case Choices choices:
                writer.WriteStartArray();
                foreach (var key in choices.Keys)
                {
                    writer.WriteStringValue(key);
                }

                writer.WriteEndArray();
                break;
            case Compound compound:
                writer.WriteStartObject();
                foreach (var (key, text) in compound.Parts)
                {
                    writer.WriteString(key, text);
                }

                writer.WriteEndObject();
                break;
            default:
                writer.WriteStringValue(value.Plain);
                break;
        }
    }

    /// <summary>Whether two values are the same where they are stored, whatever they are taken for: a day and the text of that day are.</summary>
    public static bool AreAlike(Value one, Value other) => one.Equals(other) || (one, other) switch
    {
        (Number number, Link link) => number.Amount == link.Record,
        (Link link, Number number) => number.Amount == link.Record,
        _ => IsText(one) && IsText(other) && one.Plain == other.Plain,
    };

    private static bool IsText(Value value) => value is Text or Date or Moment or Choice or Person;

    private static Number ReadNumber(ref Utf8JsonReader reader)
    {
        var text = Encoding.ASCII.GetString(reader.HasValueSequence ? reader.ValueSequence.ToArray() : reader.ValueSpan);
        return ExactDecimal.TryParse(text, out var amount)
            ? new(amount)
            : throw new JsonException($"this number is too large or too exact; at most {ExactDecimal.MostDigits} digits fit");
    }

    private static Choices ReadChoices(ref Utf8JsonReader reader)
    {
        var keys = ImmutableArray.CreateBuilder<string>();
        var seen = new HashSet<string>(StringComparer.Ordinal);
        while (reader.Read() && reader.TokenType != JsonTokenType.EndArray)
        {
            var key = reader.TokenType == JsonTokenType.String ? reader.GetString()! : throw Misfit();
            if (seen.Add(key))
            {
                keys.Add(key);
            }
        }

        return new(keys.ToImmutable());
    }

    private static Compound ReadParts(ref Utf8JsonReader reader)
    {
        var compound = Compound.Empty;
        var seen = new HashSet<string>(StringComparer.Ordinal);
        while (reader.Read() && reader.TokenType != JsonTokenType.EndObject)
        {
            var part = reader.GetString()!;
            if (!seen.Add(part))
            {
                throw new JsonException($"the part “{Excerpt.Of(part)}” stands here twice");
            }

            reader.Read();
            compound = reader.TokenType switch
            {
                JsonTokenType.String => compound.With(part, new Text(reader.GetString()!)),
                JsonTokenType.Null => compound,
                _ => throw Misfit(),
            };
        }

        return compound;
    }

    private static JsonException Misfit() =>
        new("a value is text, a number, true, false, null, a list of keys, or an object of texts");
}
