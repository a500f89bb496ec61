using System.Collections.Immutable;
using System.Globalization;
using Dibujo.Core.Csv;
using Dibujo.Core.Notations;
using Dibujo.Core.Records;
using Dibujo.Server.Accounts;
using Dibujo.Server.Auditing;
using Dibujo.Server.RecordTypes;
using Dibujo.Server.Tables;
using Dibujo.Store;
using Dibujo.Store.Auditing;
using Microsoft.AspNetCore.Http.HttpResults;
using Microsoft.AspNetCore.Mvc;
using Microsoft.EntityFrameworkCore;

namespace Dibujo.Server.Exchange;

/// <summary>Takes in records from comma-separated values; refused rows change nothing. See <see cref="RecordImport"/>.</summary>
internal static class ImportRecords
{
    /// <summary>A workbook in Office Open XML.</summary>
    internal const string Sheet = "application/vnd.openxmlformats-officedocument.spreadsheetml.sheet";

    private const int MostLatest = 10;

    internal static void Map(IEndpointRouteBuilder api)
    {
        api.MapPost("/record-types/{key}/imports", Begin).WithName("BeginImport").RequireAuthorization(Policies.Members)
            .Accepts<string>("text/csv", Sheet).ProducesProblem(StatusCodes.Status400BadRequest).ProducesProblem(StatusCodes.Status404NotFound)
            .ProducesProblem(StatusCodes.Status409Conflict).ProducesProblem(StatusCodes.Status503ServiceUnavailable).WithMetadata(new RequestSizeLimitAttribute(RequestFile.Largest));
        api.MapPost("/record-types/{key}/records.csv", Run).WithName("ImportRecords").RequireAuthorization(Policies.Members)
            .Accepts<string>("text/csv", Sheet).ProducesProblem(StatusCodes.Status400BadRequest).ProducesProblem(StatusCodes.Status404NotFound)
            .ProducesProblem(StatusCodes.Status409Conflict).ProducesProblem(StatusCodes.Status503ServiceUnavailable).WithMetadata(new RequestSizeLimitAttribute(RequestFile.Largest));
    }

    internal static ProblemHttpResult TooMany() => TypedResults.Problem(
        "Others are importing, and many files wait already. Send it again in a while.", statusCode: StatusCodes.Status503ServiceUnavailable, title: "Nothing was imported.");

    /// <summary>Reads the file, and takes its rows in while whoever sent it does something else.</summary>
    private static async Task<Results<Ok<ImportProgress>, ProblemHttpResult>> Begin(
        string key, bool? overwrite, bool? dryRun, HttpRequest request, DibujoDb db, Editions editions, Importer importer, AuditTrail audit, TimeProvider clock, CancellationToken cancellation)
    {
        var (read, problem) = await ReadAsync(key, overwrite == true, request, db, editions, clock, cancellation);
        return read is null ? problem!
            : !read.Latest.IsEmpty ? NoVersions(read.Latest)
            : importer.Begin(
                key, read.Table, request.HttpContext.User, audit.Entry(request.HttpContext, AuditEvent.RecordsImported, read.Edition.Definition.RecordType.Label), dryRun == true, overwrite == true) is var (import, _)
            ? TypedResults.Ok(ImportProgress.Of(import))
            : TooMany();
    }

    /// <summary>Reads the file; null and a problem where there is nothing to be read, or nothing that it could be read as.</summary>
    private static async Task<(ReadFile? Read, ProblemHttpResult? Problem)> ReadAsync(
        string key, bool overwrites, HttpRequest request, DibujoDb db, Editions editions, TimeProvider clock, CancellationToken cancellation)
    {
        if (await editions.CurrentAsync(db, key, cancellation) is not { } edition)
        {
            return (null, ReadRecordTypes.NoSuchRecordType(key));
        }

        var type = edition.Definition.RecordType;
        var file = await RequestFile.ReadAsync(request, cancellation);
        // People are called by their names in it, and linked records by their titles.
        var names = type.Fields.Any(field => field.Type is LinkType or PersonType) ? await StoredLookup.ReadAsync(db, cancellation) : (IKnownNames)NoNames.Instance;
        var table = Read(type, file, new(request.HttpContext.Notation(), names, DateOnly.FromDateTime(clock.GetLocalNow().DateTime)));
        return table.Mistake is null
            ? (new(edition, table, overwrites ? [] : await LatestAsync(db, table.Rows, key, cancellation)), null)
            : (null, TypedResults.Problem(table.Mistake, statusCode: StatusCodes.Status400BadRequest, title: "The file could not be read; nothing was imported."));
    }

