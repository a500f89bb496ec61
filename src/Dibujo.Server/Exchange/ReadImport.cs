using System.Security.Claims;
using Dibujo.Core.Csv;
using Dibujo.Server.Accounts;
using Microsoft.AspNetCore.Http.HttpResults;

namespace Dibujo.Server.Exchange;

/// <summary>How far an import is, and what came of it; whoever began it may end it as well.</summary>
internal static class ReadImport
{
    internal static void Map(IEndpointRouteBuilder api)
    {
        api.MapGet("/imports/{id:guid}", Read).WithName("ReadImport").RequireAuthorization(Policies.Members)
            .ProducesProblem(StatusCodes.Status404NotFound);
        api.MapDelete("/imports/{id:guid}", End).WithName("EndImport").RequireAuthorization(Policies.Members)
            .ProducesProblem(StatusCodes.Status404NotFound);
    }

    private static Results<Ok<ImportProgress>, ProblemHttpResult> Read(Guid id, Importer importer, ClaimsPrincipal user) =>
        importer.Find(id, user) is { } import ? TypedResults.Ok(ImportProgress.Of(import)) : NoSuchImport();

    private static async Task<Results<NoContent, ProblemHttpResult>> End(Guid id, Importer importer, ClaimsPrincipal user)
    {
        if (importer.Find(id, user) is not { } import)
        {
            return NoSuchImport();
        }

        await import.Cancellation.CancelAsync();
        return TypedResults.NoContent();
    }

    private static ProblemHttpResult NoSuchImport() => TypedResults.Problem(
        "It was somebody else's, or the server was started anew since. What had been taken in by then is in the list.",
        statusCode: StatusCodes.Status404NotFound, title: "There is no such import.");
}

/// <summary>How far an import is.</summary>
/// <param name="Id">Its number.</param>
/// <param name="Rows">How many rows there are.</param>
/// <param name="Looked">How many of them have been looked at.</param>
/// <param name="Report">What came of it, once it is through.</param>
/// <param name="Failure">Why it ended before it was through.</param>
internal sealed record ImportProgress(Guid Id, int Rows, int Looked, ImportReport? Report, string? Failure)
{
    internal static ImportProgress Of(RunningImport import) => new(import.Id, import.Rows, import.Work?.Looked ?? 0, import.Report, import.Failure);
}
