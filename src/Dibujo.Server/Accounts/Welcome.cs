using Dibujo.Server.Auditing;
using Dibujo.Server.Live;
using Dibujo.Store;
using Dibujo.Store.Accounts;
using Dibujo.Store.Auditing;
using Dibujo.Store.Writing;
using Microsoft.AspNetCore.Http.HttpResults;
using Microsoft.AspNetCore.Identity;
using Microsoft.AspNetCore.Mvc;
using Microsoft.EntityFrameworkCore;

namespace Dibujo.Server.Accounts;

/// <summary>Where a link leads: a person sets a password, and the first one makes the first administrator's account.</summary>
internal static class Welcome
{
    private const int LargestBody = 4096;

    internal static void Map(IEndpointRouteBuilder api)
    {
        api.MapPost("/welcome/look", Look).WithName("LookAtInvitation").AllowAnonymous().WithMetadata(new RequestSizeLimitAttribute(LargestBody))
            .ProducesProblem(StatusCodes.Status404NotFound);
        api.MapPost("/welcome", Accept).WithName("AcceptInvitation").AllowAnonymous().WithMetadata(new RequestSizeLimitAttribute(LargestBody))
            .ProducesProblem(StatusCodes.Status400BadRequest).ProducesProblem(StatusCodes.Status404NotFound);
    }

    private static async Task<Results<Ok<InvitationView>, ProblemHttpResult>> Look(
        InvitationLook look, DibujoDb db, Invitations invitations, CancellationToken cancellation)
    {
        if (await invitations.FindAsync(look.Key, cancellation) is not { } invitation)
        {
            return GoodForNothing();
        }

        var account = await db.Users.FirstOrDefaultAsync(u => u.Id == invitation.AccountId, cancellation);
        return TypedResults.Ok(new InvitationView(account?.UserName, account?.DisplayName));
    }

    private static async Task<Results<NoContent, ProblemHttpResult>> Accept(
        Acceptance acceptance, HttpContext http, DibujoDb db, UnitOfWork unit, Invitations invitations, UserManager<Account> accounts, RoleManager<IdentityRole> roles,
        LiveConnections live, AuditTrail audit, TimeProvider clock, CancellationToken cancellation)
    {
        if (await invitations.FindAsync(acceptance.Key, cancellation) is not { } invitation)
        {
            return GoodForNothing();
        }

        Account? account;
        if (invitation.AccountId is null)
        {
            account = new Account { UserName = acceptance.UserName?.Trim(), DisplayName = acceptance.DisplayName?.Trim() ?? "" };
            if (AccountNames.Problem(account) is { } mistake)
            {
                return Refused(mistake);
            }
        }
        else
        {
            account = await accounts.FindByIdAsync(invitation.AccountId);
        }

        if (account is null)
        {
            return GoodForNothing();
        }

        foreach (var validator in accounts.PasswordValidators)
        {
            if (await validator.ValidateAsync(accounts, account, acceptance.Password) is { Succeeded: false } weak)
            {
                return Refused(string.Join(" ", weak.Errors.Select(e => e.Description)));
            }
        }

        // Nobody who saves waits for the hash; and of two who use the link at once one comes too late.
        var hash = accounts.PasswordHasher.HashPassword(account, acceptance.Password);
        db.ChangeTracker.Clear();
        return await unit.RunAsync<Results<NoContent, ProblemHttpResult>>(
            async () =>
            {
                if (await invitations.FindAsync(acceptance.Key, cancellation) is not { } still)
                {
                    return GoodForNothing();
                }

                if (still.AccountId is null)
                {
                    account.PasswordHash = hash;
                    if (await accounts.CreateAsync(account) is { Succeeded: false } refusal)
                    {
                        return Refused(string.Join(" ", refusal.Errors.Select(e => e.Description)));
                    }

                    await AccountRoles.SetAsync(accounts, roles, account, [Policies.AdministratorRole]);
                }
                else if (await accounts.FindByIdAsync(still.AccountId) is { } now && !now.IsLocked(clock.GetUtcNow()))
                {
                    now.PasswordHash = hash;
                    // Whoever got in by the old password is out, and so are the programs that were let in by them.
                    await accounts.UpdateSecurityStampAsync(now);
                    await Access.EndAsync(db, now.Id, cancellation);
                    unit.Afterwards(() => live.EndAccount(now.Id));
                }
                else
                {
                    return GoodForNothing();
                }

                if (still.AccountId is null)
                {
                    db.Invitations.Remove(still);
                }

                audit.Note(http, AuditEvent.PasswordSet, ManageAccounts.Called(account), who: account.UserName);
                return TypedResults.NoContent();
            },
            cancellation);
    }

    private static ProblemHttpResult Refused(string why) => TypedResults.Problem(why, statusCode: StatusCodes.Status400BadRequest, title: "Nothing was set yet.");

    private static ProblemHttpResult GoodForNothing() => TypedResults.Problem(
        "It has been used, is too old, or another one was made after it. Ask an administrator for a new one.",
        statusCode: StatusCodes.Status404NotFound,
        title: "This link is not good any more.");
}

/// <summary>What is asked of a link.</summary>
internal sealed record InvitationLook(string Key);

/// <summary>Whose password a link sets.</summary>
/// <param name="UserName">The account; null for the first administrator, who chooses it.</param>
/// <param name="DisplayName">How the person is called.</param>
internal sealed record InvitationView(string? UserName, string? DisplayName);

/// <summary>A link that is used.</summary>
/// <param name="Key">The link's key.</param>
/// <param name="Password">From now on the password.</param>
/// <param name="UserName">Only the first administrator's: the account.</param>
/// <param name="DisplayName">Only the first administrator's: how they are called.</param>
internal sealed record Acceptance(string Key, string Password, string? UserName = null, string? DisplayName = null);
