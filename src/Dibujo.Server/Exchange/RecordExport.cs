using System.Runtime.CompilerServices;
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

/// <summary>Records that go out of here, read some at a time for as long as whoever asked may have them.</summary>
internal sealed class RecordExport(DibujoDb db, UnitOfWork unit, Editions editions, AuditTrail audit, Rights rights, TimeProvider clock, IOptions<JsonOptions> json)
{
    private const int ChunkSize = 500;

    /// <summary>Their type, with the fields that go out; once it has been begun.</summary>
    internal RecordType Type { get; private set; } = null!;

    /// <summary>The records, as they are read.</summary>
    internal IAsyncEnumerable<RecordRow> Rows { get; private set; } = AsyncEnumerable.Empty<RecordRow>();

    /// <summary>How whoever asks writes, and what records and people are called.</summary>
    internal async Task<TableReading> WritingAsync(HttpContext http, CancellationToken cancellation) =>
        new(http.Notation(), await StoredLookup.ReadAsync(db, cancellation), DateOnly.FromDateTime(clock.GetLocalNow().DateTime));

    /// <summary>Notes that records go out; a problem where nothing does.</summary>
    /// <param name="key">Key of the record type.</param>
    /// <param name="list">A list, as it is asked for itself; null for all records.</param>
    /// <param name="http">The request.</param>
    /// <param name="cancellation">Ends it.</param>
    internal async Task<ProblemHttpResult?> BeginAsync(string key, string? list, HttpContext http, CancellationToken cancellation)
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
                return problem;
            }

            type = type with { Fields = [.. request.Columns.Select(type.Find).OfType<Field>().Distinct()] };
        }

        audit.Note(http, AuditEvent.RecordsExported, type.Label);
        await unit.SaveAsync(cancellation);
        Type = type;
        Rows = WhileAllowedAsync(query is null ? RowsAsync(type, cancellation) : RowsAsync(query, type, cancellation), http, cancellation);
        return null;
    }

    /// <summary>The rows for as long as whoever asked may have them; then the connection is broken off, so that nobody takes the file for whole.</summary>
    private async IAsyncEnumerable<RecordRow> WhileAllowedAsync(
        IAsyncEnumerable<RecordRow> rows, HttpContext http, [EnumeratorCancellation] CancellationToken cancellation)
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
    private async IAsyncEnumerable<RecordRow> RowsAsync(RecordQuery query, RecordType type, [EnumeratorCancellation] CancellationToken cancellation)
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
    private async IAsyncEnumerable<RecordRow> RowsAsync(RecordType type, [EnumeratorCancellation] CancellationToken cancellation)
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
