using System.Security.Claims;
using Dibujo.Server.Accounts;
using Dibujo.Server.RecordTypes;
using Dibujo.Store;
using Microsoft.AspNetCore.Http.HttpResults;
using Microsoft.EntityFrameworkCore;

namespace Dibujo.Server.Drafts;

/// <summary>Goes back to an edition: the draft becomes what that one is. Members notice nothing until it is published.</summary>
internal static class RestoreEdition
{
    internal static void Map(IEndpointRouteBuilder api) =>
        api.MapPost("/record-types/{key}/draft/restorations", Run).WithName("RestoreEdition").RequireAuthorization(Policies.Administrators)
            .ProducesProblem(StatusCodes.Status404NotFound).ProducesProblem(StatusCodes.Status409Conflict);

    private static async Task<Results<Ok<DraftStepMade>, ProblemHttpResult>> Run(
        string key, Restoration restoration, DibujoDb db, DraftChange change, ClaimsPrincipal user, CancellationToken cancellation)
    {
        if (await db.RecordTypes.SingleOrDefaultAsync(t => t.Key == key, cancellation) is not { } type
            || await db.Editions.AsNoTracking().SingleOrDefaultAsync(e => e.RecordType == key && e.Number == restoration.Edition, cancellation) is not { } edition)
        {
            return ReadRecordTypes.NoSuchRecordType(key);
        }

        if (restoration.Version != type.DraftVersion)
        {
            return SaveDraft.Overtaken();
        }

        change.Replace(type, edition.Definition, user.Identity!.Name!);
        try
        {
            await db.SaveChangesAsync(cancellation);
        }
        catch (DbUpdateConcurrencyException)
        {
            return SaveDraft.Overtaken();
        }

        await change.TellAsync(type);
        return TypedResults.Ok(new DraftStepMade(type.DraftVersion, await ReadDraft.CollisionsAsync(db, key, cancellation)));
    }
}

/// <summary>The edition to go back to, and the version of the draft that it takes the place of.</summary>
internal sealed record Restoration(int Edition, int Version);
