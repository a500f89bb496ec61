using System.Collections.Immutable;
using System.Security.Claims;
using System.Text;
using Dibujo.Core.Csv;
using Dibujo.Server.Accounts;
using Dibujo.Store;
using Microsoft.AspNetCore.Http.HttpResults;

namespace Dibujo.Server.Exchange;

/// <summary>How far an import is, and what came of it; whoever began it may end it as well.</summary>
internal static class ReadImport
{
    internal static void Map(IEndpointRouteBuilder api)
    {
        api.MapGet("/imports/{id:guid}", Read).WithName("ReadImport").RequireAuthorization(Policies.Members)
            .ProducesProblem(StatusCodes.Status404NotFound);
        api.MapGet("/imports", List).WithName("ListImports").RequireAuthorization(Policies.Members);
        api.MapGet("/imports/{id:guid}/refused.csv", Refused).WithName("ReadRefusedRows").RequireAuthorization(Policies.Members)
            .ProducesProblem(StatusCodes.Status404NotFound);
        api.MapDelete("/imports/{id:guid}", End).WithName("EndImport").RequireAuthorization(Policies.Members)
            .ProducesProblem(StatusCodes.Status404NotFound);
    }

    private static async Task<Results<Ok<ImportProgress>, ProblemHttpResult>> Read(Guid id, Importer importer, DibujoDb db, ClaimsPrincipal user, CancellationToken cancellation) =>
        await importer.FindAsync(id, user, db, cancellation) is { } import ? TypedResults.Ok(ImportProgress.Of(import)) : NoSuchImport();

    private static async Task<Ok<ImmutableArray<ImportEntry>>> List(Importer importer, DibujoDb db, ClaimsPrincipal user, CancellationToken cancellation)
    {
        ImmutableArray<RunningImport> all = [.. await importer.OfAsync(user, db, cancellation)];
        return TypedResults.Ok<ImmutableArray<ImportEntry>>([.. all.Select(one => ImportEntry.Of(one, all))]);
    }

    /// <summary>The rows that were refused as they came, each with why, to be mended and sent again.</summary>
    private static async Task<Results<PushStreamHttpResult, ProblemHttpResult>> Refused(Guid id, Importer importer, DibujoDb db, ClaimsPrincipal user, CancellationToken cancellation)
    {
        if (await importer.FindAsync(id, user, db, cancellation) is not { Report: { } report } import)
        {
            return NoSuchImport();
        }

        var byLine = import.Table.Rows.ToLookup(row => row.Line, row => row.Cells);
        var refused = report.Rows.Where(row => !row.Reasons.IsEmpty).Select(row => ((IReadOnlyList<string>)byLine[row.Line].FirstOrDefault(ImmutableArray<string>.Empty), (IEnumerable<string>)row.Reasons));
        return TypedResults.Stream(
            async body =>
            {
                // Spreadsheets take what begins so for UTF-8.
                await using var text = new StreamWriter(body, new UTF8Encoding(encoderShouldEmitUTF8Identifier: true), 64 * 1024, leaveOpen: true);
                await RecordTable.WriteRefusedAsync(import.Table.Headers, refused, text);
            },
            "text/csv", $"{import.RecordType}-refused.csv");
    }

    private static async Task<Results<NoContent, ProblemHttpResult>> End(Guid id, Importer importer, DibujoDb db, ClaimsPrincipal user, CancellationToken cancellation)
    {
        if (await importer.FindAsync(id, user, db, cancellation) is not { } import)
        {
            return NoSuchImport();
        }

        await import.Cancellation.CancelAsync();
        return TypedResults.NoContent();
    }

    internal static ProblemHttpResult NoSuchImport() => TypedResults.Problem(
        "It was somebody else's, or it is more than a day ago. What was taken in is in the list of records.",
        statusCode: StatusCodes.Status404NotFound, title: "There is no such import.");
}

/// <summary>How far an import is.</summary>
/// <param name="Id">Its number.</param>
/// <param name="Rows">How many rows there are.</param>
/// <param name="Looked">How many of them have been looked at.</param>
/// <param name="Report">What came of it, once it is through.</param>
/// <param name="Failure">Why it ended before it was through.</param>
/// <param name="IsTrial">Whether it only tells what would come of it.</param>
/// <param name="Encoding">The encoding in which the file was taken to be, where it does not say so itself.</param>
/// <param name="IsTakingBack">Whether it takes another back: its rows are records then.</param>
internal sealed record ImportProgress(Guid Id, int Rows, int Looked, ImportReport? Report, string? Failure, bool IsTrial = false, string? Encoding = null, bool IsTakingBack = false)
{
    internal static ImportProgress Of(RunningImport import) =>
        new(import.Id, import.Rows, import.Work?.Looked ?? 0, import.Report, import.Failure, import.IsTrial, import.Table.Encoding, import.TakesBack is not null);
}

/// <summary>An import in the list of a person's own.</summary>
/// <param name="Id">Its number.</param>
/// <param name="RecordType">Key of the record type.</param>
/// <param name="BegunAt">When it was begun, in UTC.</param>
/// <param name="Rows">How many rows there are.</param>
/// <param name="Looked">How many of them have been looked at.</param>
/// <param name="IsThrough">Whether it has come to its end, whichever that was.</param>
/// <param name="Imported">How many rows are records, once it is through.</param>
/// <param name="Refused">How many were refused, once it is through.</param>
/// <param name="NotReached">How many were not come to.</param>
/// <param name="Failure">Why it ended before it was through.</param>
/// <param name="IsTakingBack">Whether it takes another back.</param>
/// <param name="IsTakenBack">Whether all that it did is taken back, or is just being.</param>
internal sealed record ImportEntry(
    Guid Id, string RecordType, DateTime BegunAt, int Rows, int Looked, bool IsThrough, int Imported, int Refused, int NotReached, string? Failure, bool IsTakingBack, bool IsTakenBack)
{
    internal static ImportEntry Of(RunningImport import, IEnumerable<RunningImport> all) => new(
        import.Id, import.RecordType, import.BegunAt, import.Rows, import.Work?.Looked ?? 0, import.ThroughAt is not null,
        import.Report?.Imported ?? import.Work?.Stored ?? import.Stored, import.Report?.Refused ?? 0, import.Report?.NotReached ?? 0, import.Failure ?? import.Report?.Ended,
        import.TakesBack is not null, all.Any(one => one.TakesBack == import.Id && (one.ThroughAt is null || one.Report is { Refused: 0, NotReached: 0 })));
}
