using System.Globalization;
using System.Text.RegularExpressions;

namespace Dibujo.Core.Values;

/// <summary>Numbers as they are written: read exactly, or not at all.</summary>
internal static partial class ExactDecimal
{
    /// <summary>The most digits of a number, and the most of them after the point.</summary>
    internal const int MostDigits = 28;

    /// <summary>
    /// Reads digits with a point and, where it is written so, an exponent. False where the text is no number, or has more
    /// digits than are kept: none is rounded away.
    /// </summary>
    internal static bool TryParse(ReadOnlySpan<char> text, out decimal number) =>
        decimal.TryParse(text, NumberStyles.AllowLeadingSign | NumberStyles.AllowDecimalPoint | NumberStyles.AllowExponent, CultureInfo.InvariantCulture, out number)
        && Fits(text);

    /// <summary>The same for people's tables, where the thousands may be set off by commas; one that sets off fewer or more digits is no number.</summary>
    internal static bool TryParseGrouped(string text, out decimal number)
    {
        number = 0;
        return Grouped().IsMatch(text) && TryParse(text.Replace(",", "", StringComparison.Ordinal), out number);
    }

    [GeneratedRegex(@"^[+-]?(\d{1,3}(,\d{3})+|\d*)(\.\d*)?$", RegexOptions.ExplicitCapture | RegexOptions.CultureInvariant, 1000)]
    private static partial Regex Grouped();

    private static bool Fits(ReadOnlySpan<char> text)
    {
        var end = text.IndexOfAny('e', 'E');
        var exponent = end < 0 ? 0 : int.TryParse(text[(end + 1)..], NumberStyles.AllowLeadingSign, CultureInfo.InvariantCulture, out var power) ? power : int.MaxValue;
        var (digits, after, zeros) = (0, 0, 0);
        var behindPoint = false;
        foreach (var letter in end < 0 ? text : text[..end])
        {
            if (letter == '.')
            {
                behindPoint = true;
            }
            else if (char.IsAsciiDigit(letter))
            {
                zeros = letter == '0' ? zeros + 1 : 0;
                digits += digits > 0 || letter != '0' ? 1 : 0;
                after += behindPoint ? 1 : 0;
            }
        }

        // Zeros at the end say nothing.
        return digits == 0 || (digits - Math.Min(zeros, digits) <= MostDigits && (long)after - Math.Min(zeros, after) - exponent <= MostDigits);
    }
}
