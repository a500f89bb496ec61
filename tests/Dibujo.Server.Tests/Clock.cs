namespace Dibujo.Server.Tests;

/// <summary>The real time, until it is moved on.</summary>
internal sealed class Clock : TimeProvider
{
    private TimeSpan ahead;

    public override TimeZoneInfo LocalTimeZone => Zone;

    /// <summary>The site's time.</summary>
    internal TimeZoneInfo Zone { get; set; } = TimeZoneInfo.Utc;

    public override DateTimeOffset GetUtcNow() => System.GetUtcNow() + ahead;

    internal void MoveOn(TimeSpan by) => ahead += by;
}
