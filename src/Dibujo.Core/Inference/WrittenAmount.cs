using System.Globalization;

namespace Dibujo.Core.Inference;

/// <summary>A number as people write it, with what stands around it: 1,234.50, 1.234,5 kg, € 12, CHF 7.</summary>
/// <param name="Amount">The number.</param>
/// <param name="Around">The unit or currency behind it, or the currency before it; empty for nothing.</param>
internal readonly record struct WrittenAmount(decimal Amount, string Around)
{
    /// <summary>More digits than a spreadsheet keeps are a name and no number.</summary>
    private const int MostDigits = 15;

    /// <summary>Reads it. False where there is no number, where zeros lead it as they lead an inventory number, or where thousands are set off otherwise than by three digits.</summary>
    internal static bool TryRead(string text, DecimalMark mark, out WrittenAmount written)
    {
        written = default;
        var all = text.AsSpan().Trim();
        var start = all.IndexOfAnyInRange('0', '9');
        if (start < 0)
        {
            return false;
        }

        var sign = start > 0 && all[start - 1] is '-' or '\u2212' or '+' ? 1 : 0;
        var end = all.LastIndexOfAnyInRange('0', '9') + 1;
        var before = all[..(start - sign)].Trim();
        var behind = all[end..].Trim();
        if ((before.Length > 0 && behind.Length > 0) || behind.Length > 12 || (before.Length > 0 && Currency.Of(before.ToString()) is null))
        {
            return false;
        }

        Span<char> plain = stackalloc char[end - start + 1];
        var length = 0;
        if (sign == 1 && all[start - 1] != '+')
        {
            plain[length++] = '-';
        }

        return Digits(all[start..end], mark, plain, ref length)
            && decimal.TryParse(plain[..length], NumberStyles.AllowDecimalPoint | NumberStyles.AllowLeadingSign, CultureInfo.InvariantCulture, out var amount)
            && Keep(new(amount, (before.Length > 0 ? before : behind).ToString()), out written);
    }

    /// <summary>Which mark stands before the fraction; null where the text does not tell.</summary>
    internal static DecimalMark? MarkOf(string text)
    {
        var (comma, point) = (text.LastIndexOf(','), text.LastIndexOf('.'));
        if (comma >= 0 && point >= 0)
        {
            return comma > point ? DecimalMark.Comma : DecimalMark.Point;
        }

        var at = Math.Max(comma, point);
        if (at < 0 || text.IndexOfAny([',', '.']) != at)
        {
            // Twice the same: those are thousands, so the other one is the mark.
            return at < 0 ? null : comma >= 0 ? DecimalMark.Point : DecimalMark.Comma;
        }

        var digits = 0;
        while (at + 1 + digits < text.Length && char.IsAsciiDigit(text[at + 1 + digits]))
        {
            digits++;
        }

        return digits == 3 && at is > 0 and <= 3 && text[0] != '0' ? null : comma >= 0 ? DecimalMark.Comma : DecimalMark.Point;
    }

    /// <summary>The digits with a point before the fraction.</summary>
    private static bool Digits(ReadOnlySpan<char> text, DecimalMark mark, Span<char> plain, ref int length)
    {
        var (point, group) = mark == DecimalMark.Point ? ('.', ',') : (',', '.');
        var (whole, fraction, sinceGroup, isGrouped) = (0, -1, 0, false);
        foreach (var c in text)
        {
            if (char.IsAsciiDigit(c))
            {
                plain[length++] = c;
                whole += fraction < 0 ? 1 : 0;
                fraction += fraction >= 0 ? 1 : 0;
                sinceGroup++;
            }
            else if (c == point && fraction < 0)
            {
                if (isGrouped && sinceGroup != 3)
                {
                    return false;
                }

                plain[length++] = '.';
                fraction = 0;
            }
            else if (fraction < 0 && (c == group || c is ' ' or '\u00A0' or '\u202F' or '\u2009' or '\'' or '’'))
            {
                if (isGrouped ? sinceGroup != 3 : whole is 0 or > 3)
                {
                    return false;
                }

                (isGrouped, sinceGroup) = (true, 0);
            }
            else
            {
                return false;
            }
        }

        var hasLeadingZero = text[0] == '0' && whole > 1;
        return !hasLeadingZero && (fraction >= 0 || !isGrouped || sinceGroup == 3) && whole + Math.Max(fraction, 0) <= MostDigits;
    }

    private static bool Keep(WrittenAmount read, out WrittenAmount written)
    {
        written = read;
        return true;
    }
}
