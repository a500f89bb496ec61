using Dibujo.Core.Values;
using Dibujo.Server.Accounts;
using Dibujo.Store;
using Microsoft.AspNetCore.Http.HttpResults;
using Microsoft.EntityFrameworkCore;

namespace Dibujo.Server.Records;

/// <summary>Who saved a record, when, and what changed; latest first, a page at a time.</summary>
internal static class ReadHistory
{
    private const int PageSize = 25;

    internal static void Map(IEndpointRouteBuilder api) =>
        api.MapGet("/records/{id:int}/history", Read).WithName("ReadHistory").RequireAuthorization(Policies.Members);

    /// <param name="id">Number of the record.</param>
    /// <param name="before">A version: only earlier ones; null from the latest on.</param>
    /// <param name="db">The store.</param>
    /// <param name="cancellation">Ends the request.</param>
    private static async Task<Ok<List<HistoryView>>> Read(int id, int? before, DibujoDb db, CancellationToken cancellation)
    {
        var entries = await db.History.AsNoTracking().Where(e => e.RecordId == id && (before == null || e.Version < before))
            .OrderByDescending(e => e.Version).Take(PageSize).ToListAsync(cancellation);
        return TypedResults.Ok(entries.ConvertAll(e => new HistoryView(
            e.Version, e.By, e.At, e.Edition, e.Before.ByField, e.After.ByField, e.FromStage, e.ToStage)));
    }
}

/// <summary>One save.</summary>
internal sealed record HistoryView(
    int Version,
    string By,
    DateTime At,
    int Edition,
    IReadOnlyDictionary<string, Value> Before,
    IReadOnlyDictionary<string, Value> After,
    string FromStage,
    string ToStage);
