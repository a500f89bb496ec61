using Dibujo.Server.Accounts;
using Dibujo.Store;
using Microsoft.AspNetCore.Http.HttpResults;
using Microsoft.EntityFrameworkCore;

namespace Dibujo.Server.Drafts;

/// <summary>What was published, by whom and when, latest first.</summary>
internal static class ReadEditions
{
    internal static void Map(IEndpointRouteBuilder api) =>
        api.MapGet("/record-types/{key}/editions", Read).WithName("ListEditions").RequireAuthorization(Policies.Administrators);

    private static async Task<Ok<List<EditionEntry>>> Read(string key, DibujoDb db, CancellationToken cancellation) =>
        TypedResults.Ok(await db.Editions.Where(e => e.RecordType == key).OrderByDescending(e => e.Number)
            .Select(e => new EditionEntry(e.Number, e.Note, e.By, e.At)).ToListAsync(cancellation));
}

/// <summary>An edition in the list.</summary>
internal sealed record EditionEntry(int Number, string Note, string By, DateTime At);
