using System.Text.Json;

namespace Dibujo.Store.Listing;

/// <summary>Where a page ended: among what is filled in, at a key, or among what is blank; and the record's number.</summary>
internal readonly record struct ListPlace(bool IsBlank, object? Key, int? Id)
{
    /// <summary>To be handed out; whoever hands it back changed may see other records than meant, and nothing else.</summary>
    internal string Written => Convert.ToBase64String(JsonSerializer.SerializeToUtf8Bytes<object?[]>([Key switch { null => "blank", byte[] => "key", long => "number", _ => "text" }, Key, Id]));

    internal static ListPlace Of((object? Key, int Id) last) => new(last.Key is null, last.Key, last.Id);

    /// <exception cref="FormatException">It comes from elsewhere.</exception>
    internal static ListPlace Read(string? written)
    {
        if (written is null)
        {
            return default;
        }

        try
        {
            using var document = JsonDocument.Parse(Convert.FromBase64String(written));
            var (kind, key, id) = (document.RootElement[0].GetString(), document.RootElement[1], document.RootElement[2].GetInt32());
            return kind switch
            {
                "blank" => new(true, null, id),
                "key" => new(false, key.GetBytesFromBase64(), id),
                "number" => new(false, key.GetInt64(), id),
                _ => new(false, key.GetString() ?? throw new FormatException("A key is missing."), id),
            };
        }
        catch (Exception mistake) when (mistake is JsonException or InvalidOperationException or IndexOutOfRangeException)
        {
            throw new FormatException("This is no place in a list.", mistake);
        }
    }
}
