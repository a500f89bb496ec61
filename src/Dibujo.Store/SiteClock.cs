namespace Dibujo.Store;

/// <summary>Days and moments that people mean by the site's clock, as they are stored.</summary>
public static class SiteClock
{
    /// <summary>A moment there in UTC; one that the clocks passed over is the one after.</summary>
    public static DateTime ToUtc(this TimeZoneInfo zone, DateTime there) =>
        TimeZoneInfo.ConvertTimeToUtc(zone.IsInvalidTime(there) ? there.AddHours(1) : there, zone);

    /// <summary>When a day begins there, in UTC.</summary>
    public static DateTime ToUtc(this TimeZoneInfo zone, DateOnly day) => zone.ToUtc(day.ToDateTime(TimeOnly.MinValue));
}
