using System.Globalization;

namespace Dibujo.Core.Notations;

/// <summary>Days as people write them: 2027-03-01, 1.3.2027, 3/1/27, 1 Mar 2027, March 1st, 2027, 2027年3月1日, 01032027; without a year of this one; today, tomorrow, +14.</summary>
internal static class DayReader
{
    private static readonly string[] Fillers = ["of", "de", "del", "the", "den", "le", "el"];
    private static readonly string[] Ordinals = ["st", "nd", "rd", "th", "er", "º", "ª", "e"];

    /// <summary>What it may be, as the notation has it first; nothing where it is no day, or one that no calendar has.</summary>
    internal static List<DateOnly> Read(string text, Notation notation, DateOnly today)
    {
        var plain = text.Trim();
        if (!notation.IsDecided && Offset(plain) is { } days)
        {
            return today.DayNumber + days is >= 0 and var number && number <= DateOnly.MaxValue.DayNumber ? [DateOnly.FromDayNumber(number)] : [];
        }

        return Cut(plain, notation) is not { } pieces ? []
            : pieces.Month > 0 ? Named(pieces, today)
            : pieces.Numbers switch
            {
                [{ Length: 8 } all] when pieces.Marks.Count == 0 => notation.Days.Order == DayOrder.YearFirst
                    ? Some(Make(all[..4], all[4..6], all[6..]))
                    : Ordered(all[..2], all[2..4], all[4..], '\0', notation),
                [{ Length: 4 } year, var month, var day] => Some(Make(year, month, day)),
                [var one, var two, var three] => Ordered(one, two, three, pieces.First, notation),
                [{ Length: <= 2 } one, { Length: <= 2 } two] => Ordered(one, two, today.Year.ToString("0000", CultureInfo.InvariantCulture), pieces.First, notation),
                _ => [],
            };
    }

    private static int? Offset(string text) => text.ToLowerInvariant() switch
    {
        "today" => 0,
        "tomorrow" => 1,
        "yesterday" => -1,
        ['+' or '-', _, ..] when text.Length <= 5 && int.TryParse(text, NumberStyles.AllowLeadingSign, CultureInfo.InvariantCulture, out var days) => days,
        _ => null,
    };

    /// <summary>A day with a month in words: a number beside it is the day, another one the year.</summary>
    private static List<DateOnly> Named(Pieces pieces, DateOnly today)
    {
        var year = pieces.Numbers.Find(number => number.Length == 4);
        var others = pieces.Numbers.Where(number => number.Length < 3).ToList();
        if (others.Count + (year is null ? 0 : 1) != pieces.Numbers.Count || others.Count is 0 or > 2 || (year is not null && others.Count > 1))
        {
            return [];
        }

        year ??= others.Count == 2 ? others[1] : today.Year.ToString("0000", CultureInfo.InvariantCulture);
        return Some(Make(year, pieces.Month.ToString(CultureInfo.InvariantCulture), others[0]));
    }

    /// <summary>Three numbers of which nobody knows at once which is which.</summary>
    private static List<DateOnly> Ordered(string one, string two, string three, char mark, Notation notation)
    {
        var (order, possible) = (notation.Days.Order, new List<DateOnly>());
        if (notation.IsDecided)
        {
            return Some(order == DayOrder.MonthFirst ? Make(three, one, two) : order == DayOrder.DayFirst ? Make(three, two, one) : Make(one, two, three));
        }

        if (order == DayOrder.YearFirst && one.Length == 2 && three.Length <= 2)
        {
            possible.AddRange(Some(Make(one, two, three)));
        }

        if (mark == '.' && Make(three, two, one) is { } pointed)
        {
            // Wherever points stand between them, the day comes first.
            return [pointed];
        }

        var (dayFirst, monthFirst) = (Some(Make(three, two, one)), Some(Make(three, one, two)));
        possible.AddRange(order == DayOrder.MonthFirst ? [.. monthFirst, .. dayFirst] : [.. dayFirst, .. monthFirst]);
        var isTold = order is DayOrder.DayFirst or DayOrder.MonthFirst || (order == DayOrder.YearFirst && one.Length == 2 && three.Length == 2 && mark != '\0');
        return isTold ? [.. possible.Take(1)] : [.. possible.Distinct()];
    }

    private static List<DateOnly> Some(DateOnly? day) => day is { } known ? [known] : [];

