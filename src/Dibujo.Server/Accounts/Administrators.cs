using System.Security.Claims;
using Dibujo.Store;
using Dibujo.Store.Accounts;
using Microsoft.EntityFrameworkCore;

namespace Dibujo.Server.Accounts;

/// <summary>Who looks after the platform: somebody always can. To be asked within a unit of work, so that of two who shut each other out one is refused.</summary>
internal static class Administrators
{
    /// <summary>Whether whoever asks is one at this moment.</summary>
    internal static async Task<bool> IsOneAsync(DibujoDb db, ClaimsPrincipal user, DateTimeOffset now, CancellationToken cancellation) =>
        await Principals.Of(db, user.AccountId(), "", now, cancellation) is { } person && person.IsInRole(Policies.AdministratorRole);

    /// <summary>Whether there is one besides that account who can sign in.</summary>
    internal static async Task<bool> IsThereAnotherAsync(DibujoDb db, Account account, DateTimeOffset now, CancellationToken cancellation) =>
        (await db.UserRoles.Where(r => r.UserId != account.Id)
            .Join(db.Roles.Where(role => role.Name == Policies.AdministratorRole), r => r.RoleId, role => role.Id, (r, _) => r.UserId)
            .Join(db.Users.Where(u => u.PasswordHash != null), id => id, u => u.Id, (_, u) => u.LockoutEnd).ToListAsync(cancellation))
        .Exists(end => end is null || end <= now);
}
