using System.Globalization;
using System.Text;

namespace Dibujo.Core.Expressions;

internal enum TokenKind
{
    Number,
    Text,

    /// <summary>Text that stands for a date, time or duration: <c>@"2026-11-24"</c>.</summary>
    At,
    Word,
    Mark,
    End,
}

/// <summary>A word, number, text or mark; <paramref name="Content"/> is text without its quotation marks.</summary>
internal readonly record struct Token(TokenKind Kind, string Content, int Place);

/// <summary>Cuts an expression into tokens.</summary>
internal static class Lexer
{
    private static readonly string[] Marks = ["**", "!=", "<=", ">=", "..", "+", "-", "*", "/", "=", "<", ">", "(", ")", "[", "]", ",", ".", "?"];

    internal static List<Token> Cut(string text)
    {
        var tokens = new List<Token>();
        var at = 0;
        while (at < text.Length)
        {
            var c = text[at];
            if (char.IsWhiteSpace(c))
            {
                at++;
            }
            else if (char.IsAsciiDigit(c) || (c == '.' && at + 1 < text.Length && char.IsAsciiDigit(text[at + 1])))
            {
                var end = EndOfNumber(text, at);
                tokens.Add(new(TokenKind.Number, text[at..end], at));
                at = end;
            }
            else if (c is '"' or '@')
            {
                var start = at;
                at += c == '@' ? 1 : 0;
                var content = ReadText(text, ref at, start);
                tokens.Add(new(c == '@' ? TokenKind.At : TokenKind.Text, content, start));
            }
            else if (char.IsLetter(c) || c == '_')
            {
                var end = at + 1;
                while (end < text.Length && (char.IsLetterOrDigit(text[end]) || text[end] == '_'))
                {
                    end++;
                }

                tokens.Add(new(TokenKind.Word, text[at..end], at));
                at = end;
            }
            else if (Array.Find(Marks, mark => text.AsSpan(at).StartsWith(mark, StringComparison.Ordinal)) is { } mark)
            {
                tokens.Add(new(TokenKind.Mark, mark, at));
                at += mark.Length;
            }
            else
            {
                throw new ExpressionException(at, $"“{c}” means nothing here.", "Take it out.");
            }
        }

        tokens.Add(new(TokenKind.End, "", text.Length));
        return tokens;
    }

    private static int EndOfNumber(string text, int at)
    {
        while (at < text.Length && char.IsAsciiDigit(text[at]))
        {
            at++;
        }

        // Two points are a range, not a fraction.
        if (at + 1 < text.Length && text[at] == '.' && char.IsAsciiDigit(text[at + 1]))
        {
            at++;
            while (at < text.Length && char.IsAsciiDigit(text[at]))
            {
                at++;
            }
        }

        return at;
    }

    private static string ReadText(string text, ref int at, int start)
    {
        if (at >= text.Length || text[at] != '"')
        {
            throw new ExpressionException(start, "“@” is followed by no text.", "Write a date or duration in quotation marks after it.");
        }

        var content = new StringBuilder();
        for (at++; at < text.Length && text[at] != '"'; at++)
        {
            if (text[at] != '\\')
            {
                content.Append(text[at]);
                continue;
            }

            at++;
            content.Append(at >= text.Length ? throw Unended(start) : text[at] switch
            {
                'n' => '\n',
                't' => '\t',
                'r' => '\r',
                'u' => ReadCode(text, ref at),
                var other => other,
            });
        }

        if (at >= text.Length)
        {
            throw Unended(start);
        }

        at++;
        return content.ToString();
    }

    private static char ReadCode(string text, ref int at)
    {
        if (at + 4 >= text.Length || !ushort.TryParse(text.AsSpan(at + 1, 4), NumberStyles.AllowHexSpecifier, CultureInfo.InvariantCulture, out var code))
        {
            throw new ExpressionException(at, "“\\u” is not followed by four hexadecimal digits.", "Write the character itself.");
        }

        at += 4;
        return (char)code;
    }

    private static ExpressionException Unended(int start) => new(start, "The text has no end.", "Close it with a quotation mark.");
}
