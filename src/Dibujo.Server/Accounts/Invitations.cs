using Dibujo.Store;
using Dibujo.Store.Accounts;
using Microsoft.EntityFrameworkCore;

namespace Dibujo.Server.Accounts;

/// <summary>Links by which people set their passwords: good once, for a while, and one at a time for each account.</summary>
internal sealed class Invitations(DibujoDb db, TimeProvider clock)
{
    /// <summary>How long a link is good.</summary>
    internal static readonly TimeSpan Lifetime = TimeSpan.FromDays(3);

    private DateTime Now => clock.GetUtcNow().UtcDateTime;

    /// <summary>
    /// Makes a link's key, in the place of any other for the same account; stored with the next save. Without an account it is
    /// the first administrator's.
    /// </summary>
    internal async Task<InvitationKey> MakeAsync(string? accountId, CancellationToken cancellation)
    {
        db.Invitations.RemoveRange(await db.Invitations.Where(i => i.AccountId == accountId || i.ExpiresAt < Now).ToListAsync(cancellation));
        var key = new InvitationKey(Secrets.New(), Now + Lifetime);
        db.Invitations.Add(new Invitation { Hash = Secrets.Hash(key.Key), AccountId = accountId, ExpiresAt = key.ExpiresAt });
        return key;
    }

    /// <summary>What a key is good for; null where it is good for nothing: unknown, used, replaced or too old.</summary>
    internal async Task<Invitation?> FindAsync(string key, CancellationToken cancellation)
    {
        var hash = Secrets.Hash(key);
        return await db.Invitations.FirstOrDefaultAsync(i => i.Hash == hash && i.ExpiresAt > Now, cancellation) is { } found
            // The first administrator's is over once there is anybody.
            && (found.AccountId is not null || !await db.Users.AnyAsync(cancellation)) ? found : null;
    }
}

/// <summary>The key of a link that was made. It is shown this once.</summary>
/// <param name="Key">What follows <c>#</c> in the address <c>/welcome</c>, so that no server log holds it.</param>
/// <param name="ExpiresAt">Until when it is good, in UTC.</param>
internal sealed record InvitationKey(string Key, DateTime ExpiresAt);
