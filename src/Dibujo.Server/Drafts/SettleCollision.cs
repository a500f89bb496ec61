using System.Text.Json.Serialization;
using Dibujo.Core.Drafts;
using Dibujo.Server.Accounts;
using Dibujo.Server.Auditing;
using Dibujo.Store;
using Dibujo.Store.Writing;
using Microsoft.AspNetCore.Http.HttpResults;
using Microsoft.EntityFrameworkCore;

namespace Dibujo.Server.Drafts;

/// <summary>Chooses between two versions of a rule that two people wrote at the same time.</summary>
internal static class SettleCollision
{
    internal static void Map(IEndpointRouteBuilder api) =>
        api.MapPost("/record-types/{key}/draft/collisions/{id:int}", Run).WithName("SettleCollision").RequireAuthorization(Policies.Administrators)
            .ProducesProblem(StatusCodes.Status404NotFound).ProducesProblem(StatusCodes.Status409Conflict);

    private static async Task<Results<Ok<DraftNews>, ProblemHttpResult>> Run(
        string key, int id, CollisionChoice choice, int? after, HttpContext http, DibujoDb db, UnitOfWork unit, DraftChange change, DraftEdits edits,
        CancellationToken cancellation)
    {
        if (await db.RecordTypes.SingleOrDefaultAsync(t => t.Key == key, cancellation) is not { } type
            || await db.Collisions.SingleOrDefaultAsync(c => c.Id == id && c.RecordType == key, cancellation) is not { } collision)
        {
            return TypedResults.Problem("Somebody has chosen already, or there is no such choice to make.", statusCode: StatusCodes.Status404NotFound);
        }

        var before = type.Draft;
        Drafting? made = null;
        if (choice.Keep == KeptVersion.Later)
        {
            var later = collision.Step.Edits.Select(edit => edit with { Base = type.DraftVersion });
            made = change.Make(type, new([.. later], collision.Step.RecordType, type.DraftVersion, collision.Step.Examples), http.User.Identity!.Name!);
        }

        db.Collisions.Remove(collision);
        try
        {
            await unit.RunAsync(() => made is null ? Task.CompletedTask : edits.NoteAsync(http, before, made, cancellation), cancellation);
        }
        catch (DbUpdateConcurrencyException)
        {
            return SaveDraft.Overtaken();
        }

        change.Tell(type);
        return TypedResults.Ok((await ReadDraftSteps.NewsAsync(db, key, after, cancellation))!);
    }
}

/// <summary>Which of two versions stays.</summary>
internal sealed record CollisionChoice(KeptVersion Keep);

/// <summary>The version that stays.</summary>
[JsonConverter(typeof(JsonStringEnumConverter<KeptVersion>))]
internal enum KeptVersion
{
    /// <summary>The one that is in the draft.</summary>
    [JsonStringEnumMemberName("earlier")]
    Earlier,

    /// <summary>The one that came later.</summary>
    [JsonStringEnumMemberName("later")]
    Later,
}
