namespace Dibujo.Store.Accounts;

/// <summary>Lets a program act for a person. What arrives with it comes through the channel <em>API</em>.</summary>
public sealed class ApiToken
{
    /// <summary>By which the person refers to it.</summary>
    public int Id { get; init; }

    /// <summary>SHA-256 of the token, which is shown once and never stored.</summary>
    public required string Hash { get; init; }

    /// <summary>The account for which it acts.</summary>
    public required string AccountId { get; init; }

    /// <summary>What the person calls it.</summary>
    public required string Name { get; init; }

    /// <summary>When it was made, in UTC.</summary>
    public required DateTime MadeAt { get; init; }

    /// <summary>From when on it is worth nothing, in UTC.</summary>
    public required DateTime ExpiresAt { get; init; }
}
