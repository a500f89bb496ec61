using Dibujo.Core.Analysis;
using Dibujo.Core.Records;
using Dibujo.Core.Reshaping;
using Dibujo.Server.Accounts;
using Dibujo.Server.Auditing;
using Dibujo.Server.Drafts;
using Dibujo.Server.RecordTypes;
using Dibujo.Store;
using Dibujo.Store.Auditing;
using Microsoft.AspNetCore.Http.HttpResults;
using Microsoft.EntityFrameworkCore;

namespace Dibujo.Server.Publications;

/// <summary>
/// Freezes the draft as the next edition and puts it in force, along with what that does to records: all at once. Where records
/// may have to change, that goes on after the answer, and <see cref="ReadPublication"/> tells how far it is.
/// </summary>
internal static class Publish
{
    internal static void Map(IEndpointRouteBuilder api) =>
        api.MapPost("/record-types/{key}/editions", Run).WithName("Publish").RequireAuthorization(Policies.Administrators)
            .ProducesProblem(StatusCodes.Status404NotFound).ProducesProblem(StatusCodes.Status409Conflict)
            .ProducesProblem(StatusCodes.Status422UnprocessableEntity);

    private static async Task<Results<Ok<PublicationView>, Accepted<PublicationView>, ProblemHttpResult>> Run(
        string key, PublicationRequest request, DibujoDb db, Editions editions, Publisher publisher, HttpContext http, AuditTrail audit, CancellationToken cancellation)
    {
        if (await db.RecordTypes.AsNoTracking().SingleOrDefaultAsync(t => t.Key == key, cancellation) is not { } type)
        {
            return ReadRecordTypes.NoSuchRecordType(key);
        }

        if (request.Version != type.DraftVersion)
        {
            return SaveDraft.Overtaken();
        }

        var problems = PublicationCheck.Of(type.Draft, await PersonNames.AccountsAsync(db, cancellation)).All();
        if (!problems.IsEmpty)
        {
            return TypedResults.Problem(
                "Mend the problems first; nothing was published.",
                statusCode: StatusCodes.Status422UnprocessableEntity,
                title: "The draft has problems.",
                extensions: [KeyValuePair.Create<string, object?>("problems", problems)]);
        }

        var before = await editions.CurrentAsync(db, key, cancellation);
        if (await StrandedAsync(db, before?.Definition.RecordType, type.Draft.RecordType, cancellation) is { } stranded)
        {
            return TypedResults.Problem(stranded, statusCode: StatusCodes.Status422UnprocessableEntity, title: "Records would stand nowhere.");
        }

        var publication = new Publication(
            type.Draft, before?.Number ?? 0, before is null ? null : new RecordReshaping(before.Definition.RecordType, type.Draft.RecordType), request.Note,
            audit.Entry(http, AuditEvent.Published, $"{type.Draft.RecordType.Label}, edition {(before?.Number ?? 0) + 1}"));
        if (!publisher.TryBegin(publication, out var done))
        {
            return TypedResults.Problem(
                "Wait until that is through, and look at what it changed.", statusCode: StatusCodes.Status409Conflict, title: "The record type is being published already.");
        }

        if (publication.Reshaping is { IsNeeded: true })
        {
            return TypedResults.Accepted($"/api/record-types/{key}/publication", PublicationView.Of(publication));
        }

        await done;
        return publication.Number is null ? SaveDraft.Overtaken() : TypedResults.Ok(PublicationView.Of(publication));
    }

    /// <summary>Where records stand at a stage, or in a workflow, that would be no more, and nobody has said where they go: that, as a sentence.</summary>
    private static async Task<string?> StrandedAsync(DibujoDb db, RecordType? before, RecordType then, CancellationToken cancellation)
    {
        var places = await db.Records.Where(r => r.RecordType == then.Key).GroupBy(r => new { r.Workflow, r.Stage })
            .Select(g => new { g.Key.Workflow, g.Key.Stage, Records = g.Count() }).ToListAsync(cancellation);
        return places.Where(place => then.FindWorkflow(place.Workflow) is not { } workflow
                || workflow.Position(then.Reshaping.OfType<StageRemoved>().Where(removed => removed.Workflow == place.Workflow)
                    .Aggregate(place.Stage, (stage, removed) => stage == removed.From ? removed.To : stage)) < 0)
            .Select(place => $"{(place.Records == 1 ? "One record is" : $"{place.Records} records are")} at the stage “{before?.FindStage(place.Stage)?.Label ?? place.Stage}” of the workflow “{before?.FindWorkflow(place.Workflow)?.Label ?? place.Workflow}”, which the draft does not have. Bring it back, and delete it on the sheet Workflow, which asks where they go.")
            .FirstOrDefault();
    }
}

/// <summary>What is to be published: that version of the draft, with a note for those who come after.</summary>
internal sealed record PublicationRequest(int Version, string Note);
