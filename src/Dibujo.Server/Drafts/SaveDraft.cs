using Dibujo.Core.Rules;
using Dibujo.Server.Accounts;
using Dibujo.Server.Auditing;
using Dibujo.Server.RecordTypes;
using Dibujo.Store;
using Dibujo.Store.Writing;
using Microsoft.AspNetCore.Http.HttpResults;
using Microsoft.AspNetCore.Mvc;
using Microsoft.EntityFrameworkCore;

namespace Dibujo.Server.Drafts;

/// <summary>Puts a whole definition in the place of a draft, with problems or without; members notice nothing. Who edits single rules makes steps instead.</summary>
internal static class SaveDraft
{
    internal static void Map(IEndpointRouteBuilder api) =>
        api.MapPut("/record-types/{key}/draft", Save).WithName("SaveDraft").RequireAuthorization(Policies.Administrators)
            .ProducesProblem(StatusCodes.Status404NotFound).ProducesProblem(StatusCodes.Status409Conflict)
            .WithMetadata(new RequestSizeLimitAttribute(Exchange.RequestFile.Largest));

    internal static ProblemHttpResult Overtaken() => TypedResults.Problem(
        "Somebody else has changed the draft in the meantime. Load it again; nothing of theirs was overwritten.",
        statusCode: StatusCodes.Status409Conflict,
        title: "The draft is no longer the one you began with.");

    private static async Task<Results<Ok<DraftView>, ProblemHttpResult>> Save(
        string key, DraftSubmission submission, HttpContext http, DibujoDb db, UnitOfWork unit, DraftChange change, DraftEdits edits, CancellationToken cancellation)
    {
        if (await db.RecordTypes.SingleOrDefaultAsync(t => t.Key == key, cancellation) is not { } type)
        {
            return ReadRecordTypes.NoSuchRecordType(key);
        }

        if (submission.Version != type.DraftVersion)
        {
            return Overtaken();
        }

        if (submission.Definition.RecordType.Key != key)
        {
            return TypedResults.Problem(
                $"The definition is of “{submission.Definition.RecordType.Key}”. Send it to that record type's address.",
                statusCode: StatusCodes.Status400BadRequest);
        }

        var before = type.Draft;
        var made = change.Replace(type, submission.Definition, http.User.Identity!.Name!);
        try
        {
            await unit.RunAsync(() => edits.NoteAsync(http, before, made, cancellation), cancellation);
        }
        catch (DbUpdateConcurrencyException)
        {
            return Overtaken();
        }

        change.Tell(type);
        return TypedResults.Ok(DraftView.Of(type, await PersonNames.AccountsAsync(db, cancellation), await ReadDraft.CollisionsAsync(db, key, cancellation)));
    }
}

/// <summary>A draft to be stored, and the version that it was made from.</summary>
internal sealed record DraftSubmission(int Version, Definition Definition);
