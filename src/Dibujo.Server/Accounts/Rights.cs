using System.Globalization;
using System.Security.Claims;
using Dibujo.Store;
using Microsoft.EntityFrameworkCore;

namespace Dibujo.Server.Accounts;

/// <summary>Whether what somebody was let in by still holds, for whatever goes on longer than a request: a connection, an import, an export.</summary>
internal sealed class Rights(IServiceScopeFactory scopes, TimeProvider clock)
{
    /// <summary>The person with the roles that they have now; null where the sign-in or the token is over, or the account is shut.</summary>
    /// <param name="user">Whoever was let in.</param>
    /// <param name="cancellation">Ends the question.</param>
    internal async Task<ClaimsPrincipal?> NowAsync(ClaimsPrincipal user, CancellationToken cancellation)
    {
        await using var scope = scopes.CreateAsyncScope();
        var db = scope.ServiceProvider.GetRequiredService<DibujoDb>();
        var now = clock.GetUtcNow();
        if (Number(user, Principals.TokenClaim) is { } token)
        {
            return await db.ApiTokens.AnyAsync(t => t.Id == token && t.ExpiresAt > now.UtcDateTime, cancellation)
                && await Principals.Of(db, user.AccountId(), TokenSignIn.Scheme, now, cancellation) is { } program ? program.With(Principals.TokenClaim, token) : null;
        }

        return Number(user, Principals.SignInClaim) is { } number
            && await db.SignIns.AsNoTracking().FirstOrDefaultAsync(s => s.Id == number, cancellation) is { } signIn
            ? await SignInStore.PersonAsync(db, signIn, now, cancellation) : null;
    }

    private static int? Number(ClaimsPrincipal user, string claim) =>
        user.FindFirstValue(claim) is { } number ? int.Parse(number, CultureInfo.InvariantCulture) : null;
}
