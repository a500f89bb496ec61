using Dibujo.Server.Accounts;
using Dibujo.Store;
using Dibujo.Store.Auditing;
using Microsoft.AspNetCore.Http.HttpResults;
using Microsoft.EntityFrameworkCore;

namespace Dibujo.Server.Auditing;

/// <summary>What happened, latest first, a page at a time.</summary>
internal static class ReadAudit
{
    private const int PageSize = 50;

    internal static void Map(IEndpointRouteBuilder api) =>
        api.MapGet("/audit", Read).WithName("ReadAudit").RequireAuthorization(Policies.Administrators);

    /// <param name="before">Number of an entry: only earlier ones; null from the latest on.</param>
    /// <param name="db">The store.</param>
    /// <param name="cancellation">Ends the request.</param>
    private static async Task<Ok<List<AuditView>>> Read(int? before, DibujoDb db, CancellationToken cancellation) =>
        TypedResults.Ok(await db.Audit.AsNoTracking().Where(e => before == null || e.Id < before).OrderByDescending(e => e.Id).Take(PageSize)
            .Select(e => new AuditView(e.Id, e.At, e.Event, e.Who, e.About, e.Address)).ToListAsync(cancellation));
}

/// <summary>An entry of the audit trail.</summary>
internal sealed record AuditView(int Id, DateTime At, AuditEvent Event, string? Who, string? About, string? Address);
