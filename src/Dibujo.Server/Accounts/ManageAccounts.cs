using System.Collections.Immutable;
using Dibujo.Server.Auditing;
using Dibujo.Server.Live;
using Dibujo.Store;
using Dibujo.Store.Accounts;
using Dibujo.Store.Auditing;
using Dibujo.Store.Writing;
using Microsoft.AspNetCore.Http.HttpResults;
using Microsoft.AspNetCore.Identity;
using Microsoft.EntityFrameworkCore;

namespace Dibujo.Server.Accounts;

/// <summary>Who has an account and what they may do; an administrator's affair, and no program's. What is changed is in force at the next request.</summary>
internal static class ManageAccounts
{
    internal static void Map(IEndpointRouteBuilder api)
    {
        var accounts = api.MapGroup("/accounts").RequireAuthorization(Policies.Administrators, Policies.InPerson);
        accounts.MapGet("/", List).WithName("ListAccounts");
        accounts.MapPost("/", Invite).WithName("InvitePerson").ProducesProblem(StatusCodes.Status400BadRequest).ProducesProblem(StatusCodes.Status409Conflict);
        accounts.MapPut("/{userName}", Change).WithName("ChangeAccount").ProducesProblem(StatusCodes.Status400BadRequest).ProducesProblem(StatusCodes.Status403Forbidden)
            .ProducesProblem(StatusCodes.Status404NotFound);
        accounts.MapPost("/{userName}/links", MakeLink).WithName("MakePasswordLink").ProducesProblem(StatusCodes.Status404NotFound);
    }

    private static async Task<Ok<AccountsView>> List(DibujoDb db, TimeProvider clock, CancellationToken cancellation)
    {
        var now = clock.GetUtcNow();
        var people = await db.Users.AsNoTracking().OrderBy(u => u.DisplayName).Select(u => new
        {
            u.UserName,
            u.DisplayName,
            u.LockoutEnd,
            HasPassword = u.PasswordHash != null,
            Roles = db.UserRoles.Where(r => r.UserId == u.Id).Join(db.Roles, r => r.RoleId, r => r.Id, (_, role) => role.Name!).ToList(),
            SeenAt = db.SignIns.Where(s => s.AccountId == u.Id).Max(s => (DateTime?)s.UsedAt),
        }).ToListAsync(cancellation);
        return TypedResults.Ok(new AccountsView(
            [.. people.Select(p => new AccountEntry(p.UserName!, p.DisplayName, [.. p.Roles.Order(StringComparer.Ordinal)], p.LockoutEnd > now, p.HasPassword, p.SeenAt))],
            [.. await AccountRoles.AllAsync(db, cancellation)]));
    }

    private static async Task<Results<Ok<InvitationKey>, ProblemHttpResult>> Invite(
        NewAccount request, HttpContext http, DibujoDb db, UnitOfWork unit, UserManager<Account> accounts, RoleManager<IdentityRole> roles, Invitations invitations,
        AuditTrail audit, TimeProvider clock, CancellationToken cancellation)
    {
        var account = new Account { UserName = request.UserName.Trim(), DisplayName = request.DisplayName.Trim() };
        if ((AccountNames.Problem(account) ?? await UnknownRoleAsync(db, request.Roles, cancellation)) is { } mistake)
        {
            return Refused(mistake);
        }

        return await unit.RunAsync<Results<Ok<InvitationKey>, ProblemHttpResult>>(
            async () =>
            {
                if (!await Administrators.IsOneAsync(db, http.User, clock.GetUtcNow(), cancellation))
                {
                    return NotOneAnyMore();
                }

                if (await accounts.FindByNameAsync(account.UserName) is not null)
                {
                    return TypedResults.Problem(
                        $"There is an account “{account.UserName}” already. Choose another name for this one.", statusCode: StatusCodes.Status409Conflict, title: "Nobody was invited.");
                }

                await accounts.CreateAsync(account);
                await AccountRoles.SetAsync(accounts, roles, account, request.Roles);
                audit.Note(http, AuditEvent.PersonInvited, $"{Called(account)}: {await RolesAsync(db, request.Roles, cancellation)}");
                return TypedResults.Ok(await invitations.MakeAsync(account.Id, cancellation));
            },
            cancellation);
    }

