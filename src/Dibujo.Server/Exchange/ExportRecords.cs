using System.Text;
using Dibujo.Core.Exchange;
using Dibujo.Server.Accounts;
using Dibujo.Server.RecordTypes;
using Dibujo.Store;
using Microsoft.AspNetCore.Http.HttpResults;
using Microsoft.EntityFrameworkCore;

namespace Dibujo.Server.Exchange;

/// <summary>All records of a type as comma-separated values.</summary>
internal static class ExportRecords
{
    internal static void Map(IEndpointRouteBuilder api) =>
        api.MapGet("/record-types/{key}/records.csv", Run).WithName("ExportRecords").RequireAuthorization(Policies.Members)
            .ProducesProblem(StatusCodes.Status404NotFound);

    private static async Task<Results<FileContentHttpResult, ProblemHttpResult>> Run(
        string key, DibujoDb db, Editions editions, CancellationToken cancellation)
    {
        if (await editions.CurrentAsync(db, key, cancellation) is not { Definition.RecordType: var type })
        {
            return ReadRecordTypes.NoSuchRecordType(key);
        }

        var records = await db.Records.AsNoTracking().Where(r => r.RecordType == key).OrderBy(r => r.Id).ToListAsync(cancellation);
        var text = RecordTable.Write(type, records.Select(r => new Core.Exchange.RecordRow(r.Id, r.Workflow, r.Stage, r.Values.FittedTo(type))));
        return TypedResults.File(Encoding.UTF8.GetBytes(text), "text/csv", $"{key}.csv");
    }
}
