using Dibujo.Core.Values;
using Dibujo.Server.Accounts;
using Dibujo.Store;
using Microsoft.AspNetCore.Http.HttpResults;
using Microsoft.EntityFrameworkCore;

namespace Dibujo.Server.Records;

/// <summary>Who saved a record, when, and what changed; latest first.</summary>
internal static class ReadHistory
{
    internal static void Map(IEndpointRouteBuilder api) =>
        api.MapGet("/records/{id:int}/history", Read).WithName("ReadHistory").RequireAuthorization(Policies.Members);

    private static async Task<Ok<List<HistoryView>>> Read(int id, DibujoDb db, CancellationToken cancellation)
    {
        var entries = await db.History.AsNoTracking().Where(e => e.RecordId == id).OrderByDescending(e => e.Version).ToListAsync(cancellation);
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
