namespace Dibujo.Store.Accounts;

/// <summary>A person who is signed in on one browser. Ended by deleting it.</summary>
public sealed class StoredSignIn
{
    /// <summary>By which it can be named without its key.</summary>
    public int Id { get; init; }

    /// <summary>SHA-256 of the key that the browser's cookie carries, so that who reads the store cannot sign in with it.</summary>
    public required string Hash { get; init; }

    /// <summary>The account that is signed in.</summary>
    public required string AccountId { get; init; }

    /// <summary>The account's security stamp when it signed in; a sign-in under another stamp is over.</summary>
    public required string Stamp { get; init; }

    /// <summary>When it began, in UTC.</summary>
    public required DateTime BegunAt { get; init; }

    /// <summary>When it was last used, in UTC, to within a few minutes.</summary>
    public required DateTime UsedAt { get; set; }
}
