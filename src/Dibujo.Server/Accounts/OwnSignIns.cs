using System.Globalization;
using System.Security.Claims;
using Dibujo.Server.Auditing;
using Dibujo.Server.Live;
using Dibujo.Store;
using Dibujo.Store.Auditing;
using Dibujo.Store.Writing;
using Microsoft.AspNetCore.Http.HttpResults;
using Microsoft.EntityFrameworkCore;

namespace Dibujo.Server.Accounts;

/// <summary>Where a person is signed in, so that a sign-in left behind somewhere can be ended from here.</summary>
internal static class OwnSignIns
{
    internal static void Map(IEndpointRouteBuilder api)
    {
        api.MapGet("/sign-ins", List).WithName("ListSignIns").RequireAuthorization(Policies.InPerson);
        api.MapDelete("/sign-ins/{id:int}", End).WithName("EndSignIn").RequireAuthorization(Policies.InPerson).ProducesProblem(StatusCodes.Status404NotFound);
    }

    private static async Task<Ok<List<SignInEntry>>> List(DibujoDb db, ClaimsPrincipal user, CancellationToken cancellation)
    {
        var (account, own) = (user.AccountId(), int.Parse(user.FindFirstValue(Principals.SignInClaim)!, CultureInfo.InvariantCulture));
        return TypedResults.Ok(await db.SignIns.Where(s => s.AccountId == account).OrderByDescending(s => s.UsedAt)
            .Select(s => new SignInEntry(s.Id, s.BegunAt, s.UsedAt, s.Id == own)).ToListAsync(cancellation));
    }

    private static async Task<Results<NoContent, ProblemHttpResult>> End(int id, HttpContext http, DibujoDb db, UnitOfWork unit, LiveConnections live, AuditTrail audit, CancellationToken cancellation)
    {
        if (await db.SignIns.FirstOrDefaultAsync(s => s.Id == id && s.AccountId == http.User.AccountId(), cancellation) is not { } signIn)
        {
            return TypedResults.Problem($"You have no sign-in {id}.", statusCode: StatusCodes.Status404NotFound);
        }

        db.SignIns.Remove(signIn);
        audit.Note(http, AuditEvent.SessionEnded);
        unit.Afterwards(() => live.EndSignIn(id));
        await unit.SaveAsync(cancellation);
        return TypedResults.NoContent();
    }
}

/// <summary>A sign-in in the list.</summary>
/// <param name="Id">Its number.</param>
/// <param name="BegunAt">When it began, in UTC.</param>
/// <param name="UsedAt">When it was last used, in UTC, to within a few minutes.</param>
/// <param name="IsThis">Whether it is the one by which this is asked.</param>
internal sealed record SignInEntry(int Id, DateTime BegunAt, DateTime UsedAt, bool IsThis);
