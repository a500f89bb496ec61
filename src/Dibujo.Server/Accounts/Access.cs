using System.Collections.Immutable;
using Dibujo.Server.Auditing;
using Dibujo.Server.Live;
using Dibujo.Store;
using Dibujo.Store.Auditing;
using Dibujo.Store.Writing;
using Microsoft.AspNetCore.Http.HttpResults;
using Microsoft.AspNetCore.Identity;
using Microsoft.EntityFrameworkCore;

namespace Dibujo.Server.Accounts;

/// <summary>By what a person gets in: sign-ins and tokens, seen and ended by an administrator. What is open by them is closed at that moment.</summary>
internal static class Access
{
    internal static void Map(IEndpointRouteBuilder api)
    {
        var access = api.MapGroup("/accounts/{userName}").RequireAuthorization(Policies.Administrators, Policies.InPerson);
        access.MapGet("/access", Read).WithName("ReadAccess").ProducesProblem(StatusCodes.Status404NotFound);
        access.MapDelete("/sign-ins/{id:int}", EndSignIn).WithName("EndSignInOf").ProducesProblem(StatusCodes.Status404NotFound);
        access.MapDelete("/tokens/{id:int}", EndToken).WithName("RevokeTokenOf").ProducesProblem(StatusCodes.Status404NotFound);
    }

    /// <summary>Ends all by which the account got in so far, links for a password included; stored with the unit of work that it is called in.</summary>
    internal static async Task EndAsync(DibujoDb db, string accountId, CancellationToken cancellation)
    {
        await db.SignIns.Where(s => s.AccountId == accountId).ExecuteDeleteAsync(cancellation);
        await db.ApiTokens.Where(t => t.AccountId == accountId).ExecuteDeleteAsync(cancellation);
        await db.Invitations.Where(i => i.AccountId == accountId).ExecuteDeleteAsync(cancellation);
    }

    private static async Task<Results<Ok<AccessView>, ProblemHttpResult>> Read(string userName, DibujoDb db, ILookupNormalizer normalizer, CancellationToken cancellation)
    {
        var name = normalizer.NormalizeName(userName);
        if (await db.Users.AsNoTracking().FirstOrDefaultAsync(u => u.NormalizedUserName == name, cancellation) is not { } account)
        {
            return ManageAccounts.NoSuchAccount(userName);
        }

        return TypedResults.Ok(new AccessView(
            [.. await db.SignIns.Where(s => s.AccountId == account.Id).OrderByDescending(s => s.UsedAt).Select(s => new SignInEntry(s.Id, s.BegunAt, s.UsedAt, false)).ToListAsync(cancellation)],
            [.. await db.ApiTokens.Where(t => t.AccountId == account.Id).OrderBy(t => t.Id).Select(t => new TokenEntry(t.Id, t.Name, t.MadeAt, t.ExpiresAt)).ToListAsync(cancellation)]));
    }

    private static Task<Results<NoContent, ProblemHttpResult>> EndSignIn(
        string userName, int id, HttpContext http, DibujoDb db, UnitOfWork unit, ILookupNormalizer normalizer, LiveConnections live, AuditTrail audit, CancellationToken cancellation) =>
        unit.RunAsync<Results<NoContent, ProblemHttpResult>>(
            async () =>
            {
                var name = normalizer.NormalizeName(userName);
                var account = await db.Users.AsNoTracking().FirstOrDefaultAsync(u => u.NormalizedUserName == name, cancellation);
                if (account is null || await db.SignIns.FirstOrDefaultAsync(s => s.Id == id && s.AccountId == account.Id, cancellation) is not { } signIn)
                {
                    return TypedResults.Problem($"“{userName}” has no sign-in {id}.", statusCode: StatusCodes.Status404NotFound);
                }

                db.SignIns.Remove(signIn);
                audit.Note(http, AuditEvent.SessionEnded, ManageAccounts.Called(account));
                unit.Afterwards(() => live.EndSignIn(id));
                return TypedResults.NoContent();
            },
            cancellation);

    private static Task<Results<NoContent, ProblemHttpResult>> EndToken(
        string userName, int id, HttpContext http, DibujoDb db, UnitOfWork unit, ILookupNormalizer normalizer, LiveConnections live, AuditTrail audit, CancellationToken cancellation) =>
        unit.RunAsync<Results<NoContent, ProblemHttpResult>>(
            async () =>
            {
                var name = normalizer.NormalizeName(userName);
                var account = await db.Users.AsNoTracking().FirstOrDefaultAsync(u => u.NormalizedUserName == name, cancellation);
                if (account is null || await db.ApiTokens.FirstOrDefaultAsync(t => t.Id == id && t.AccountId == account.Id, cancellation) is not { } token)
                {
                    return TypedResults.Problem($"“{userName}” has no token {id}.", statusCode: StatusCodes.Status404NotFound);
                }

                db.ApiTokens.Remove(token);
                audit.Note(http, AuditEvent.TokenRevoked, $"{token.Name}, of {ManageAccounts.Called(account)}");
                unit.Afterwards(() => live.EndToken(id));
                return TypedResults.NoContent();
            },
            cancellation);
}

/// <summary>By what a person gets in.</summary>
internal sealed record AccessView(ImmutableArray<SignInEntry> SignIns, ImmutableArray<TokenEntry> Tokens);
