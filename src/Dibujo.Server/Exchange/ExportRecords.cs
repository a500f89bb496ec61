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

/// <summary>All records of a type, or those of a list with its columns, as comma-separated values, sent as they are read, or as a workbook.</summary>
internal static class ExportRecords
{
    private const int ChunkSize = 500;

    internal static void Map(IEndpointRouteBuilder api)
    {
        api.MapGet("/record-types/{key}/records.csv", Separated).WithName("ExportRecords").RequireAuthorization(Policies.Members)
            .ProducesProblem(StatusCodes.Status400BadRequest).ProducesProblem(StatusCodes.Status404NotFound);
        api.MapGet("/record-types/{key}/records.xlsx", Sheet).WithName("ExportSheet").RequireAuthorization(Policies.Members)
            .ProducesProblem(StatusCodes.Status400BadRequest).ProducesProblem(StatusCodes.Status404NotFound).ProducesProblem(StatusCodes.Status409Conflict);
    }

    private static async Task<Results<PushStreamHttpResult, ProblemHttpResult>> Separated(
        string key, string? list, bool? written, [AsParameters] Stores stores, HttpContext http, CancellationToken cancellation)
    {
        var (export, problem) = await BeginAsync(key, list, stores, http, cancellation);
        if (export is null)
        {
            return problem!;
        }

        // For people, as they write: records and people by what they are called.
        var writing = written == true ? await WritingAsync(stores, http, cancellation) : null;
        return TypedResults.Stream(
            async body =>
            {
                // Spreadsheets take what begins with a byte-order mark for UTF-8; programs do without.
                await using var text = new StreamWriter(body, new UTF8Encoding(encoderShouldEmitUTF8Identifier: writing is not null), 64 * 1024, leaveOpen: true);
                await RecordTable.WriteAsync(export.Type, export.Rows, text, writing, cancellation);
            },
            "text/csv", $"{key}.csv");
    }

    private static async Task<Results<FileStreamHttpResult, ProblemHttpResult>> Sheet(
        string key, string? list, [AsParameters] Stores stores, HttpContext http, CancellationToken cancellation)
    {
        var (export, problem) = await BeginAsync(key, list, stores, http, cancellation);
        if (export is null)
        {
            return problem!;
        }

        var (file, mistake) = await RecordSheet.WriteAsync(export.Type, export.Rows, await WritingAsync(stores, http, cancellation), cancellation);
        return file is null
            ? TypedResults.Problem(mistake, statusCode: StatusCodes.Status409Conflict, title: "A workbook cannot hold these records.")
            : TypedResults.File(file, ImportRecords.Sheet, $"{key}.xlsx");
    }

    private static async Task<TableReading> WritingAsync(Stores stores, HttpContext http, CancellationToken cancellation) =>
        new(http.Notation(), await StoredLookup.ReadAsync(stores.Db, cancellation), DateOnly.FromDateTime(stores.Clock.GetLocalNow().DateTime));

    /// <summary>Notes that records go out; null and a problem where nothing does.</summary>
    private static async Task<(Export? Export, ProblemHttpResult? Problem)> BeginAsync(string key, string? list, Stores stores, HttpContext http, CancellationToken cancellation)
    {
        var db = stores.Db;
        if (await stores.Editions.CurrentAsync(db, key, cancellation) is not { Definition.RecordType: var type })
        {
            return (null, ReadRecordTypes.NoSuchRecordType(key));
        }

        RecordQuery? query = null;
        if (list is not null)
        {
            ListRequest? request;
            try
            {
                request = JsonSerializer.Deserialize<ListRequest>(list, stores.Json.Value.SerializerOptions);
            }
            catch (JsonException)
            {
                request = null;
            }

            if (request is null)
            {
                return (null, TypedResults.Problem("Give “list” as the list itself is asked for.", statusCode: StatusCodes.Status400BadRequest));
            }

            (query, var problem) = ListRows.Query(type, request, stores.Clock.LocalTimeZone);
            if (query is null)
            {
                return (null, problem);
            }

            type = type with { Fields = [.. request.Columns.Select(type.Find).OfType<Field>().Distinct()] };
        }

        stores.Audit.Note(http, AuditEvent.RecordsExported, type.Label);
        await stores.Unit.SaveAsync(cancellation);
        return (new(type, WhileAllowedAsync(query is null ? RowsAsync(db, type, cancellation) : RowsAsync(db, query, type, cancellation), stores.Rights, http, cancellation)), null);
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

    /// <summary>What an export is made from.</summary>
    internal sealed record Stores(DibujoDb Db, UnitOfWork Unit, Editions Editions, AuditTrail Audit, Rights Rights, TimeProvider Clock, IOptions<JsonOptions> Json);

    /// <summary>Records that go out.</summary>
    /// <param name="Type">Their type, with the fields that go out.</param>
    /// <param name="Rows">The records, as they are read.</param>
    private sealed record Export(RecordType Type, IAsyncEnumerable<RecordRow> Rows);
}
