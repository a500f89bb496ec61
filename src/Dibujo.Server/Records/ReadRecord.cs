using System.Security.Claims;
using Dibujo.Server.Accounts;
using Dibujo.Server.RecordTypes;
using Dibujo.Store;
using Microsoft.AspNetCore.Http.HttpResults;
using Microsoft.EntityFrameworkCore;

namespace Dibujo.Server.Records;

/// <summary>One record, stored or about to be begun.</summary>
internal static class ReadRecord
{
    internal static void Map(IEndpointRouteBuilder api)
    {
        api.MapGet("/records/{id:int}", Read).WithName("ReadRecord").RequireAuthorization(Policies.Members)
            .ProducesProblem(StatusCodes.Status404NotFound);
        api.MapGet("/record-types/{key}/new-record", Begin).WithName("BeginRecord").RequireAuthorization(Policies.Members)
            .ProducesProblem(StatusCodes.Status404NotFound);
    }

    internal static ProblemHttpResult NoSuchRecord(int id) => TypedResults.Problem(
        $"There is no record {id}.", statusCode: StatusCodes.Status404NotFound);

    private static async Task<Results<Ok<RecordView>, ProblemHttpResult>> Read(
        int id, DibujoDb db, Editions editions, ClaimsPrincipal user, CancellationToken cancellation) =>
        await db.Records.AsNoTracking().SingleOrDefaultAsync(r => r.Id == id, cancellation) is { } record
        && await editions.CurrentAsync(db, record.RecordType, cancellation) is { } edition
            ? TypedResults.Ok(RecordView.Of(record, edition, user.RoleKeys()))
            : NoSuchRecord(id);

    private static async Task<Results<Ok<RecordView>, ProblemHttpResult>> Begin(
        string key, string? workflow, DibujoDb db, Editions editions, ClaimsPrincipal user, CancellationToken cancellation) =>
        await editions.CurrentAsync(db, key, cancellation) is { } edition
        && CreateRecord.Beginning(edition, workflow, user) is { } setting
            ? TypedResults.Ok(RecordView.New(edition, setting))
            : ReadRecordTypes.NoSuchRecordType(key);
}
