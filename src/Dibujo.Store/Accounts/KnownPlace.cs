namespace Dibujo.Store.Accounts;

/// <summary>A browser on which a person has signed in before: wrong guesses made elsewhere do not slow it down.</summary>
public sealed class KnownPlace
{
    /// <summary>SHA-256 of the key that the browser's cookie carries.</summary>
    public required string Hash { get; init; }

    /// <summary>The account that signed in there.</summary>
    public required string AccountId { get; init; }

    /// <summary>When it last did, in UTC.</summary>
    public required DateTime UsedAt { get; set; }
}
