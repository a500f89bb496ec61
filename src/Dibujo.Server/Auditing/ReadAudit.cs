using System.Globalization;
using System.Runtime.CompilerServices;
using System.Text;
using System.Text.Json;
using CsvHelper;
using CsvHelper.Configuration;
using Dibujo.Core.Csv;
using Dibujo.Server.Accounts;
using Dibujo.Store;
using Dibujo.Store.Auditing;
using Dibujo.Store.Writing;
using Microsoft.AspNetCore.Http.HttpResults;
using Microsoft.EntityFrameworkCore;

namespace Dibujo.Server.Auditing;

/// <summary>What happened, latest first: a page at a time, or all of it as comma-separated values.</summary>
internal static class ReadAudit
{
    private const int PageSize = 50;
    private const int ChunkSize = 1000;

    internal static void Map(IEndpointRouteBuilder api)
    {
        api.MapGet("/audit", Read).WithName("ReadAudit").RequireAuthorization(Policies.Administrators).ProducesProblem(StatusCodes.Status400BadRequest);
        api.MapGet("/audit.csv", Export).WithName("ExportAudit").RequireAuthorization(Policies.Administrators).ProducesProblem(StatusCodes.Status400BadRequest);
    }

    /// <param name="before">Number of an entry: only earlier ones; null from the latest on.</param>
    /// <param name="search">What stands in one of them: see <see cref="SoughtEntries"/>, also for the others.</param>
    /// <param name="event">What happened.</param>
    /// <param name="who">Account name of who did it.</param>
    /// <param name="from">The first day.</param>
    /// <param name="to">The last day.</param>
    /// <param name="db">The store.</param>
    /// <param name="clock">The site's time.</param>
    /// <param name="cancellation">Ends the request.</param>
    private static async Task<Results<Ok<List<AuditView>>, ProblemHttpResult>> Read(
        int? before, string? search, string? @event, string? who, DateOnly? from, DateOnly? to, DibujoDb db, TimeProvider clock, CancellationToken cancellation)
    {
        var sought = new SoughtEntries(search, @event, who, from, to);
        if (sought.Mistake is { } mistake)
        {
            return TypedResults.Problem(mistake, statusCode: StatusCodes.Status400BadRequest, title: "The trail cannot be searched like that.");
        }

        var names = await PersonNames.ReadAsync(db, cancellation);
        var entries = await sought.In(db.Audit.AsNoTracking(), names, clock.LocalTimeZone).Where(e => before == null || e.Id < before).OrderByDescending(e => e.Id).Take(PageSize).ToListAsync(cancellation);
        return TypedResults.Ok(entries.ConvertAll(e => new AuditView(e.Id, e.At, e.Event, e.Who, e.Who is null ? null : names.NameOf(e.Who), e.About, e.Address)));
    }

    /// <summary>The same as a file, which is itself accounted for.</summary>
    private static async Task<Results<PushStreamHttpResult, ProblemHttpResult>> Export(
        string? search, string? @event, string? who, DateOnly? from, DateOnly? to, HttpContext http, DibujoDb db, UnitOfWork unit, AuditTrail audit, Rights rights, TimeProvider clock, CancellationToken cancellation)
    {
        var sought = new SoughtEntries(search, @event, who, from, to);
        if (sought.Mistake is { } mistake)
        {
            return TypedResults.Problem(mistake, statusCode: StatusCodes.Status400BadRequest, title: "The trail cannot be searched like that.");
        }

        audit.Note(http, AuditEvent.AuditExported);
        await unit.SaveAsync(cancellation);
        var names = await PersonNames.ReadAsync(db, cancellation);
        return TypedResults.Stream(
            async body =>
            {
                await using var text = new StreamWriter(body, new UTF8Encoding(encoderShouldEmitUTF8Identifier: false), 64 * 1024, leaveOpen: true);
                await using var csv = new CsvWriter(text, new CsvConfiguration(CultureInfo.InvariantCulture), leaveOpen: true);
                foreach (var header in (string[])["when (UTC)", "account", "person", "what", "about", "from"])
                {
                    csv.WriteField(header);
                }

                await csv.NextRecordAsync();
                await foreach (var e in EntriesAsync(sought.In(db.Audit.AsNoTracking(), names, clock.LocalTimeZone), rights, http, cancellation))
                {
                    string?[] cells =
                    [
                        e.At.ToString("yyyy-MM-dd HH:mm:ss", CultureInfo.InvariantCulture), e.Who, e.Who is null ? null : names.NameOf(e.Who), JsonNamingPolicy.CamelCase.ConvertName(e.Event.ToString()), e.About, e.Address,
                    ];
                    Array.ForEach(cells, cell => csv.WriteField(HarmlessCell.Of(cell ?? "")));
                    await csv.NextRecordAsync();
                }
            },
            "text/csv", "audit-trail.csv");
    }

    /// <summary>Some at a time, for as long as whoever asked may have them.</summary>
    private static async IAsyncEnumerable<AuditEntry> EntriesAsync(
        IQueryable<AuditEntry> entries, Rights rights, HttpContext http, [EnumeratorCancellation] CancellationToken cancellation)
    {
        for (var last = int.MaxValue; ;)
        {
            if (await rights.NowAsync(http.User, cancellation) is not { } person || !person.IsInRole(Policies.AdministratorRole))
            {
                http.Abort();
                throw new OperationCanceledException("Whoever asked for the export may not have it any more.", http.RequestAborted);
            }

            var from = last;
            var some = await entries.Where(e => e.Id < from).OrderByDescending(e => e.Id).Take(ChunkSize).ToListAsync(cancellation);
            foreach (var entry in some)
            {
                yield return entry;
                last = entry.Id;
            }

            if (some.Count < ChunkSize)
            {
                yield break;
            }
        }
    }
}

/// <summary>An entry of the audit trail.</summary>
/// <param name="Id">Its number; later ones are higher.</param>
/// <param name="At">When, in UTC.</param>
/// <param name="Event">What happened.</param>
/// <param name="Who">Account name of who did it; null where that is not known.</param>
/// <param name="Name">What they are called now.</param>
/// <param name="About">What it was about.</param>
/// <param name="Address">Network address from which it came.</param>
internal sealed record AuditView(int Id, DateTime At, AuditEvent Event, string? Who, string? Name, string? About, string? Address);
