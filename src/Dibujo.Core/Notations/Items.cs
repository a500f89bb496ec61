using System.Text;

namespace Dibujo.Core.Notations;

/// <summary>Several texts in one, with commas between: one in which a comma, a semicolon or a quotation mark stands is in quotation marks, those within doubled.</summary>
internal static class Items
{
    internal static string Join(IEnumerable<string> items) => string.Join(", ", items.Select(Write));

    /// <summary>One of them as it stands among the others.</summary>
    internal static string Write(string item) => item.AsSpan().IndexOfAny(",;\"\r\n") >= 0 || (item.Length > 0 && (char.IsWhiteSpace(item[0]) || char.IsWhiteSpace(item[^1])))
        ? $"\"{item.Replace("\"", "\"\"", StringComparison.Ordinal)}\"" : item;

    /// <summary>The texts, without what is around them; separated by semicolons where there are any outside of quotation marks, else by commas.</summary>
    internal static List<string> Split(string text)
    {
        var marks = Marks(text);
        var separator = marks.Exists(at => text[at] == ';') ? ';' : ',';
        var items = new List<string>();
        var start = 0;
        foreach (var at in marks.Where(at => text[at] == separator).Append(text.Length))
        {
            items.Add(Read(text[start..at].Trim()));
            start = at + 1;
        }

        return items;
    }

    /// <summary>Where commas and semicolons stand outside of quotation marks; such marks count at the beginning of a text only.</summary>
    private static List<int> Marks(string text)
    {
        var marks = new List<int>();
        var (isQuoted, isBeginning) = (false, true);
        for (var at = 0; at < text.Length; at++)
        {
            var c = text[at];
            if (isQuoted)
            {
                // A doubled one ends and begins again.
                isQuoted = c != '"';
                isBeginning = !isQuoted && at + 1 < text.Length && text[at + 1] == '"';
            }
            else if (c == '"' && isBeginning)
            {
                isQuoted = true;
            }
            else if (c is ',' or ';')
            {
                marks.Add(at);
                isBeginning = true;
            }
            else
            {
                isBeginning &= char.IsWhiteSpace(c);
            }
        }

        return marks;
    }

    private static string Read(string item) => item is ['"', _, .., '"'] or ['"', '"'] && Quoted(item[1..^1]) is { } inner ? inner : item;

    /// <summary>What stands between quotation marks; null where one within is not doubled.</summary>
    private static string? Quoted(string inner)
    {
        var read = new StringBuilder();
        for (var at = 0; at < inner.Length; at++)
        {
            if (inner[at] == '"' && (++at == inner.Length || inner[at] != '"'))
            {
                return null;
            }

            read.Append(inner[at]);
        }

        return read.ToString();
    }
}
