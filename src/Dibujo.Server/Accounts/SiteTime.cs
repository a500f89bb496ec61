namespace Dibujo.Server.Accounts;

/// <summary>The time by which the site goes.</summary>
internal static class SiteTime
{
    /// <summary>By which name browsers know a zone: its own in the IANA database, or that of the offset that it has at the moment.</summary>
    internal static string NameOf(TimeZoneInfo zone) => zone.HasIanaId ? zone.Id
        : TimeZoneInfo.TryConvertWindowsIdToIanaId(zone.Id, out var name) ? name
        : "UTC";
}