    /// <summary>Separated values, or the first sheet of a workbook.</summary>
    private static RowsRead Read(RecordType type, byte[] file, TableReading reading)
    {
        if (!file.AsSpan().StartsWith("PK"u8))
        {
            return RecordTable.Read(type, file, reading);
        }

        var (table, _, mistake) = Workbook.Read(file, null, reading.Notation);
        return table is null ? new([], mistake) : RecordTable.Read(type, [(1, [.. table.Headers]), .. table.Rows.Select((row, i) => (i + 2, row))], reading);
    }

    private static ProblemHttpResult NoVersions(ImmutableArray<string> latest) => TypedResults.Problem(
        $"It does not say which versions its rows were made from, so later saves may be overwritten. Latest changed: {string.Join("; ", latest)}. Export the records again to have the versions, or choose to overwrite.",
        statusCode: StatusCodes.Status409Conflict, title: "The file has no versions; nothing was imported.");

    /// <param name="key">Key of the record type.</param>
    /// <param name="dryRun">Whether to only report what would come of it.</param>
    /// <param name="overwrite">Whether rows count also where their record has been saved since the file was made, or the file does not say.</param>
    /// <param name="request">The file.</param>
    /// <param name="db">The store.</param>
    /// <param name="editions">Published editions.</param>
    /// <param name="importer">Takes the rows in.</param>
    /// <param name="audit">Where it is noted.</param>
    /// <param name="clock">Tells of today.</param>
    /// <param name="cancellation">Ends the request.</param>
    private static async Task<Results<Ok<ImportReport>, ProblemHttpResult>> Run(
        string key, bool? dryRun, bool? overwrite, HttpRequest request, DibujoDb db, Editions editions, Importer importer, AuditTrail audit, TimeProvider clock, CancellationToken cancellation)
    {
        var (read, problem) = await ReadAsync(key, overwrite == true, request, db, editions, clock, cancellation);
        if (read is null)
        {
            return problem!;
        }

        if (!read.Latest.IsEmpty && dryRun != true)
        {
            return NoVersions(read.Latest);
        }

        if (importer.Begin(key, read.Table, request.HttpContext.User, audit.Entry(request.HttpContext, AuditEvent.RecordsImported, read.Edition.Definition.RecordType.Label), dryRun == true, overwrite == true) is not var (import, through))
        {
            return TooMany();
        }

        // Whoever leaves ends it; what was stored before stays, and is accounted for.
        await using (cancellation.Register(import.Cancellation.Cancel))
        {
            await through;
        }

        return import.Report is { } report
            ? TypedResults.Ok(report with { Latest = read.Latest })
            : TypedResults.Problem(import.Failure, statusCode: StatusCodes.Status500InternalServerError, title: "The file was not taken in to its end.");
    }

    /// <summary>Of the records that rows without a version are about, those that were changed last, each in words.</summary>
    private static async Task<ImmutableArray<string>> LatestAsync(DibujoDb db, ImmutableArray<ReadRow> rows, string key, CancellationToken cancellation)
    {
        var latest = new List<Records.RecordRow>();
        foreach (var ids in rows.Where(row => row is { Id: not null, Version: null }).Select(row => row.Id!.Value).Distinct().Chunk(500))
        {
            latest.AddRange(await db.Records.AsNoTracking().Where(r => ids.Contains(r.Id) && r.RecordType == key).OrderByDescending(r => r.ChangedAt).Take(MostLatest)
                .Select(r => new Records.RecordRow(r.Id, r.Title, r.Workflow, r.Stage, r.ChangedAt, r.ChangedBy)).ToListAsync(cancellation));
        }

        var names = await PersonNames.ReadAsync(db, cancellation);
        return
        [
            .. latest.OrderByDescending(r => r.ChangedAt).Take(MostLatest).Select(r => string.Create(CultureInfo.InvariantCulture,
                $"No. {r.Id}, {r.Title}, by {names.NameOf(r.ChangedBy)} on {r.ChangedAt:d MMM yyyy HH:mm} UTC")),
        ];
    }

    /// <param name="Edition">The rules in force.</param>
    /// <param name="Table">What stands in the file.</param>
    /// <param name="Latest">What may be overwritten by it: see <see cref="LatestAsync"/>.</param>
    private sealed record ReadFile(Edition Edition, RowsRead Table, ImmutableArray<string> Latest);
}
