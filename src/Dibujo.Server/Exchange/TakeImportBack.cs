using System.Collections.Immutable;
using System.Globalization;
using Dibujo.Core.Csv;
using Dibujo.Core.Records;
using Dibujo.Core.Values;
using Dibujo.Server.Accounts;
using Dibujo.Server.Auditing;
using Dibujo.Server.RecordTypes;
using Dibujo.Store;
using Dibujo.Store.Auditing;
using Dibujo.Store.Records;
using Microsoft.AspNetCore.Http.HttpResults;
using Microsoft.EntityFrameworkCore;

namespace Dibujo.Server.Exchange;

/// <summary>
/// Takes back what an import did, for as long as it is told of: records that it began are removed, others get back what they held before.
/// That is an import of its own, with a row for each record: who saved a record since keeps it.
/// </summary>
internal static class TakeImportBack
{
    internal static void Map(IEndpointRouteBuilder api) =>
        api.MapPost("/imports/{id:guid}/taking-back", Run).WithName("TakeImportBack").RequireAuthorization(Policies.Members)
            .ProducesProblem(StatusCodes.Status404NotFound).ProducesProblem(StatusCodes.Status409Conflict).ProducesProblem(StatusCodes.Status503ServiceUnavailable);

    private static async Task<Results<Ok<ImportProgress>, ProblemHttpResult>> Run(
        Guid id, HttpContext http, DibujoDb db, Editions editions, Importer importer, AuditTrail audit, CancellationToken cancellation)
    {
        if (await importer.FindAsync(id, http.User, db, cancellation) is not { IsTrial: false, TakesBack: null } import || await editions.CurrentAsync(db, import.RecordType, cancellation) is not { } edition)
        {
            return ReadImport.NoSuchImport();
        }

        if (import.ThroughAt is null || await db.Imports.AnyAsync(one => one.TakesBack == id && one.ThroughAt == null, cancellation))
        {
            return TypedResults.Problem(
                import.ThroughAt is null ? "It still goes on. End it first." : "It is being taken back already.", statusCode: StatusCodes.Status409Conflict, title: "Nothing was taken back.");
        }

        var type = edition.Definition.RecordType;
        var entry = audit.Entry(http, AuditEvent.ImportTakenBack, string.Create(CultureInfo.InvariantCulture, $"{type.Label}, what came in on {import.BegunAt:d MMM yyyy HH:mm} UTC"));
        var rows = new RowsRead(await RowsAsync(db, type, id, cancellation), null) { Headers = ["No."] };
        return importer.Begin(import.RecordType, rows, http.User, entry, takesBack: id) is var (taking, _) ? TypedResults.Ok(ImportProgress.Of(taking)) : ImportRecords.TooMany();
    }

    /// <summary>A row for each record that it began or changed, those of its last rows first; what has been taken back before is left out.</summary>
    private static async Task<ImmutableArray<ReadRow>> RowsAsync(DibujoDb db, RecordType type, Guid import, CancellationToken cancellation)
    {
        var entries = await db.History.AsNoTracking().Where(e => e.Import == import).OrderByDescending(e => e.Id).ToListAsync(cancellation);
        var before = db.Imports.Where(one => one.TakesBack == import).Select(one => one.Id);
        var done = await db.History.Where(e => e.Import != null && before.Contains(e.Import.Value)).Select(e => e.RecordId).ToHashSetAsync(cancellation);
        return [.. entries.Where(entry => !done.Contains(entry.RecordId)).GroupBy(entry => entry.RecordId).Select(own => Row(type, own.Key, [.. own]))];
    }

    /// <param name="type">The record type.</param>
    /// <param name="record">Number of the record.</param>
    /// <param name="entries">What the import did to it, the last first.</param>
    private static ReadRow Row(RecordType type, int record, ImmutableArray<HistoryEntry> entries)
    {
        var (first, last) = (entries[^1].Version, entries[0].Version);
        var held = new Dictionary<string, Value>(StringComparer.Ordinal);
        foreach (var entry in entries)
        {
            foreach (var field in entry.After.ByField.Keys.Union(entry.Before.ByField.Keys, StringComparer.Ordinal))
            {
                held[field] = entry.Before[field];
            }
        }

        var removes = first == 1;
        var fitted = new RecordValues(held).FittedTo(type);
        return new(
            record, record, last, null, null,
            removes ? ImmutableDictionary<string, Value>.Empty : held.Keys.Where(field => type.Find(field) is not null).ToImmutableDictionary(field => field, field => fitted[field], StringComparer.Ordinal),
            last - first + 1 == entries.Length ? [] : ["Somebody saved this record between two rows of the file. It stays as it is."])
        {
            Removes = removes,
            Cells = [string.Create(CultureInfo.InvariantCulture, $"{record}")],
        };
    }
}
