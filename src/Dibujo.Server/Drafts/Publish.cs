using Dibujo.Core.Analysis;
using Dibujo.Server.Accounts;
using Dibujo.Server.Auditing;
using Dibujo.Server.RecordTypes;
using Dibujo.Store;
using Dibujo.Store.Auditing;
using Dibujo.Store.Definitions;
using Microsoft.AspNetCore.Http.HttpResults;
using Microsoft.EntityFrameworkCore;

namespace Dibujo.Server.Drafts;

/// <summary>Freezes the draft as the next edition, all at once, and puts it in force.</summary>
internal static class Publish
{
    internal static void Map(IEndpointRouteBuilder api) =>
        api.MapPost("/record-types/{key}/editions", Run).WithName("Publish").RequireAuthorization(Policies.Administrators)
            .ProducesProblem(StatusCodes.Status404NotFound).ProducesProblem(StatusCodes.Status409Conflict)
            .ProducesProblem(StatusCodes.Status422UnprocessableEntity);

    private static async Task<Results<Ok<PublishedView>, ProblemHttpResult>> Run(
        string key, Publication publication, DibujoDb db, Editions editions, DraftChange change, HttpContext http, AuditTrail audit, TimeProvider clock, CancellationToken cancellation)
    {
        if (await db.RecordTypes.SingleOrDefaultAsync(t => t.Key == key, cancellation) is not { } type)
        {
            return ReadRecordTypes.NoSuchRecordType(key);
        }

        if (publication.Version != type.DraftVersion)
        {
            return SaveDraft.Overtaken();
        }

        var problems = PublicationCheck.Of(type.Draft).All();
        if (!problems.IsEmpty)
        {
            return TypedResults.Problem(
                "Mend the problems first; nothing was published.",
                statusCode: StatusCodes.Status422UnprocessableEntity,
                title: "The draft has problems.",
                extensions: [KeyValuePair.Create<string, object?>("problems", problems)]);
        }

        var number = (type.Published ?? 0) + 1;
        db.Editions.Add(new StoredEdition
        {
            RecordType = key,
            Number = number,
            Definition = type.Draft,
            Note = publication.Note,
            By = http.User.Identity!.Name!,
            At = clock.GetUtcNow().UtcDateTime,
        });
        type.Published = number;
        // The draft's version goes up as well, so that of two publications at once only one is written.
        type.DraftVersion++;
        audit.Note(http, AuditEvent.Published, $"{key}, edition {number}");
        try
        {
            await db.SaveChangesAsync(cancellation);
        }
        catch (DbUpdateException failure) when (failure.IsOvertaken())
        {
            return SaveDraft.Overtaken();
        }

        await change.TellAsync(type);
        await editions.PrepareAsync(db, key, number, cancellation);
        return TypedResults.Ok(new PublishedView(number, type.DraftVersion));
    }
}

/// <summary>What is to be published: that version of the draft, with a note for those who come after.</summary>
internal sealed record Publication(int Version, string Note);

/// <summary>The edition that came of it, and the draft's version now.</summary>
internal sealed record PublishedView(int Number, int Version);
