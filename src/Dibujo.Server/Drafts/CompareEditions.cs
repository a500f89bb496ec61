using System.Globalization;
using Dibujo.Core.Packs;
using Dibujo.Core.Rules;
using Dibujo.Server.Accounts;
using Dibujo.Server.RecordTypes;
using Dibujo.Store;
using Microsoft.AspNetCore.Http.HttpResults;
using Microsoft.EntityFrameworkCore;

namespace Dibujo.Server.Drafts;

/// <summary>What is other in one edition, or in the draft, than in another: sentence by sentence.</summary>
internal static class CompareEditions
{
    /// <summary>What stands in an address for the draft, where else stands the number of an edition; 0 is what was there before the first.</summary>
    private const string Draft = "draft";

    internal static void Map(IEndpointRouteBuilder api) =>
        api.MapGet("/record-types/{key}/comparison", Run).WithName("CompareEditions").RequireAuthorization(Policies.Administrators)
            .ProducesProblem(StatusCodes.Status404NotFound);

    private static async Task<Results<Ok<Comparison>, ProblemHttpResult>> Run(string key, string from, string to, DibujoDb db, CancellationToken cancellation) =>
        await FindAsync(db, key, from, cancellation) is { } before && await FindAsync(db, key, to, cancellation) is { } after
            ? TypedResults.Ok(Comparison.Between(before, after))
            : ReadRecordTypes.NoSuchRecordType(key);

    private static async Task<Definition?> FindAsync(DibujoDb db, string key, string which, CancellationToken cancellation)
    {
        if (which == Draft)
        {
            return (await db.RecordTypes.AsNoTracking().SingleOrDefaultAsync(t => t.Key == key, cancellation))?.Draft;
        }

        if (!int.TryParse(which, NumberStyles.None, CultureInfo.InvariantCulture, out var number))
        {
            return null;
        }

        var edition = await db.Editions.AsNoTracking().SingleOrDefaultAsync(e => e.RecordType == key && e.Number == Math.Max(1, number), cancellation);
        // Before the first edition there were the fields and no rules.
        return number > 0 ? edition?.Definition
            : (edition?.Definition ?? await FindAsync(db, key, Draft, cancellation)) is { } first ? new(first.RecordType, []) : null;
    }
}
