using Dibujo.Core.Values;

namespace Dibujo.Core.Notations;

/// <summary>Numbers as people write them, with what stands around: 1,234.50, 1.234,5 kg, € 12, CHF 7, 1’000, −3.</summary>
internal static class AmountReader
{
    private const int LongestAround = 12;
    private const int LongestNumber = 60;

    /// <summary>What it may be, as the notation has it first.</summary>
    /// <param name="text">What is read.</param>
    /// <param name="notation">How its writer writes.</param>
    /// <param name="scale">How many digits may follow the point.</param>
    internal static List<WrittenAmount> Read(string text, Notation notation, int scale)
    {
        if (!TryCut(text, out var digits, out var isNegative, out var around, out var isBefore))
        {
            return [];
        }

        var own = Under(digits, notation.Marks.Point);
        var other = Under(digits, notation.Marks.Point == '.' ? ',' : '.');
        if (isNegative)
        {
            (own, other) = (-own, -other);
        }

        if (own is null || other is null || own == other || notation.IsDecided)
        {
            // Thousands that are set off otherwise than by three digits are no fraction.
            return own is { } one ? [new(one, around, isBefore)]
                : other is { } rest && !notation.IsDecided && !(FractionAfter(digits, notation.Marks.Group) > 3) ? [new(rest, around, isBefore)]
                : [];
        }

        // One mark, with three digits behind it.
        var mark = digits[digits.IndexOfAny('.', ',')];
        var isTold = (mark == notation.Marks.Point ? scale >= 3 : mark == notation.Marks.Group);
        return isTold ? [new(own.Value, around, isBefore)] : [new(own.Value, around, isBefore), new(other.Value, around, isBefore)];
    }

    /// <summary>Parts the number from what stands before or behind it.</summary>
    private static bool TryCut(string text, out ReadOnlySpan<char> digits, out bool isNegative, out string around, out bool isBefore)
    {
        digits = default;
        isNegative = false;
        around = "";
        isBefore = false;
        var all = text.AsSpan().Trim();
        var start = all.IndexOfAnyInRange('0', '9');
        if (start < 0)
        {
            return false;
        }

        // A fraction may begin with its mark.
        start -= start > 0 && all[start - 1] is '.' or ',' && (start == 1 || !char.IsLetter(all[start - 2])) ? 1 : 0;
        var end = all.LastIndexOfAnyInRange('0', '9') + 1;
        var before = all[..start].TrimEnd();
        var sign = before.Length > 0 && before[^1] is '-' or '\u2212' or '+' ? before[^1] : '\0';
        before = (sign == '\0' ? before : before[..^1]).Trim();
        var behind = all[end..].Trim();
        if (before is ['-' or '\u2212', .. var unit] && sign == '\0')
        {
            sign = '-';
            before = unit.Trim();
        }

        if ((before.Length > 0 && behind.Length > 0) || before.Length > LongestAround || behind.Length > LongestAround || end - start > LongestNumber)
        {
            return false;
        }

        digits = all[start..end];
        isNegative = sign is '-' or '\u2212';
        isBefore = before.Length > 0;
        around = (isBefore ? before : behind).ToString();
        return true;
    }

    /// <summary>The number where that mark stands before the fraction; null where it is none then.</summary>
    private static decimal? Under(ReadOnlySpan<char> text, char point)
    {
        Span<char> plain = stackalloc char[text.Length];
        var (length, whole, since, group, hasPoint) = (0, 0, 0, '\0', false);
        foreach (var c in text)
        {
            if (char.IsAsciiDigit(c))
            {
                plain[length++] = c;
                whole += hasPoint ? 0 : 1;
                since++;
            }
            else if (c == point && !hasPoint && (group == '\0' || since == 3))
            {
                plain[length++] = '.';
                hasPoint = true;
            }
            else if (!hasPoint && c is ',' or '.' or ' ' or '\'' or '’' or '\u00A0' or '\u202F' or '\u2009' && c != point && (group == '\0' ? whole is > 0 and <= 3 : c == group && since == 3))
            {
                (group, since) = (c, 0);
            }
            else
            {
                return null;
            }
        }

        return (group == '\0' || hasPoint || since == 3) && ExactDecimal.TryParse(plain[..length], out var amount) ? amount : null;
    }

    private static int FractionAfter(ReadOnlySpan<char> digits, char mark) => digits.LastIndexOf(mark) is >= 0 and var at ? digits.Length - at - 1 : 0;
}

/// <summary>A number with what stands around it.</summary>
/// <param name="Amount">The number.</param>
/// <param name="Around">The unit or currency behind it, or the currency before it; empty for nothing.</param>
/// <param name="IsBefore">Whether that stands before it.</param>
internal readonly record struct WrittenAmount(decimal Amount, string Around, bool IsBefore);