    /// <summary>A year of two digits is of the fifty years around the turn of the century.</summary>
    private static DateOnly? Make(string year, string month, string day) =>
        Number(year) is { } y && Number(month) is { } m && Number(day) is { } d && year.Length is 2 or 4 && month.Length <= 2 && day.Length <= 2
        && (y += year.Length == 4 ? 0 : y < 50 ? 2000 : 1900) is >= 1 and <= 9999 && m is >= 1 and <= 12 && d >= 1 && d <= DateTime.DaysInMonth(y, m)
            ? new DateOnly(y, m, d) : null;

    private static int? Number(string digits) => int.TryParse(digits, NumberStyles.None, CultureInfo.InvariantCulture, out var number) ? number : null;

    /// <summary>The numbers of a text, what stands between them, and a month in words; null where there is anything else in it.</summary>
    private static Pieces? Cut(string text, Notation notation)
    {
        // Most of what is read in tables is no day, and is seen to be none without a word of it being taken out.
        if (text.Length is < 3 or > 40 || text.AsSpan().IndexOfAnyInRange('0', '9') < 0 || !IsOfDays(text))
        {
            return null;
        }

        var pieces = new Pieces([], []);
        var at = 0;
        while (at < text.Length)
        {
            var start = at;
            if (char.IsAsciiDigit(text[at]))
            {
                while (at < text.Length && char.IsAsciiDigit(text[at]))
                {
                    at++;
                }

                pieces.Numbers.Add(text[start..at]);
                if (at < text.Length && text[at] == '月' && notation.Months[0] == "1月" && pieces.Numbers.Count <= 2)
                {
                    // The number before it is the month's, the one after it the day's.
                    at++;
                    pieces.Marks.Add('月');
                }
            }
            else if (char.IsLetter(text[at]) || text[at] is 'º' or 'ª')
            {
                while (at < text.Length && (char.IsLetter(text[at]) || text[at] is 'º' or 'ª'))
                {
                    at++;
                }

                var word = text[start..at];
                var isOrdinal = start > 0 && char.IsAsciiDigit(text[start - 1]) && Ordinals.Contains(word, StringComparer.OrdinalIgnoreCase);
                if (word is "年" or "日")
                {
                    pieces.Marks.Add(word[0]);
                }
                else if (!isOrdinal && !Fillers.Contains(word, StringComparer.OrdinalIgnoreCase) && !Take(word, notation, ref pieces))
                {
                    return null;
                }
            }
            else if (text[at] is ' ' or '.' or ',' or '/' or '-' or '\u00A0' or '\u202F')
            {
                if (pieces.Numbers.Count > pieces.Marks.Count && text[at] is not (' ' or '\u00A0' or '\u202F'))
                {
                    pieces.Marks.Add(text[at]);
                }
                else if (pieces.Numbers.Count > pieces.Marks.Count)
                {
                    pieces.Marks.Add(' ');
                }
                else if (pieces.Marks.Count > 0 && pieces.Marks[^1] == ' ')
                {
                    pieces.Marks[^1] = text[at];
                }

                at++;
            }
            else
            {
                return null;
            }
        }

        return pieces.Numbers.Count is > 0 and <= 3 ? pieces : null;
    }

    /// <summary>Whether nothing stands in it that never stands in a day.</summary>
    private static bool IsOfDays(string text)
    {
        foreach (var sign in text)
        {
            if (!char.IsLetterOrDigit(sign) && sign is not (' ' or '.' or ',' or '/' or '-' or '\u00A0' or '\u202F' or 'º' or 'ª'))
            {
                return false;
            }
        }

        return true;
    }

    /// <summary>Takes a word for a month; false where it is none, or there is one already.</summary>
    private static bool Take(string word, Notation notation, ref Pieces pieces)
    {
        var month = Month(word, notation) is > 0 and var own ? own : Month(word, Notation.Plain);
        if (month == 0 || pieces.Month > 0)
        {
            return false;
        }

        pieces = pieces with { Month = month };
        return true;
    }

    private static int Month(string word, Notation notation)
    {
        for (var i = 0; i < 12; i++)
        {
            var (brief, full) = (notation.Months[i].TrimEnd('.'), notation.LongMonths[i]);
            if (string.Equals(word, brief, StringComparison.OrdinalIgnoreCase) || (word.Length >= 3 && full.StartsWith(word, StringComparison.OrdinalIgnoreCase)))
            {
                return i + 1;
            }
        }

        return 0;
    }

    /// <param name="Numbers">Runs of digits.</param>
    /// <param name="Marks">What stands after each number but perhaps the last.</param>
    /// <param name="Month">The month in words; 0 for none.</param>
    private sealed record Pieces(List<string> Numbers, List<char> Marks, int Month = 0)
    {
        internal char First => Marks.Count > 0 ? Marks[0] : ' ';
    }
}
