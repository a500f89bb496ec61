using System.Text.Json;
using System.Text.Json.Serialization;
using System.Text.Json.Serialization.Metadata;
using Dibujo.Core.Checking;

namespace Dibujo.Core.Json;

/// <summary>Reads JSON that somebody wrote by hand: a mistake comes back as a problem with its place, not as an exception.</summary>
public static class JsonText
{
    private static readonly JsonSerializerOptions Strict = StrictOf(CoreJson.Default);

    /// <summary>The value, or what is wrong with the text and where. The type must be one that <see cref="CoreJson"/> knows.</summary>
    public static (T? Value, Problem? Problem) Read<T>(ReadOnlySpan<byte> utf8)
        where T : class => Read<T>(utf8, Strict);

    /// <summary>The context's options, with nulls in lists and unnamed kinds refused.</summary>
    internal static JsonSerializerOptions StrictOf(JsonSerializerContext context) =>
        new(context.Options) { TypeInfoResolver = context.WithAddedModifier(ListsWithoutNulls.Demand).WithAddedModifier(KindsNamed.Demand) };

    /// <summary>Like <see cref="Read{T}(ReadOnlySpan{byte})"/>, for a type that other options know.</summary>
    internal static (T? Value, Problem? Problem) Read<T>(ReadOnlySpan<byte> utf8, JsonSerializerOptions options)
        where T : class
    {
        if (utf8.StartsWith("\uFEFF"u8))
        {
            utf8 = utf8[3..];
        }

        if (utf8.IsEmpty || utf8.Trim(" \t\r\n"u8).IsEmpty)
        {
            return (null, new("", "The file is empty.", "Give a JSON object."));
        }

        try
        {
            return JsonSerializer.Deserialize(utf8, (JsonTypeInfo<T>)options.GetTypeInfo(typeof(T))) is { } value
                ? (value, null)
                : (null, new("", "The file says null.", "Give a JSON object."));
        }
        catch (Exception mistake) when (IsMistake(mistake))
        {
            return (null, Describe(mistake));
        }
        catch (InvalidOperationException mistake)
        {
            // Text that is no Unicode is found only when a string is taken out of it.
            return (null, new("", $"The file is not valid JSON: {mistake.Message}", "Save it as UTF-8."));
        }
    }

    /// <summary>The value as JSON text in UTF-8. The type must be one that <see cref="CoreJson"/> knows.</summary>
    public static byte[] Write<T>(T value) => JsonSerializer.SerializeToUtf8Bytes(value, (JsonTypeInfo<T>)CoreJson.Default.Options.GetTypeInfo(typeof(T)));

    /// <summary>Whether the exception is the reader's complaint about a text.</summary>
    public static bool IsMistake(Exception exception) => exception is JsonException;

    /// <summary>The reader's complaint in words, with its place.</summary>
    public static Problem Describe(Exception mistake) => JsonMistake.Describe(mistake);
}
