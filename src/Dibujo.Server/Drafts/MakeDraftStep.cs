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

    /// <param name="key">Key of the record type.</param>
    /// <param name="step">What is to be done.</param>
    /// <param name="after">The version that the sender knows: the answer has the steps since, its own among them. Null for none of them.</param>
    /// <param name="http">The request.</param>
    /// <param name="db">The store.</param>
    /// <param name="unit">In which it is stored.</param>
    /// <param name="change">How drafts are changed.</param>
    /// <param name="edits">What is noted of it.</param>
    /// <param name="cancellation">Ends it.</param>
    private static async Task<Results<Ok<DraftNews>, ProblemHttpResult>> Run(
        string key, DraftStep step, int? after, HttpContext http, DibujoDb db, UnitOfWork unit, DraftChange change, DraftEdits edits, CancellationToken cancellation)
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
                return TypedResults.Ok((await ReadDraftSteps.NewsAsync(db, key, after, cancellation))!);
            }
            catch (DbUpdateConcurrencyException)
            {
                db.ChangeTracker.Clear();
            }
        }

        return SaveDraft.Overtaken();
    }
}
