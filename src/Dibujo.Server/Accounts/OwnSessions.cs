using System.Globalization;
using System.Security.Claims;
using Dibujo.Server.Auditing;
using Dibujo.Store;
using Dibujo.Store.Auditing;
using Microsoft.AspNetCore.Http.HttpResults;
using Microsoft.EntityFrameworkCore;

namespace Dibujo.Server.Accounts;

/// <summary>Where a person is signed in, so that a session left behind somewhere can be ended from here.</summary>
internal static class OwnSessions
{
    internal static void Map(IEndpointRouteBuilder api)
    {
        api.MapGet("/sessions", List).WithName("ListSessions").RequireAuthorization(Policies.InPerson);
        api.MapDelete("/sessions/{id:int}", End).WithName("EndSession").RequireAuthorization(Policies.InPerson).ProducesProblem(StatusCodes.Status404NotFound);
    }

    private static async Task<Ok<List<SessionEntry>>> List(DibujoDb db, ClaimsPrincipal user, CancellationToken cancellation)
    {
        var (account, own) = (user.AccountId(), int.Parse(user.FindFirstValue(Principals.SessionClaim)!, CultureInfo.InvariantCulture));
        return TypedResults.Ok(await db.Sessions.Where(s => s.AccountId == account).OrderByDescending(s => s.UsedAt)
            .Select(s => new SessionEntry(s.Id, s.BegunAt, s.UsedAt, s.Id == own)).ToListAsync(cancellation));
    }

    private static async Task<Results<NoContent, ProblemHttpResult>> End(int id, HttpContext http, DibujoDb db, AuditTrail audit, CancellationToken cancellation)
    {
        if (await db.Sessions.FirstOrDefaultAsync(s => s.Id == id && s.AccountId == http.User.AccountId(), cancellation) is not { } session)
        {
            return TypedResults.Problem($"You have no session {id}.", statusCode: StatusCodes.Status404NotFound);
        }

        db.Sessions.Remove(session);
        audit.Note(http, AuditEvent.SessionEnded);
        await db.SaveChangesAsync(cancellation);
        return TypedResults.NoContent();
    }
}

/// <summary>A session in the list.</summary>
/// <param name="Id">Its number.</param>
/// <param name="BegunAt">When it began, in UTC.</param>
/// <param name="UsedAt">When it was last used, in UTC, to within a few minutes.</param>
/// <param name="IsThis">Whether it is the one by which this is asked.</param>
internal sealed record SessionEntry(int Id, DateTime BegunAt, DateTime UsedAt, bool IsThis);
