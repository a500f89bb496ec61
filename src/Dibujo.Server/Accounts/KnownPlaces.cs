using Dibujo.Store;
using Dibujo.Store.Accounts;
using Microsoft.EntityFrameworkCore;

namespace Dibujo.Server.Accounts;

/// <summary>Browsers on which a person has signed in before, known again by a cookie that opens nothing.</summary>
internal sealed class KnownPlaces(DibujoDb db, TimeProvider clock)
{
    private const string Cookie = "dibujo-place";

    private static readonly TimeSpan Lifetime = TimeSpan.FromDays(365);

    /// <summary>What names this browser, where that account has signed in on it before; else null.</summary>
    internal async Task<string?> FindAsync(HttpRequest request, string? accountId, CancellationToken cancellation)
    {
        if (accountId is null || request.Cookies[Cookie] is not { Length: > 0 } key)
        {
            return null;
        }

        var (hash, since) = (Secrets.Hash(key), clock.GetUtcNow().UtcDateTime - Lifetime);
        return await db.KnownPlaces.AnyAsync(p => p.Hash == hash && p.AccountId == accountId && p.UsedAt > since, cancellation) ? $"place {hash} {accountId}" : null;
    }

    /// <summary>Notes that the account signs in on this browser; stored with the next save.</summary>
    internal async Task AddAsync(HttpContext http, string accountId, CancellationToken cancellation)
    {
        var key = http.Request.Cookies[Cookie] is { Length: > 0 } known ? known : Secrets.New();
        var hash = Secrets.Hash(key);
        var now = clock.GetUtcNow().UtcDateTime;
        if (await db.KnownPlaces.FirstOrDefaultAsync(p => p.Hash == hash && p.AccountId == accountId, cancellation) is { } place)
        {
            place.UsedAt = now;
        }
        else
        {
            db.KnownPlaces.Add(new KnownPlace { Hash = hash, AccountId = accountId, UsedAt = now });
        }

        http.Response.Cookies.Append(Cookie, key, new()
        {
            HttpOnly = true,
            SameSite = SameSiteMode.Strict,
            Secure = http.Request.IsHttps,
            MaxAge = Lifetime,
            Path = "/api/sign-in",
        });
    }
}
