using Dibujo.Server.Accounts;
using Dibujo.Store;
using Microsoft.AspNetCore.Http.HttpResults;
using Microsoft.EntityFrameworkCore;

namespace Dibujo.Server.Records;

/// <summary>The records of a type, latest change first, a page at a time.</summary>
internal static class ListRecords
{
    private const int PageSize = 25;
    private const int LastPage = 1_000_000;

    internal static void Map(IEndpointRouteBuilder api) =>
        api.MapGet("/record-types/{key}/records", Read).WithName("ListRecords").RequireAuthorization(Policies.Members);

    private static async Task<Ok<RecordPage>> Read(
        string key, string? search, string? stage, int? page, DibujoDb db, CancellationToken cancellation)
    {
        var records = db.Records.Where(r => r.RecordType == key);
        if (!string.IsNullOrWhiteSpace(search))
        {
            var pattern = $"%{search.Trim().Replace(@"\", @"\\", StringComparison.Ordinal).Replace("%", @"\%", StringComparison.Ordinal).Replace("_", @"\_", StringComparison.Ordinal)}%";
            records = records.Where(r => EF.Functions.Like(r.Title, pattern, @"\"));
        }

        if (!string.IsNullOrEmpty(stage))
        {
            records = records.Where(r => r.Stage == stage);
        }

        var total = await records.CountAsync(cancellation);
        var rows = await records.OrderByDescending(r => r.ChangedAt).ThenByDescending(r => r.Id)
            .Skip((Math.Clamp(page ?? 1, 1, LastPage) - 1) * PageSize).Take(PageSize)
            .Select(r => new RecordRow(r.Id, r.Title, r.Workflow, r.Stage, r.ChangedAt, r.ChangedBy)).ToListAsync(cancellation);
        return TypedResults.Ok(new RecordPage(total, PageSize, rows));
    }
}

/// <summary>A page of the list.</summary>
internal sealed record RecordPage(int Total, int PageSize, List<RecordRow> Rows);

/// <summary>A record in the list.</summary>
internal sealed record RecordRow(int Id, string Title, string Workflow, string Stage, DateTime ChangedAt, string ChangedBy);
