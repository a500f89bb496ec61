using System.Security.Claims;
using Dibujo.Server.Auditing;
using Dibujo.Server.Live;
using Dibujo.Store;
using Dibujo.Store.Accounts;
using Dibujo.Store.Auditing;
using Dibujo.Store.Writing;
using Microsoft.AspNetCore.Http.HttpResults;
using Microsoft.EntityFrameworkCore;

namespace Dibujo.Server.Accounts;

/// <summary>A person's tokens for programs that act for them: made, listed and taken back by that person.</summary>
internal static class Tokens
{
    private const int MostDays = 365;
    private const int MostTokens = 20;
    private const int LongestName = 80;

    internal static void Map(IEndpointRouteBuilder api)
    {
        api.MapGet("/tokens", List).WithName("ListTokens").RequireAuthorization(Policies.InPerson);
        api.MapPost("/tokens", Make).WithName("MakeToken").RequireAuthorization(Policies.InPerson).ProducesProblem(StatusCodes.Status400BadRequest);
        api.MapDelete("/tokens/{id:int}", Revoke).WithName("RevokeToken").RequireAuthorization(Policies.InPerson).ProducesProblem(StatusCodes.Status404NotFound);
    }

    private static async Task<Ok<List<TokenEntry>>> List(DibujoDb db, ClaimsPrincipal user, CancellationToken cancellation) =>
        TypedResults.Ok(await db.ApiTokens.Where(t => t.AccountId == user.AccountId()).OrderBy(t => t.Id)
            .Select(t => new TokenEntry(t.Id, t.Name, t.MadeAt, t.ExpiresAt)).ToListAsync(cancellation));

    private static async Task<Results<Ok<MadeToken>, ProblemHttpResult>> Make(
        NewToken request, HttpContext http, DibujoDb db, UnitOfWork unit, AuditTrail audit, TimeProvider clock, CancellationToken cancellation)
    {
        var account = http.User.AccountId();
        if (request.Name.Trim() is not { Length: > 0 and <= LongestName } name || request.Days is < 1 or > MostDays)
        {
            return TypedResults.Problem(
                $"Give a name of 1 to {LongestName} characters and 1 to {MostDays} days.", statusCode: StatusCodes.Status400BadRequest, title: "The token was not made.");
        }

        return await unit.RunAsync<Results<Ok<MadeToken>, ProblemHttpResult>>(
            async () =>
            {
                if (await db.ApiTokens.CountAsync(t => t.AccountId == account, cancellation) >= MostTokens)
                {
                    return TypedResults.Problem(
                        $"You have {MostTokens} tokens. Take one back first.", statusCode: StatusCodes.Status400BadRequest, title: "The token was not made.");
                }

                var key = Secrets.New();
                var now = clock.GetUtcNow().UtcDateTime;
                var token = new ApiToken { Hash = Secrets.Hash(key), AccountId = account, Name = name, MadeAt = now, ExpiresAt = now.AddDays(request.Days) };
                db.ApiTokens.Add(token);
                audit.Note(http, AuditEvent.TokenMade, name);
                await unit.SaveAsync(cancellation);
                return TypedResults.Ok(new MadeToken(token.Id, key, token.ExpiresAt));
            },
            cancellation);
    }

    private static async Task<Results<NoContent, ProblemHttpResult>> Revoke(int id, HttpContext http, DibujoDb db, UnitOfWork unit, LiveConnections live, AuditTrail audit, CancellationToken cancellation)
    {
        if (await db.ApiTokens.FirstOrDefaultAsync(t => t.Id == id && t.AccountId == http.User.AccountId(), cancellation) is not { } token)
        {
            return TypedResults.Problem($"You have no token {id}.", statusCode: StatusCodes.Status404NotFound);
        }

        db.ApiTokens.Remove(token);
        audit.Note(http, AuditEvent.TokenRevoked, token.Name);
        unit.Afterwards(() => live.EndToken(id));
        await unit.SaveAsync(cancellation);
        return TypedResults.NoContent();
    }
}

/// <summary>A token to be made.</summary>
/// <param name="Name">What the person calls it.</param>
/// <param name="Days">How long it is good for.</param>
internal sealed record NewToken(string Name, int Days = 90);

/// <summary>A token that was made. It is shown this once.</summary>
internal sealed record MadeToken(int Id, string Token, DateTime ExpiresAt);

/// <summary>A token in the list.</summary>
internal sealed record TokenEntry(int Id, string Name, DateTime MadeAt, DateTime ExpiresAt);
