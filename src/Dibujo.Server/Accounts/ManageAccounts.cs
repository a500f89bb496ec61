using System.Collections.Immutable;
using Dibujo.Server.Auditing;
using Dibujo.Store;
using Dibujo.Store.Accounts;
using Dibujo.Store.Auditing;
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
        accounts.MapPut("/{userName}", Change).WithName("ChangeAccount").ProducesProblem(StatusCodes.Status400BadRequest).ProducesProblem(StatusCodes.Status404NotFound);
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
        NewAccount request, HttpContext http, DibujoDb db, UserManager<Account> accounts, RoleManager<IdentityRole> roles, Invitations invitations, AuditTrail audit,
        CancellationToken cancellation)
    {
        var account = new Account { UserName = request.UserName.Trim(), DisplayName = request.DisplayName.Trim() };
        if (AccountNames.Problem(account) is { } mistake)
        {
            return Refused(mistake);
        }

        if (await UnknownRoleAsync(db, request.Roles, cancellation) is { } unknown)
        {
            return Refused(unknown);
        }

        if (await accounts.FindByNameAsync(account.UserName) is not null)
        {
            return TypedResults.Problem(
                $"There is an account “{account.UserName}” already. Choose another name for this one.", statusCode: StatusCodes.Status409Conflict, title: "Nobody was invited.");
        }

        await using var transaction = await db.Database.BeginTransactionAsync(cancellation);
        await accounts.CreateAsync(account);
        await AccountRoles.SetAsync(accounts, roles, account, request.Roles);
        var key = await invitations.MakeAsync(account.Id, cancellation);
        audit.Note(http, AuditEvent.PersonInvited, account.UserName);
        await db.SaveChangesAsync(cancellation);
        await transaction.CommitAsync(cancellation);
        return TypedResults.Ok(key);
    }

    private static async Task<Results<NoContent, ProblemHttpResult>> Change(
        string userName, AccountChange change, HttpContext http, DibujoDb db, UserManager<Account> accounts, RoleManager<IdentityRole> roles, AuditTrail audit,
        CancellationToken cancellation)
    {
        if (await accounts.FindByNameAsync(userName) is not { } account)
        {
            return NoSuchAccount(userName);
        }

        if (account.Id == http.User.AccountId() && (change.IsDisabled || !change.Roles.Contains(Policies.AdministratorRole)))
        {
            return Refused("You cannot take your own account or your own administrator's role away. Another administrator can.");
        }

        account.DisplayName = change.DisplayName.Trim();
        if ((AccountNames.Problem(account) ?? await UnknownRoleAsync(db, change.Roles, cancellation)) is { } mistake)
        {
            return Refused(mistake);
        }

        await using var transaction = await db.Database.BeginTransactionAsync(cancellation);
        account.LockoutEnabled = true;
        account.LockoutEnd = change.IsDisabled ? DateTimeOffset.MaxValue : null;
        await AccountRoles.SetAsync(accounts, roles, account, change.Roles);
        await accounts.UpdateAsync(account);
        audit.Note(http, change.IsDisabled ? AuditEvent.AccountDisabled : AuditEvent.AccountChanged, account.UserName);
        await db.SaveChangesAsync(cancellation);
        await transaction.CommitAsync(cancellation);
        return TypedResults.NoContent();
    }

    private static async Task<Results<Ok<InvitationKey>, ProblemHttpResult>> MakeLink(
        string userName, HttpContext http, DibujoDb db, UserManager<Account> accounts, Invitations invitations, AuditTrail audit, CancellationToken cancellation)
    {
        if (await accounts.FindByNameAsync(userName) is not { } account)
        {
            return NoSuchAccount(userName);
        }

        var key = await invitations.MakeAsync(account.Id, cancellation);
        audit.Note(http, AuditEvent.PasswordLinkMade, account.UserName);
        await db.SaveChangesAsync(cancellation);
        return TypedResults.Ok(key);
    }

    /// <summary>Roles that the account has and no record type knows any more may stay.</summary>
    private static async Task<string?> UnknownRoleAsync(DibujoDb db, ImmutableArray<string> keys, CancellationToken cancellation)
    {
        var known = (await AccountRoles.AllAsync(db, cancellation)).Select(role => role.Key).Concat(await db.Roles.Select(role => role.Name!).ToListAsync(cancellation));
        return keys.Except(known, StringComparer.Ordinal).FirstOrDefault() is { } unknown ? $"There is no role “{unknown}”. Choose among those that record types have." : null;
    }

    private static ProblemHttpResult Refused(string why) => TypedResults.Problem(why, statusCode: StatusCodes.Status400BadRequest, title: "The account is as it was.");

    private static ProblemHttpResult NoSuchAccount(string userName) =>
        TypedResults.Problem($"There is no account “{userName}”.", statusCode: StatusCodes.Status404NotFound);
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
