using Dibujo.Core.Reshaping;
using Dibujo.Core.Rules;
using Dibujo.Server.Accounts;
using Dibujo.Server.RecordTypes;
using Dibujo.Store;
using Microsoft.AspNetCore.Http.HttpResults;
using Microsoft.EntityFrameworkCore;

namespace Dibujo.Server.Drafts;

/// <summary>What was published, by whom and when, latest first.</summary>
internal static class ReadEditions
{
    internal static void Map(IEndpointRouteBuilder api)
    {
        api.MapGet("/record-types/{key}/editions", Read).WithName("ListEditions").RequireAuthorization(Policies.Administrators);
        api.MapGet("/record-types/{key}/editions/{number:int}/draft", ReadAsDraft).WithName("ReadEditionAsDraft").RequireAuthorization(Policies.Administrators)
            .ProducesProblem(StatusCodes.Status404NotFound);
    }

    /// <summary>The draft that puts an earlier edition in force again: fields that have got other keys since are to have their former ones.</summary>
    private static async Task<Results<Ok<Definition>, ProblemHttpResult>> ReadAsDraft(string key, int number, DibujoDb db, CancellationToken cancellation) =>
        await db.Editions.AsNoTracking().SingleOrDefaultAsync(e => e.RecordType == key && e.Number == number, cancellation) is { Definition: var definition }
            ? TypedResults.Ok(definition with
            {
                RecordType = definition.RecordType with { Reshaping = FormerKeys.Back(Editions.ReshapingAfter(db, key, number)) },
            })
            : ReadRecordTypes.NoSuchRecordType(key);

    private static async Task<Ok<List<EditionEntry>>> Read(string key, DibujoDb db, CancellationToken cancellation) =>
        TypedResults.Ok(await db.Editions.Where(e => e.RecordType == key).OrderByDescending(e => e.Number)
            .Select(e => new EditionEntry(e.Number, e.Note, e.By, e.At)).ToListAsync(cancellation));
}

/// <summary>An edition in the list.</summary>
internal sealed record EditionEntry(int Number, string Note, string By, DateTime At);
