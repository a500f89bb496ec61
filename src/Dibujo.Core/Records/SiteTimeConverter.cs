using System.Globalization;
using System.Text.Json;
using System.Text.Json.Serialization;

namespace Dibujo.Core.Records;

/// <summary>A moment by the site's clock, to the second. One with a zone is refused: turned into another it could be another day.</summary>
internal sealed class SiteTimeConverter : JsonConverter<DateTime>
{
    private const string Pattern = "yyyy-MM-dd'T'HH:mm:ss";

    private static readonly string[] Patterns = [Pattern, "yyyy-MM-dd'T'HH:mm:ss.FFFFFFF", "yyyy-MM-dd'T'HH:mm", "yyyy-MM-dd"];

    /// <inheritdoc/>
    public override DateTime Read(ref Utf8JsonReader reader, Type typeToConvert, JsonSerializerOptions options) =>
        (reader.TokenType == JsonTokenType.String ? Parse(reader.GetString()!) : null)
            ?? throw new JsonException("a moment is by the site's clock, such as 2026-11-24T09:30:00, without a zone");

    /// <inheritdoc/>
    public override void Write(Utf8JsonWriter writer, DateTime value, JsonSerializerOptions options) =>
        writer.WriteStringValue(value.ToString(Pattern, CultureInfo.InvariantCulture));

    /// <summary>The moment; null where the text is none.</summary>
    internal static DateTime? Parse(string text) =>
        DateTime.TryParseExact(text, Patterns, CultureInfo.InvariantCulture, DateTimeStyles.None, out var at) ? at : null;
}
