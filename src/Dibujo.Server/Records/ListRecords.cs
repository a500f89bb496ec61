using System.Globalization;
using Dibujo.Server.Accounts;
using Dibujo.Store;
using Dibujo.Store.Records;
using Microsoft.AspNetCore.Http.HttpResults;
using Microsoft.EntityFrameworkCore;

namespace Dibujo.Server.Records;

/// <summary>The records of a type, latest change first, a page at a time: each page begins where the one before ended.</summary>
internal static class ListRecords
{
    private const int PageSize = 25;
    private const int LongestSearch = 200;

    /// <summary>How far a search is counted.</summary>
    private const int MostCounted = 1000;

    internal static void Map(IEndpointRouteBuilder api) =>
        api.MapGet("/record-types/{key}/records", Read).WithName("ListRecords").RequireAuthorization(Policies.Members)
            .ProducesProblem(StatusCodes.Status400BadRequest);

    /// <param name="key">Key of the record type.</param>
    /// <param name="search">What titles contain; null for anything.</param>
    /// <param name="stage">Key of the stage at which they are; null for any.</param>
    /// <param name="after">Where the page before ended, as that page said; null for the first page.</param>
    /// <param name="db">The store.</param>
    /// <param name="cancellation">Ends the request.</param>
    private static async Task<Results<Ok<RecordPage>, ProblemHttpResult>> Read(
        string key, string? search, string? stage, string? after, DibujoDb db, CancellationToken cancellation)
    {
        if (search?.Length > LongestSearch || !TryRead(after, out var end))
        {
            return TypedResults.Problem(
                $"Search for at most {LongestSearch} characters, and give “after” as the page before said it.", statusCode: StatusCodes.Status400BadRequest);
        }

        var records = Like(db.Records.AsNoTracking().Where(r => r.RecordType == key), search, stage);
        var onwards = end is var (at, id) ? records.Where(r => r.ChangedAt <= at && (r.ChangedAt < at || r.Id < id)) : records;
        var rows = await onwards.OrderByDescending(r => r.ChangedAt).ThenByDescending(r => r.Id).Take(PageSize + 1)
            .Select(r => new RecordRow(r.Id, r.Title, r.Workflow, r.Stage, r.ChangedAt, r.ChangedBy)).ToListAsync(cancellation);
        // A first page that is not full has been counted already.
        var counted = end is null && rows.Count < PageSize ? rows.Count : await CountAsync(db, records, key, search, stage, cancellation);
        var isMore = counted > MostCounted && !string.IsNullOrWhiteSpace(search);
        var next = rows.Count > PageSize ? rows[PageSize - 1] : null;
        return TypedResults.Ok(new RecordPage(isMore ? MostCounted : counted, isMore, rows.Take(PageSize).ToList(), next is null ? null : string.Create(CultureInfo.InvariantCulture, $"{next.ChangedAt.Ticks}-{next.Id}")));
    }

    /// <summary>As the database keeps count; of a search, which has to look at each, no more than some.</summary>
    private static async Task<int> CountAsync(
        DibujoDb db, IQueryable<StoredRecord> records, string key, string? search, string? stage, CancellationToken cancellation) =>
        string.IsNullOrWhiteSpace(search)
            ? await db.RecordCounts.Where(c => c.RecordType == key && (string.IsNullOrEmpty(stage) || c.Stage == stage)).SumAsync(c => c.Records, cancellation)
            : await records.Take(MostCounted + 1).CountAsync(cancellation);

    private static IQueryable<StoredRecord> Like(IQueryable<StoredRecord> records, string? search, string? stage)
    {
        if (!string.IsNullOrWhiteSpace(search))
        {
            var pattern = $"%{search.Trim().Replace(@"\", @"\\", StringComparison.Ordinal).Replace("%", @"\%", StringComparison.Ordinal).Replace("_", @"\_", StringComparison.Ordinal)}%";
            records = records.Where(r => EF.Functions.Like(r.Title, pattern, @"\"));
        }

        return string.IsNullOrEmpty(stage) ? records : records.Where(r => r.Stage == stage);
    }

    private static bool TryRead(string? after, out (DateTime At, int Id)? end)
    {
        end = null;
        if (after is null)
        {
            return true;
        }

        if (after.Split('-') is not [var ticks, var number]
            || !long.TryParse(ticks, NumberStyles.None, CultureInfo.InvariantCulture, out var at) || at > DateTime.MaxValue.Ticks
            || !int.TryParse(number, NumberStyles.None, CultureInfo.InvariantCulture, out var id))
        {
            return false;
        }

        end = (new(at, DateTimeKind.Utc), id);
        return true;
    }
}

/// <summary>A page of the list.</summary>
/// <param name="Total">How many there are on all pages.</param>
/// <param name="IsMore">Whether there are more than that: a search is not counted to the end.</param>
/// <param name="Rows">Those on this page.</param>
/// <param name="Next">To be sent as “after” for the next page; null on the last.</param>
internal sealed record RecordPage(int Total, bool IsMore, List<RecordRow> Rows, string? Next);

/// <summary>A record in the list.</summary>
internal sealed record RecordRow(int Id, string Title, string Workflow, string Stage, DateTime ChangedAt, string ChangedBy);
