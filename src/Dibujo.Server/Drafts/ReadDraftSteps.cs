using System.Collections.Immutable;
using Dibujo.Core.Drafts;
using Dibujo.Server.Accounts;
using Dibujo.Server.RecordTypes;
using Dibujo.Store;
using Microsoft.AspNetCore.Http.HttpResults;
using Microsoft.EntityFrameworkCore;

namespace Dibujo.Server.Drafts;

/// <summary>What was done to a draft since a version of it, and what waits for a choice.</summary>
internal static class ReadDraftSteps
{
    /// <summary>Whoever is further behind reads the draft anew.</summary>
    private const int Most = 500;

    internal static void Map(IEndpointRouteBuilder api) =>
        api.MapGet("/record-types/{key}/draft/steps", Read).WithName("ReadDraftSteps").RequireAuthorization(Policies.Administrators)
            .ProducesProblem(StatusCodes.Status404NotFound);

    private static async Task<Results<Ok<DraftNews>, ProblemHttpResult>> Read(string key, int after, DibujoDb db, CancellationToken cancellation)
    {
        return await NewsAsync(db, key, after, cancellation) is { } news ? TypedResults.Ok(news) : ReadRecordTypes.NoSuchRecordType(key);
    }

    /// <summary>What is new since that version; null where there is no such record type.</summary>
    /// <param name="db">The store.</param>
    /// <param name="key">Key of the record type.</param>
    /// <param name="after">The version that is known; null for whoever reads the draft anew.</param>
    /// <param name="cancellation">Ends it.</param>
    internal static async Task<DraftNews?> NewsAsync(DibujoDb db, string key, int? after, CancellationToken cancellation)
    {
        if (await db.RecordTypes.AsNoTracking().Where(t => t.Key == key).Select(t => new { t.DraftVersion, t.Published }).SingleOrDefaultAsync(cancellation) is not { } type)
        {
            return null;
        }

        // Not beyond the version that is told: more may have been done since.
        var steps = after is null ? null : await db.DraftSteps.AsNoTracking().Where(step => step.RecordType == key && step.Version > after && step.Version <= type.DraftVersion)
            .OrderBy(step => step.Version).Take(Most + 1).ToListAsync(cancellation);
        return new DraftNews(
            type.DraftVersion, type.Published, steps?.Count <= Most ? [.. steps.Select(step => new DraftStepView(step.Version, step.Step, step.By, step.At))] : null,
            await ReadDraft.CollisionsAsync(db, key, cancellation));
    }
}

/// <summary>A step that was made.</summary>
internal sealed record DraftStepView(int Version, DraftStep Step, string By, DateTime At);

/// <summary>What is new in a draft.</summary>
/// <param name="Version">Its version now.</param>
/// <param name="Edition">Number of the edition in force.</param>
/// <param name="Steps">What was done, in order; null where that is so much that the draft is better read anew.</param>
/// <param name="Collisions">Everything that waits for a choice.</param>
internal sealed record DraftNews(int Version, int? Edition, ImmutableArray<DraftStepView>? Steps, ImmutableArray<CollisionView> Collisions);