    private static Task<Results<NoContent, ProblemHttpResult>> Change(
        string userName, AccountChange change, HttpContext http, DibujoDb db, UnitOfWork unit, UserManager<Account> accounts, RoleManager<IdentityRole> roles,
        LiveConnections live, AuditTrail audit, TimeProvider clock, CancellationToken cancellation) => unit.RunAsync<Results<NoContent, ProblemHttpResult>>(
        async () =>
        {
            var now = clock.GetUtcNow();
            if (!await Administrators.IsOneAsync(db, http.User, now, cancellation))
            {
                return NotOneAnyMore();
            }

            if (await accounts.FindByNameAsync(userName) is not { } account)
            {
                return NoSuchAccount(userName);
            }

            var isAdministrator = !change.IsDisabled && change.Roles.Contains(Policies.AdministratorRole);
            if (account.Id == http.User.AccountId() && !isAdministrator)
            {
                return Refused("You cannot take your own account or your own administrator's role away. Another administrator can.");
            }

            if (!isAdministrator && !await Administrators.IsThereAnotherAsync(db, account, now, cancellation))
            {
                return Refused("Nobody would be left who looks after the platform. Make somebody else an administrator first.");
            }

            if ((AccountNames.OfPerson(change.DisplayName) ?? await UnknownRoleAsync(db, change.Roles, cancellation)) is { } mistake)
            {
                return Refused(mistake);
            }

            await ApplyAsync(account, change, await accounts.GetRolesAsync(account));
            return TypedResults.NoContent();

            async Task ApplyAsync(Account account, AccountChange change, IList<string> had)
            {
                var (was, wasDisabled) = (Called(account), account.IsLocked(now));
                account.DisplayName = change.DisplayName.Trim();
                account.LockoutEnabled = true;
                account.LockoutEnd = change.IsDisabled ? DateTimeOffset.MaxValue : null;
                await AccountRoles.SetAsync(accounts, roles, account, change.Roles);
                await accounts.UpdateAsync(account);
                var isOther = !had.ToHashSet(StringComparer.Ordinal).SetEquals(change.Roles);
                var about = string.Join("; ", new[]
                {
                    was == Called(account) ? was : $"{was}, now {Called(account)}",
                    isOther ? $"{await RolesAsync(db, had, cancellation)} → {await RolesAsync(db, change.Roles, cancellation)}" : null,
                }.OfType<string>());
                audit.Note(http, change.IsDisabled && !wasDisabled ? AuditEvent.AccountDisabled : wasDisabled && !change.IsDisabled ? AuditEvent.AccountEnabled : AuditEvent.AccountChanged, about);
                if (change.IsDisabled)
                {
                    // What was handed out before is not to come to life with the account again.
                    await Access.EndAsync(db, account.Id, cancellation);
                }

                if (change.IsDisabled || isOther)
                {
                    unit.Afterwards(() => live.EndAccount(account.Id));
                }
            }
        },
        cancellation);

    private static Task<Results<Ok<InvitationKey>, ProblemHttpResult>> MakeLink(
        string userName, HttpContext http, DibujoDb db, UnitOfWork unit, UserManager<Account> accounts, Invitations invitations, AuditTrail audit, TimeProvider clock,
        CancellationToken cancellation) => unit.RunAsync<Results<Ok<InvitationKey>, ProblemHttpResult>>(
        async () =>
        {
            if (!await Administrators.IsOneAsync(db, http.User, clock.GetUtcNow(), cancellation))
            {
                return NotOneAnyMore();
            }

            if (await accounts.FindByNameAsync(userName) is not { } account)
            {
                return NoSuchAccount(userName);
            }

            audit.Note(http, AuditEvent.PasswordLinkMade, Called(account));
            return TypedResults.Ok(await invitations.MakeAsync(account.Id, cancellation));
        },
        cancellation);

    /// <summary>A person as the audit trail names them.</summary>
    internal static string Called(Account account) => $"{account.DisplayName} ({account.UserName})";

    internal static ProblemHttpResult NoSuchAccount(string userName) =>
        TypedResults.Problem($"There is no account “{userName}”.", statusCode: StatusCodes.Status404NotFound);

    private static async Task<string> RolesAsync(DibujoDb db, IEnumerable<string> keys, CancellationToken cancellation)
    {
        var known = await AccountRoles.AllAsync(db, cancellation);
        var labels = keys.Select(key => known.Find(role => role.Key == key)?.Label ?? key).Order(StringComparer.OrdinalIgnoreCase).ToList();
        return labels.Count == 0 ? "no role" : string.Join(", ", labels);
    }

    private static ProblemHttpResult NotOneAnyMore() => TypedResults.Problem(
        "Somebody has taken the administrator's role from you, or disabled your account.", statusCode: StatusCodes.Status403Forbidden, title: "You may not do this any more.");

    /// <summary>Roles that the account has and no record type knows any more may stay.</summary>
    private static async Task<string?> UnknownRoleAsync(DibujoDb db, ImmutableArray<string> keys, CancellationToken cancellation)
    {
        var known = (await AccountRoles.AllAsync(db, cancellation)).Select(role => role.Key).Concat(await db.Roles.Select(role => role.Name!).ToListAsync(cancellation));
        return keys.Except(known, StringComparer.Ordinal).FirstOrDefault() is { } unknown ? $"There is no role “{unknown}”. Choose among those that record types have." : null;
    }

    private static ProblemHttpResult Refused(string why) => TypedResults.Problem(why, statusCode: StatusCodes.Status400BadRequest, title: "The account is as it was.");
}

/// <summary>Everybody with an account, and the roles that can be given.</summary>
internal sealed record AccountsView(ImmutableArray<AccountEntry> Accounts, ImmutableArray<Core.Records.Role> Roles);

/// <summary>An account in the list.</summary>
/// <param name="UserName">By which the person signs in.</param>
/// <param name="DisplayName">How the person is called.</param>
/// <param name="Roles">Keys of the roles.</param>
/// <param name="IsDisabled">Whether nobody gets in by it.</param>
/// <param name="HasPassword">False until the person has used the link.</param>
/// <param name="SeenAt">When it was last used on a page, in UTC, to within a few minutes; null where no sign-in lasts.</param>
internal sealed record AccountEntry(string UserName, string DisplayName, ImmutableArray<string> Roles, bool IsDisabled, bool HasPassword, DateTime? SeenAt);

/// <summary>A person to be invited.</summary>
internal sealed record NewAccount(string UserName, string DisplayName, ImmutableArray<string> Roles);

/// <summary>What an account is from now on.</summary>
internal sealed record AccountChange(string DisplayName, ImmutableArray<string> Roles, bool IsDisabled);
