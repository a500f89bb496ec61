using System.Globalization;

namespace Dibujo.Core.Inference;

/// <summary>Dates in the usual ways of writing them: 2026-11-29, 29.11.2026, 29/11/26, 29 Nov 2026, November 29, 2026; with a time behind where there is one.</summary>
internal static class WrittenDate
{
    private static readonly string[] Months = ["jan", "feb", "mar", "apr", "may", "jun", "jul", "aug", "sep", "oct", "nov", "dec"];

    private static readonly string[] Times = ["H:mm", "H:mm:ss", "H:mm:ss.FFFFFFF", "h:mm tt", "h:mm:ss tt"];

    /// <summary>Reads a day. False where there is a time behind, or no such day.</summary>
    internal static bool TryReadDay(string text, DateOrder order, out DateOnly day) => TryRead(text, order, out day, out _);

    /// <summary>Reads a day with a time.</summary>
    internal static bool TryReadMoment(string text, DateOrder order, out DateTime moment)
    {
        moment = default;
        var cut = TimeAt(text);
        if (cut <= 0 || !TryReadDay(text[..cut], order, out var day)
            || !TimeOnly.TryParseExact(text[(cut + 1)..].TrimEnd('Z'), Times, CultureInfo.InvariantCulture, DateTimeStyles.AllowWhiteSpaces, out var time))
        {
            return false;
        }

        moment = day.ToDateTime(time);
        return true;
    }

    /// <summary>Whether the digits of a date tell which of day and month comes first: null where they do not, or it is no date.</summary>
    internal static DateOrder? OrderOf(string text) => TimeAt(text) is > 0 and var cut ? OrderOf(text[..cut])
        : TryRead(text, DateOrder.DayFirst, out _, out var isDay) && isDay is false ? DateOrder.DayFirst
        : TryRead(text, DateOrder.MonthFirst, out _, out var isMonth) && isMonth is false ? DateOrder.MonthFirst
        : null;

    /// <summary>Where the day ends and a time follows; -1 for nowhere.</summary>
    private static int TimeAt(string text) => text.IndexOf(':', StringComparison.Ordinal) is >= 0 and var colon ? text.LastIndexOfAny(['T', ' '], colon) : -1;

    /// <param name="text">What is read.</param>
    /// <param name="order">Which comes first where both would do.</param>
    /// <param name="day">The day.</param>
    /// <param name="isOpen">Whether the other order would do as well; null where the order does not matter.</param>
    private static bool TryRead(string text, DateOrder order, out DateOnly day, out bool? isOpen)
    {
        day = default;
        isOpen = null;
        Span<Range> pieces = stackalloc Range[4];
        var all = text.AsSpan().Trim();
        if (all.Length is < 6 or > 24 || all.SplitAny(pieces, " ./-,", StringSplitOptions.RemoveEmptyEntries | StringSplitOptions.TrimEntries) != 3)
        {
            return false;
        }

        var one = all[pieces[0]];
        var two = all[pieces[1]];
        var three = all[pieces[2]];
        if (one.Length == 4 && Digits(one, out var year))
        {
            return Digits(two, out var m) && Digits(three, out var d) && Make(year, m, d, out day);
        }

        if (!Year(three, out year))
        {
            return false;
        }

        if (Month(two) is > 0 and var named)
        {
            return Digits(one, out var d) && Make(year, named, d, out day);
        }

        if (Month(one) is > 0 and var before)
        {
            return Digits(two, out var d) && Make(year, before, d, out day);
        }

        if (!Digits(one, out var first) || !Digits(two, out var second))
        {
            return false;
        }

        isOpen = first <= 12 && second <= 12;
        return order == DateOrder.DayFirst ? Make(year, second, first, out day) : Make(year, first, second, out day);
    }

    private static bool Digits(ReadOnlySpan<char> text, out int number) => int.TryParse(text, NumberStyles.None, CultureInfo.InvariantCulture, out number);

    /// <summary>A year of two digits is of the fifty years around the turn of the century.</summary>
    private static bool Year(ReadOnlySpan<char> text, out int year)
    {
        if (!Digits(text, out year) || text.Length is not (2 or 4))
        {
            return false;
        }

        year += text.Length == 4 ? 0 : year < 50 ? 2000 : 1900;
        return true;
    }

    private static int Month(ReadOnlySpan<char> text)
    {
        if (text.Length < 3)
        {
            return 0;
        }

        for (var i = 0; i < Months.Length; i++)
        {
            if (text.StartsWith(Months[i], StringComparison.OrdinalIgnoreCase)
                && CultureInfo.InvariantCulture.DateTimeFormat.MonthNames[i].AsSpan().StartsWith(text, StringComparison.OrdinalIgnoreCase))
            {
                return i + 1;
            }
        }

        return 0;
    }

    private static bool Make(int year, int month, int day, out DateOnly made)
    {
        made = default;
        if (year is < 1 or > 9999 || month is < 1 or > 12 || day < 1 || day > DateTime.DaysInMonth(year, month))
        {
            return false;
        }

        made = new(year, month, day);
        return true;
    }
}
