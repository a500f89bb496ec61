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
            e.Version, e.By, e.At, e.Edition, e.Channel, e.Form, e.Before.ByField, e.After.ByField, e.FromStage, e.ToStage)));
    }
}

/// <summary>One save.</summary>
/// <param name="Version">The version that came of it.</param>
/// <param name="By">Account name of who saved it.</param>
/// <param name="At">When, in UTC.</param>
/// <param name="Edition">Number of the edition under which it was saved.</param>
/// <param name="Channel">By which way it came: form, list, import, api; null where a publication changed the record, or nobody noted it.</param>
/// <param name="Form">Key of the form through which it came; null for none.</param>
/// <param name="Before">Values of the changed fields before; a field that is missing was blank.</param>
/// <param name="After">Values of the changed fields after.</param>
/// <param name="FromStage">Key of the stage before.</param>
/// <param name="ToStage">Key of the stage after.</param>
internal sealed record HistoryView(
    int Version,
    string By,
    DateTime At,
    int Edition,
    string? Channel,
    string? Form,
    IReadOnlyDictionary<string, Value> Before,
    IReadOnlyDictionary<string, Value> After,
    string FromStage,
    string ToStage);
