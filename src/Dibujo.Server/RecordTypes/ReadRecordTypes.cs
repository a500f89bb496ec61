using Dibujo.Core.Rules;
using Dibujo.Server.Accounts;
using Dibujo.Store;
using Microsoft.AspNetCore.Http.HttpResults;
using Microsoft.EntityFrameworkCore;

namespace Dibujo.Server.RecordTypes;

/// <summary>Which record types there are, and the edition in force of one.</summary>
internal static class ReadRecordTypes
{
    internal static void Map(IEndpointRouteBuilder api)
    {
        api.MapGet("/record-types", List).WithName("ListRecordTypes").RequireAuthorization(Policies.Members);
        api.MapGet("/record-types/{key}", Read).WithName("ReadEdition").RequireAuthorization(Policies.Members)
            .ProducesProblem(StatusCodes.Status404NotFound);
    }

    private static async Task<Ok<List<RecordTypeView>>> List(DibujoDb db, CancellationToken cancellation)
    {
        return TypedResults.Ok(await db.RecordTypes.OrderBy(t => t.Key)
            .Select(t => new RecordTypeView(t.Key, t.Label, t.Published, t.RuleCount, db.RecordCounts.Where(c => c.RecordType == t.Key).Sum(c => c.Records)))
            .ToListAsync(cancellation));
    }

    private static async Task<Results<Ok<EditionView>, ProblemHttpResult>> Read(
        string key, DibujoDb db, Editions editions, CancellationToken cancellation) =>
        await editions.CurrentAsync(db, key, cancellation) is { } edition
            ? TypedResults.Ok(new EditionView(edition.Number, edition.Definition))
            : NoSuchRecordType(key);

    internal static ProblemHttpResult NoSuchRecordType(string key) => TypedResults.Problem(
        $"There is no published record type “{key}”.", statusCode: StatusCodes.Status404NotFound);
}

/// <summary>A record type in the list.</summary>
internal sealed record RecordTypeView(string Key, string Label, int? Edition, int Rules, int Records);

/// <summary>A published definition.</summary>
internal sealed record EditionView(int Number, Definition Definition);
