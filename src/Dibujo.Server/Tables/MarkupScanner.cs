using System.Text;

namespace Dibujo.Server.Tables;

/// <summary>
/// Goes through XML from tag to tag without keeping any of it, however much it is: for looking at what something claims to be before it
/// is read in earnest. Whoever reads it after that says whether it is well formed.
/// </summary>
/// <param name="stream">UTF-8.</param>
/// <param name="most">How many bytes are looked at; what is longer ends there.</param>
internal sealed class MarkupScanner(Stream stream, long most)
{
    private const int Kept = 64;

    private static readonly string[] Begins = [.. Enumerable.Range('a', 26).Select(letter => $"{(char)letter}")];
    private static readonly string[] Ends = [.. Begins.Select(letter => $"/{letter}")];

    private readonly byte[] buffer = new byte[64 * 1024];
    private readonly byte[] text = new byte[Kept];
    private int start;
    private int end;
    private long looked;

    /// <summary>The tag without brackets and prefix: a slash before the name of one that ends, or a slash alone where it is of no interest.</summary>
    internal string Name { get; private set; } = "";

    /// <summary>Whether the tag ends at once.</summary>
    internal bool IsEmpty { get; private set; }

    /// <summary>How many bytes of text there are before the tag, since the one before.</summary>
    internal long TextLength { get; private set; }

    /// <summary>Whether there was more than may be looked at.</summary>
    internal bool IsCut { get; private set; }

    /// <summary>The beginning of the text before the tag.</summary>
    internal string Text => Encoding.UTF8.GetString(text, 0, (int)Math.Min(TextLength, Kept));

    private ReadOnlySpan<byte> Tag => buffer.AsSpan(tagStart, tagLength);

    private int tagStart;
    private int tagLength;

    /// <summary>Goes to the next tag; false at the end, and where a tag is longer than any in a workbook.</summary>
    internal bool Next()
    {
        TextLength = 0;
        int at;
        while ((at = buffer.AsSpan(start, end - start).IndexOf((byte)'<')) < 0)
        {
            TakeText(end - start);
            (start, end) = (0, 0);
            if (!Fill())
            {
                return false;
            }
        }

        TakeText(at);
        start += at;
        while ((at = buffer.AsSpan(start, end - start).IndexOf((byte)'>')) < 0)
        {
            buffer.AsSpan(start, end - start).CopyTo(buffer);
            (start, end) = (0, end - start);
            if (end == buffer.Length || !Fill())
            {
                return false;
            }
        }

        IsEmpty = buffer[start + at - 1] == '/';
        (tagStart, tagLength) = (start + 1, at - 1);
        start += at + 1;
        Name = NameOf(Tag);
        return true;
    }

    /// <summary>The value of an attribute of the tag; null where it has none of that name.</summary>
    internal string? Attribute(string name)
    {
        var tag = Tag;
        var sought = Encoding.UTF8.GetBytes($" {name}=");
        var at = tag.IndexOf(sought);
        if (at < 0 || at + sought.Length >= tag.Length)
        {
            return null;
        }

        var rest = tag[(at + sought.Length)..];
        var close = rest[1..].IndexOf(rest[0]);
        return close < 0 ? null : Encoding.UTF8.GetString(rest.Slice(1, close));
    }

    private static string NameOf(ReadOnlySpan<byte> tag)
    {
        var name = tag[..(tag.IndexOfAny(" \t\r\n"u8) is >= 0 and var space ? space : tag.Length)].TrimEnd((byte)'/');
        var isEnd = name is [(byte)'/', ..];
        name = name[(name.IndexOf((byte)':') + 1)..].TrimStart((byte)'/');
        // Of these there may be millions.
        return name switch
        {
            [var letter and ((byte)'c' or (byte)'v' or (byte)'t')] => isEnd ? Ends[letter - 'a'] : Begins[letter - 'a'],
            [(byte)'r', (byte)'o', (byte)'w'] => isEnd ? "/row" : "row",
            [(byte)'s', (byte)'i'] => isEnd ? "/si" : "si",
            [(byte)'i', (byte)'s'] => isEnd ? "/is" : "is",
            _ => isEnd ? "/" : Encoding.UTF8.GetString(name),
        };
    }

    private void TakeText(int length)
    {
        if (TextLength < Kept)
        {
            buffer.AsSpan(start, (int)Math.Min(length, Kept - TextLength)).CopyTo(text.AsSpan((int)TextLength));
        }

        TextLength += length;
    }

    private bool Fill()
    {
        if (looked >= most)
        {
            IsCut = true;
            return false;
        }

        var read = stream.Read(buffer, end, (int)Math.Min(buffer.Length - end, most - looked));
        (end, looked) = (end + read, looked + read);
        return read > 0;
    }
}
