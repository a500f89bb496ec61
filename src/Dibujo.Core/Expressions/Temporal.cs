using System.Globalization;
using System.Text.RegularExpressions;

namespace Dibujo.Core.Expressions;

/// <summary>Dates, moments and durations as text of ISO 8601, and reckoning with them.</summary>
internal static partial class Temporal
{
    private const int DaySeconds = 86_400;
    private static readonly string[] Moments = ["yyyy-MM-dd'T'HH:mm:ss", "yyyy-MM-dd'T'HH:mm"];

    /// <summary>The date, date and time, or duration that the text stands for; null for anything else.</summary>
    internal static FeelValue? Parse(string text) => ParseDate(text) ?? ParseMoment(text) ?? ParseDuration(text);

    internal static FeelValue? ParseDate(string text) =>
        DateOnly.TryParseExact(text, "yyyy-MM-dd", CultureInfo.InvariantCulture, DateTimeStyles.None, out var day) ? new FeelDate(day) : null;

    internal static FeelValue? ParseMoment(string text) =>
        DateTime.TryParseExact(text, Moments, CultureInfo.InvariantCulture, DateTimeStyles.None, out var at) ? new FeelDateTime(at) : null;

    internal static FeelValue? ParseDuration(string text)
    {
        if (text.Length > 40)
        {
            return null;
        }

        if (MonthsPattern().Match(text) is { Success: true } months)
        {
            var total = (12 * Count(months, "y")) + Count(months, "m");
            return Math.Abs(total) <= 120_000 ? new FeelMonthsDuration((int)(Sign(text) * total)) : null;
        }

        if (DaysPattern().Match(text) is { Success: true } days)
        {
            var total = (DaySeconds * Count(days, "d")) + (3600 * Count(days, "h")) + (60 * Count(days, "m")) + Count(days, "s");
            return new FeelDaysDuration(Sign(text) * total);
        }

        return null;
    }

    internal static string Print(FeelDaysDuration duration)
    {
        var left = Math.Abs(duration.Seconds);
        var days = decimal.Truncate(left / DaySeconds);
        var hours = decimal.Truncate(left % DaySeconds / 3600);
        var minutes = decimal.Truncate(left % 3600 / 60);
        var seconds = left % 60;
        var time = $"{Unit(hours, "H")}{Unit(minutes, "M")}{Unit(seconds, "S")}";
        return left == 0 ? "PT0S" : $"{(duration.Seconds < 0 ? "-" : "")}P{Unit(days, "D")}{(time.Length > 0 ? "T" + time : "")}";
    }

    internal static string Print(FeelMonthsDuration duration)
    {
        var left = Math.Abs((long)duration.Months);
        return left == 0 ? "P0M" : $"{(duration.Months < 0 ? "-" : "")}P{Unit(left / 12, "Y")}{Unit(left % 12, "M")}";
    }

    /// <summary>The moment so many seconds later; null where the calendar ends.</summary>
    internal static FeelValue Add(DateTime at, decimal seconds)
    {
        var ticks = at.Ticks + decimal.Truncate(seconds) * TimeSpan.TicksPerSecond;
        return ticks >= 0 && ticks <= DateTime.MaxValue.Ticks ? new FeelDateTime(new((long)ticks)) : FeelValue.Null;
    }

    /// <summary>The day so many whole days later; a part of a day counts as in the standard, towards the day it falls on.</summary>
    internal static FeelValue Add(DateOnly day, decimal seconds) =>
        Add(day.ToDateTime(TimeOnly.MinValue), seconds) is FeelDateTime moment ? new FeelDate(DateOnly.FromDateTime(moment.At)) : FeelValue.Null;

    internal static FeelValue AddMonths(DateOnly day, int months) =>
        IsInCalendar(day.Year, day.Month, months) ? new FeelDate(day.AddMonths(months)) : FeelValue.Null;

    internal static FeelValue AddMonths(DateTime at, int months) =>
        IsInCalendar(at.Year, at.Month, months) ? new FeelDateTime(at.AddMonths(months)) : FeelValue.Null;

    /// <summary>Whole months from one day to another, as the standard's "years and months duration" counts them.</summary>
    internal static int MonthsBetween(DateTime from, DateTime to)
    {
        var months = (12 * (to.Year - from.Year)) + to.Month - from.Month;
        return months > 0 && to.Day < from.Day ? months - 1 : months < 0 && to.Day > from.Day ? months + 1 : months;
    }

    private static bool IsInCalendar(int year, int month, int months) =>
        (12L * year) + month - 1 + months is >= 12 and < 120_000;

    private static int Sign(string text) => text[0] == '-' ? -1 : 1;

    private static long Count(Match match, string group) =>
        match.Groups[group].Success ? long.Parse(match.Groups[group].Value, CultureInfo.InvariantCulture) : 0;

    private static string Unit(decimal count, string unit) => count == 0 ? "" : count.ToString("0.############", CultureInfo.InvariantCulture) + unit;

    [GeneratedRegex(@"^-?P(?=\d)((?<y>\d{1,7})Y)?((?<m>\d{1,7})M)?$", RegexOptions.ExplicitCapture, 1000)]
    private static partial Regex MonthsPattern();

    [GeneratedRegex(@"^-?P(?=\d|T\d)((?<d>\d{1,9})D)?(T((?<h>\d{1,9})H)?((?<m>\d{1,9})M)?((?<s>\d{1,9})S)?)?$", RegexOptions.ExplicitCapture, 1000)]
    private static partial Regex DaysPattern();
}
