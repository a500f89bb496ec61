namespace Dibujo.Store.Accounts;

/// <summary>A link that lets a person set a password, once. Of its key only the hash is kept.</summary>
public sealed class Invitation
{
    /// <summary>Its number.</summary>
    public int Id { get; init; }

    /// <summary>SHA-256 of the key, in hexadecimal.</summary>
    public required string Hash { get; init; }

    /// <summary>Whose password it sets; null for the first administrator, whose account is made with it.</summary>
    public string? AccountId { get; init; }

    /// <summary>When it stops being good, in UTC.</summary>
    public required DateTime ExpiresAt { get; init; }
}
