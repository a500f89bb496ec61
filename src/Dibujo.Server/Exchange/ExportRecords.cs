using System.Runtime.CompilerServices;
using System.Text;
using System.Text.Json;
using Dibujo.Core.Csv;
using Dibujo.Core.Records;
using Dibujo.Server.Accounts;
using Dibujo.Server.Auditing;
using Dibujo.Server.Records;
using Dibujo.Server.RecordTypes;
using Dibujo.Server.Tables;
using Dibujo.Store;
using Dibujo.Store.Auditing;
using Dibujo.Store.Listing;
using Dibujo.Store.Writing;
using Microsoft.AspNetCore.Http.HttpResults;
using Microsoft.AspNetCore.Http.Json;
using Microsoft.EntityFrameworkCore;
using Microsoft.Extensions.Options;
using RecordRow = Dibujo.Core.Csv.RecordRow;

namespace Dibujo.Server.Exchange;

/// <summary>All records of a type, or those of a list with its columns, as comma-separated values, sent as they are read.</summary>
internal static class ExportRecords
{
    private const int ChunkSize = 500;

    internal static void Map(IEndpointRouteBuilder api) =>
        api.MapGet("/record-types/{key}/records.csv", Run).WithName("ExportRecords").RequireAuthorization(Policies.Members)
            .ProducesProblem(StatusCodes.Status400BadRequest).ProducesProblem(StatusCodes.Status404NotFound);

    private static async Task<Results<PushStreamHttpResult, ProblemHttpResult>> Run(
        string key, string? list, bool? written, HttpContext http, DibujoDb db, UnitOfWork unit, Editions editions, AuditTrail audit, Rights rights, TimeProvider clock, IOptions<JsonOptions> json,
        CancellationToken cancellation)
    {
        if (await editions.CurrentAsync(db, key, cancellation) is not { Definition.RecordType: var type })
        {
            return ReadRecordTypes.NoSuchRecordType(key);
        }

        RecordQuery? query = null;
        if (list is not null)
        {
            ListRequest? request;
            try
            {
                request = JsonSerializer.Deserialize<ListRequest>(list, json.Value.SerializerOptions);
            }
            catch (JsonException)
            {
                request = null;
            }

            if (request is null)
            {
                return TypedResults.Problem("Give “list” as the list itself is asked for.", statusCode: StatusCodes.Status400BadRequest);
            }

            (query, var problem) = ListRows.Query(type, request, clock.LocalTimeZone);
            if (query is null)
            {
                return problem!;
            }

            type = type with { Fields = [.. request.Columns.Select(type.Find).OfType<Field>().Distinct()] };
        }

        audit.Note(http, AuditEvent.RecordsExported, type.Label);
        await unit.SaveAsync(cancellation);
        // For people, as they write: records and people by what they are called.
        var writing = written == true ? new TableReading(http.Notation(), await StoredLookup.ReadAsync(db, cancellation), DateOnly.FromDateTime(clock.GetLocalNow().DateTime)) : null;
        return TypedResults.Stream(
            async body =>
            {
                // Spreadsheets take what begins with a byte-order mark for UTF-8; programs do without.
                await using var text = new StreamWriter(body, new UTF8Encoding(encoderShouldEmitUTF8Identifier: writing is not null), 64 * 1024, leaveOpen: true);
                await RecordTable.WriteAsync(type, WhileAllowedAsync(query is null ? RowsAsync(db, type, cancellation) : RowsAsync(db, query, type, cancellation), rights, http, cancellation), text, writing, cancellation);
            },
            "text/csv", $"{key}.csv");
    }

    /// <summary>The rows for as long as whoever asked may have them; then the connection is broken off, so that nobody takes the file for whole.</summary>
    private static async IAsyncEnumerable<RecordRow> WhileAllowedAsync(
        IAsyncEnumerable<RecordRow> rows, Rights rights, HttpContext http, [EnumeratorCancellation] CancellationToken cancellation)
    {
        var count = 0;
        await foreach (var row in rows.WithCancellation(cancellation))
        {
            if (count++ % ChunkSize == 0 && await rights.NowAsync(http.User, cancellation) is null)
            {
                http.Abort();
                throw new OperationCanceledException("Whoever asked for the export may not have it any more.", http.RequestAborted);
            }

            yield return row;
        }
    }

    /// <summary>Those of a list, in its order.</summary>
    private static async IAsyncEnumerable<RecordRow> RowsAsync(DibujoDb db, RecordQuery query, RecordType type, [EnumeratorCancellation] CancellationToken cancellation)
    {
        await foreach (var found in new RecordList(db).AllAsync(query, ChunkSize, cancellation))
        {
            int[] ids = [.. found];
            var records = await db.Records.AsNoTracking().Where(r => ids.Contains(r.Id)).ToDictionaryAsync(r => r.Id, cancellation);
            foreach (var record in ids.Where(records.ContainsKey).Select(id => records[id]))
            {
                yield return new(record.Id, record.Version, record.Workflow, record.Stage, record.Values.FittedTo(type));
            }
        }
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
