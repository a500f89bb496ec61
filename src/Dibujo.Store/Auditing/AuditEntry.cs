namespace Dibujo.Store.Auditing;

/// <summary>Something that happened which somebody may have to account for. Only ever added.</summary>
public sealed class AuditEntry
{
    /// <summary>Number of the entry; later ones are higher.</summary>
    public int Id { get; init; }

    /// <summary>When, in UTC.</summary>
    public required DateTime At { get; init; }

    /// <summary>What happened.</summary>
    public required AuditEvent Event { get; init; }

    /// <summary>Name under which the person signs in; null where it is not known who it was.</summary>
    public string? Who { get; init; }

    /// <summary>What it was about: a record type with an edition, a number of rows, a token's name.</summary>
    public string? About { get; set; }

    /// <summary>Network address from which the request came.</summary>
    public string? Address { get; init; }
}
