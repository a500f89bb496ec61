using System.Globalization;

namespace Dibujo.Server.Accounts;

/// <summary>The time by which the site goes.</summary>
internal static class SiteTime
{
    /// <summary>By which name browsers know a zone: its own in the IANA database, or that of its usual difference from UTC in whole hours.</summary>
    internal static string NameOf(TimeZoneInfo zone)
    {
        if (zone.HasIanaId)
        {
            return zone.Id;
        }

        if (TimeZoneInfo.TryConvertWindowsIdToIanaId(zone.Id, out var name))
        {
            return name;
        }

        var hours = (int)zone.BaseUtcOffset.TotalHours;
        // There the sign says how far one has to go to come to UTC.
        return hours == 0 ? "UTC" : string.Create(CultureInfo.InvariantCulture, $"Etc/GMT{-hours:+0;-0}");
    }
}
