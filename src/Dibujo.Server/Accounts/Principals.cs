using System.Collections.Immutable;
using System.Globalization;
using System.Security.Claims;
using Dibujo.Store;
using Dibujo.Store.Accounts;
using Microsoft.EntityFrameworkCore;

namespace Dibujo.Server.Accounts;

/// <summary>Who an account is and what it may do, as the store says at this moment.</summary>
internal static class Principals
{
    /// <summary>The person behind an account with their roles; null for one that is gone or locked by an administrator.</summary>
    internal static async Task<ClaimsPrincipal?> Of(DibujoDb db, string accountId, string scheme, DateTimeOffset now, CancellationToken cancellation)
    {
        var found = await db.Users.AsNoTracking().Where(u => u.Id == accountId)
            .Select(u => new
            {
                u.UserName,
                u.SecurityStamp,
                u.LockoutEnd,
                Roles = db.UserRoles.Where(r => r.UserId == u.Id).Join(db.Roles, r => r.RoleId, r => r.Id, (_, role) => role.Name!).ToList(),
            })
            .FirstOrDefaultAsync(cancellation);
        if (found is null || found.LockoutEnd > now)
        {
            return null;
        }

        return new(new ClaimsIdentity(
            [
                new(ClaimTypes.NameIdentifier, accountId), new(ClaimTypes.Name, found.UserName!), new(StampClaim, found.SecurityStamp ?? ""),
                .. found.Roles.Select(role => new Claim(ClaimTypes.Role, role)),
            ],
            scheme));
    }

    /// <summary>The account's security stamp, under which a sign-in begins and with which it ends.</summary>
    internal const string StampClaim = "stamp";

    /// <summary>Number of the sign-in by which the person is signed in.</summary>
    internal const string SignInClaim = "sign-in";

    /// <summary>Number of the token by which a program acts for the person.</summary>
    internal const string TokenClaim = "token";

    /// <summary>The same with by what they were let in.</summary>
    internal static ClaimsPrincipal With(this ClaimsPrincipal person, string claim, int number)
    {
        ((ClaimsIdentity)person.Identity!).AddClaim(new(claim, number.ToString(CultureInfo.InvariantCulture)));
        return person;
    }

    /// <summary>Key of the account that is signed in.</summary>
    internal static string AccountId(this ClaimsPrincipal user) => user.FindFirstValue(ClaimTypes.NameIdentifier)!;

    /// <summary>Keys of the roles that the signed-in person has.</summary>
    internal static ImmutableArray<string> RoleKeys(this ClaimsPrincipal user) =>
        [.. user.FindAll(ClaimTypes.Role).Select(claim => claim.Value).Order(StringComparer.Ordinal)];

    /// <summary>Whether an administrator has locked the account.</summary>
    internal static bool IsLocked(this Account account, DateTimeOffset now) => account.LockoutEnd > now;
}
