namespace Dibujo.Store;

/// <summary>One row that is written to learn whether anything can be written.</summary>
public sealed class Heartbeat
{
    /// <summary>Always 1.</summary>
    public int Id { get; init; }

    /// <summary>When it was last written, in UTC.</summary>
    public required DateTime At { get; set; }
}
