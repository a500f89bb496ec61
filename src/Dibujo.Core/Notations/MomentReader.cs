using System.Buffers;
using System.Globalization;

namespace Dibujo.Core.Notations;

/// <summary>A day with a time of day behind it: 1.3.2027 14:30, Mar 1, 2027, 2:30 PM, 2027-03-01T14:30:05, 1 Mar 2027 at 14h30.</summary>
internal static class MomentReader
{
    /// <summary>One of these stands in every time of day.</summary>
    private static readonly SearchValues<char> OfTimes = SearchValues.Create(":hHmM");

    private static readonly string[] Times = ["H:mm", "H:mm:ss", "H:mm:ss.FFFFFFF", "h:mm tt", "h:mmtt", "h:mm:ss tt", "h tt", "htt"];

    /// <summary>What it may be; nothing where it is no day with a time.</summary>
    internal static List<DateTime> Read(string text, Notation notation, DateOnly today)
    {
        if (!text.AsSpan().ContainsAny(OfTimes))
        {
            return [];
        }

        for (var cut = text.Length - 1; cut > 0; cut--)
        {
            if (text[cut] is ' ' or 'T' or 't' or ',' or '\u00A0' or '\u202F' && text.AsSpan(cut + 1).TrimStart() is [>= '0' and <= '9', ..] && Time(text[(cut + 1)..]) is { } time)
            {
                var day = text[..cut].TrimEnd(' ', ',', '\u00A0', '\u202F');
                var before = day.EndsWith(" at", StringComparison.OrdinalIgnoreCase) ? day[..^3] : day;
                if (DayReader.Read(before, notation, today) is { Count: > 0 } days)
                {
                    return days.ConvertAll(one => one.ToDateTime(time));
                }
            }
        }

        return [];
    }

    private static TimeOnly? Time(string text)
    {
        var plain = text.Trim().TrimEnd('Z').Replace('\u202F', ' ').Replace('\u00A0', ' ').Replace(".m.", "m", StringComparison.OrdinalIgnoreCase);
        if (plain.IndexOf('h', StringComparison.OrdinalIgnoreCase) is > 0 and var hours && hours < plain.Length - 1)
        {
            plain = $"{plain[..hours]}:{plain[(hours + 1)..]}";
        }

        return plain.Length is >= 2 and <= 16 && char.IsAsciiDigit(plain[0])
            && TimeOnly.TryParseExact(plain.ToUpperInvariant(), Times, CultureInfo.InvariantCulture, DateTimeStyles.None, out var time) ? time : null;
    }
}
