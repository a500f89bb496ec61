using System.Collections.Immutable;
using Dibujo.Core.Drafts;
using Dibujo.Server.Accounts;
using Dibujo.Server.Auditing;
using Dibujo.Server.RecordTypes;
using Dibujo.Store;
using Dibujo.Store.Writing;
using Microsoft.AspNetCore.Http.HttpResults;
using Microsoft.AspNetCore.Mvc;
using Microsoft.EntityFrameworkCore;

namespace Dibujo.Server.Drafts;

/// <summary>Edits rules of a draft. What others did in the meantime stays; where two changed the same rule, the later one waits for a choice.</summary>
internal static class MakeDraftStep
{
    /// <summary>How often a step is made again because another one came between.</summary>
    private const int MostTries = 8;

    internal static void Map(IEndpointRouteBuilder api) =>
        api.MapPost("/record-types/{key}/draft/steps", Run).WithName("MakeDraftStep").RequireAuthorization(Policies.Administrators)
            .ProducesProblem(StatusCodes.Status400BadRequest).ProducesProblem(StatusCodes.Status404NotFound).ProducesProblem(StatusCodes.Status409Conflict)
            .WithMetadata(new RequestSizeLimitAttribute(Exchange.RequestFile.Largest));

    private static async Task<Results<Ok<DraftStepMade>, ProblemHttpResult>> Run(
        string key, DraftStep step, HttpContext http, DibujoDb db, UnitOfWork unit, DraftChange change, DraftEdits edits, CancellationToken cancellation)
    {
        if (step.RecordType is { } type && type.Key != key)
        {
            return TypedResults.Problem($"The record type is “{type.Key}”. Send it to that one's address.", statusCode: StatusCodes.Status400BadRequest);
        }

        for (var tries = 0; tries < MostTries; tries++)
        {
            if (await db.RecordTypes.SingleOrDefaultAsync(t => t.Key == key, cancellation) is not { } stored)
            {
                return ReadRecordTypes.NoSuchRecordType(key);
            }

            if (step.Mistake(stored.DraftVersion) is { } mistake)
            {
                return TypedResults.Problem(mistake, statusCode: StatusCodes.Status400BadRequest, title: "The step makes no sense; nothing was changed.");
            }

            var before = stored.Draft;
            var made = change.Make(stored, step, http.User.Identity!.Name!);
            try
            {
                await unit.RunAsync(() => edits.NoteAsync(http, before, made, cancellation), cancellation);
                change.Tell(stored);
                return TypedResults.Ok(new DraftStepMade(stored.DraftVersion, await ReadDraft.CollisionsAsync(db, key, cancellation)));
            }
            catch (DbUpdateConcurrencyException)
            {
                db.ChangeTracker.Clear();
            }
        }

        return SaveDraft.Overtaken();
    }
}

/// <summary>The draft's version after a step.</summary>
/// <param name="Version">Steps after the one that the editor knew are to be read: others may have come between.</param>
/// <param name="Collisions">Everything that waits for a choice.</param>
internal sealed record DraftStepMade(int Version, ImmutableArray<CollisionView> Collisions);
