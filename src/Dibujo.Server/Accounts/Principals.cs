using System.Collections.Immutable;
using System.Globalization;
using System.Security.Claims;
using Dibujo.Core.Notations;
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
                u.Language,
                u.DatePattern,
                u.NumberPattern,
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
                .. Written(LanguageClaim, found.Language), .. Written(DayClaim, found.DatePattern), .. Written(MarksClaim, found.NumberPattern),
            ],
            scheme));
    }

    /// <summary>How the person writes dates and numbers: by what is set for the account, else by the languages that the browser asks for.</summary>
    internal static Notation Notation(this HttpContext http) => Core.Notations.Notation.Of(
        http.User.FindFirstValue(LanguageClaim), http.User.FindFirstValue(DayClaim), http.User.FindFirstValue(MarksClaim), http.Request.Headers.AcceptLanguage);

    private static Claim[] Written(string claim, string? way) => way is null ? [] : [new(claim, way)];

    private const string LanguageClaim = "language";

    private const string DayClaim = "day-pattern";

    private const string MarksClaim = "number-pattern";

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
