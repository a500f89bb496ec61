using System.Runtime.CompilerServices;
using System.Text;
using Dibujo.Core.Csv;
using Dibujo.Core.Records;
using Dibujo.Server.Accounts;
using Dibujo.Server.Auditing;
using Dibujo.Server.RecordTypes;
using Dibujo.Store;
using Dibujo.Store.Auditing;
using Microsoft.AspNetCore.Http.HttpResults;
using Microsoft.EntityFrameworkCore;

namespace Dibujo.Server.Exchange;

/// <summary>All records of a type as comma-separated values, sent as they are read.</summary>
internal static class ExportRecords
{
    private const int ChunkSize = 500;

    internal static void Map(IEndpointRouteBuilder api) =>
        api.MapGet("/record-types/{key}/records.csv", Run).WithName("ExportRecords").RequireAuthorization(Policies.Members)
            .ProducesProblem(StatusCodes.Status404NotFound);

    private static async Task<Results<PushStreamHttpResult, ProblemHttpResult>> Run(
        string key, HttpContext http, DibujoDb db, Editions editions, AuditTrail audit, CancellationToken cancellation)
    {
        if (await editions.CurrentAsync(db, key, cancellation) is not { Definition.RecordType: var type })
        {
            return ReadRecordTypes.NoSuchRecordType(key);
        }

        audit.Note(http, AuditEvent.RecordsExported, key);
        await db.SaveChangesAsync(cancellation);
        return TypedResults.Stream(
            async body =>
            {
                await using var text = new StreamWriter(body, new UTF8Encoding(encoderShouldEmitUTF8Identifier: false), 64 * 1024, leaveOpen: true);
                await RecordTable.WriteAsync(type, RowsAsync(db, type, cancellation), text, cancellation);
            },
            "text/csv", $"{key}.csv");
    }

    /// <summary>Some at a time, each time from the store: a slow reader keeps no transaction open.</summary>
    private static async IAsyncEnumerable<RecordRow> RowsAsync(DibujoDb db, RecordType type, [EnumeratorCancellation] CancellationToken cancellation)
    {
        var last = 0;
        while (true)
        {
            var records = await db.Records.AsNoTracking().Where(r => r.RecordType == type.Key && r.Id > last).OrderBy(r => r.Id).Take(ChunkSize).ToListAsync(cancellation);
            foreach (var record in records)
            {
                yield return new(record.Id, record.Version, record.Workflow, record.Stage, record.Values.FittedTo(type));
                last = record.Id;
            }

            if (records.Count < ChunkSize)
            {
                yield break;
            }
        }
    }
}
