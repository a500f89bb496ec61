using System.Buffers.Binary;
using System.Text;
using Dibujo.Core.Values;

namespace Dibujo.Core.Listing;

/// <summary>
/// A value as bytes that sort as rules compare values: numbers by size, days and moments by time, text without regard to case or
/// composition. Numbers count to fifteen digits, text to its first 400 letters. Made alike of a bare value and of one that has been
/// fitted to its field.
/// </summary>
public static class ListKey
{
    /// <summary>How many characters of a text are in its key; what comes after them is not sorted or looked at by a list's tests.</summary>
    public const int LongestText = 400;

    private const byte NumberTag = 0x20;
    private const byte TextTag = 0x30;
    private const byte SetTag = 0x40;
    private const char Fence = '\u0001';

    private static readonly decimal FractionUnit = 1_0000_0000_0000_0000_0000_0000_0000m;

    /// <summary>The key; null for a blank value, which sorts nowhere.</summary>
    public static byte[]? Of(Value value) => value switch
    {
        _ when value.IsBlank => null,
        Number number => Of(number.Amount),
        YesNo answer => Of(answer.IsYes ? 1m : 0m),
        Link link => Of((decimal)link.Record),
        Choices choices => Tagged(SetTag, Fence + string.Join(Fence, choices.Keys.Order(StringComparer.Ordinal).Select(FoldedText.Of)) + Fence),
        // A person sorts by the family name and a place by its town: the later part of the alphabet of what is filled in says nothing.
        Compound compound => Tagged(TextTag, string.Join(' ', Parts.Select(part => compound[part].Plain).Where(part => part.Length > 0))),
        _ => Tagged(TextTag, value.Plain),
    };

    /// <summary>What has to occur in a key for the text to contain that text.</summary>
    public static byte[] Within(string text) => Encoding.UTF8.GetBytes(FoldedText.Of(text));

    /// <summary>With what a key begins for the text to begin with that text.</summary>
    public static byte[] Beginning(string text) => Tagged(TextTag, text);

    /// <summary>What has to occur in the key of several choices for that one to be among them.</summary>
    public static byte[] Among(string choice) => Encoding.UTF8.GetBytes(Fence + FoldedText.Of(choice) + Fence);

    /// <summary>The choices, folded, of which a key was made: one, or several.</summary>
    public static IEnumerable<string> ChoicesIn(byte[] key) =>
        Encoding.UTF8.GetString(key.AsSpan(1)).Split(Fence, StringSplitOptions.RemoveEmptyEntries);

    /// <summary>The text in the form in which it is compared.</summary>
    public static string Folded(string text) => FoldedText.Of(text);

    private static readonly string[] Parts = ["family", "given", "city", "street", "postalCode", "country"];

    private static byte[] Tagged(byte tag, string text)
    {
        var folded = FoldedText.Of(text.Length > LongestText ? text[..LongestText] : text);
        var key = new byte[1 + Encoding.UTF8.GetByteCount(folded)];
        key[0] = tag;
        Encoding.UTF8.GetBytes(folded, key.AsSpan(1));
        return key;
    }

    /// <summary>Sign, then what stands before and what stands after the point, each in twelve bytes; turned over for what is less than nothing.</summary>
    private static byte[] Of(decimal amount)
    {
        // As the database reads it: to fifteen digits.
        var size = decimal.CreateSaturating((double)Math.Abs(amount));
        var whole = decimal.Truncate(size);
        Span<byte> key = stackalloc byte[26];
        key[0] = NumberTag;
        key[1] = (byte)(amount < 0 ? 0 : 1);
        Write(whole, key[2..14]);
        Write(decimal.Truncate((size - whole) * FractionUnit), key[14..26]);
        if (amount < 0)
        {
            foreach (ref var part in key[2..])
            {
                part = (byte)~part;
            }

            return key.ToArray();
        }

        return key[..(key.LastIndexOfAnyExcept((byte)0) + 1)].ToArray();
    }

    private static void Write(decimal whole, Span<byte> to)
    {
        Span<int> bits = stackalloc int[4];
        decimal.GetBits(whole, bits);
        for (var i = 0; i < 3; i++)
        {
            BinaryPrimitives.WriteInt32BigEndian(to[(4 * i)..], bits[2 - i]);
        }
    }
}
