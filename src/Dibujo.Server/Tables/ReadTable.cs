using System.Collections.Immutable;
using Dibujo.Core.Inference;
using Dibujo.Server.Accounts;
using Dibujo.Store;
using Microsoft.AspNetCore.Http.HttpResults;
using Microsoft.AspNetCore.Mvc;

namespace Dibujo.Server.Tables;

/// <summary>Reads a table and guesses what its columns hold. Nothing is made of it yet.</summary>
internal static class ReadTable
{
    /// <summary>A table of a million cells, written out.</summary>
    private const int Largest = 48 * 1024 * 1024;

    internal static void Map(IEndpointRouteBuilder api) =>
        api.MapPost("/tables", Run).WithName("ReadTable").RequireAuthorization(Policies.Administrators)
            .ProducesProblem(StatusCodes.Status422UnprocessableEntity).WithMetadata(new RequestSizeLimitAttribute(Largest));

    internal static ProblemHttpResult NoSuchTable() => TypedResults.Problem(
        "It was not looked at for half an hour, or the server was started anew since. Choose the file again.",
        statusCode: StatusCodes.Status404NotFound, title: "The table is not at hand any more.");

    private static async Task<Results<Ok<TableView>, ProblemHttpResult>> Run(TableFile request, ReadTables tables, DibujoDb db, CancellationToken cancellation)
    {
        var (table, sheets, mistake) = Workbook.Read(request.File, request.Sheet);
        if (table is null || tables.Keep(table, sheets, await StoredLookup.ReadAsync(db, cancellation)) is not { } kept)
        {
            return TypedResults.Problem(
                mistake ?? "There is no room for it now. Try again in a while, or divide it.", statusCode: StatusCodes.Status422UnprocessableEntity, title: "The table could not be read.");
        }

        var inference = new ColumnInference(kept.Lookup);
        var keys = new HashSet<string>(StringComparer.Ordinal);
        string[] names = [.. table.Headers.Select(header => PlainKey.For(header, keys))];
        var columns = new InferredColumn[names.Length];
        Parallel.For(0, names.Length, new ParallelOptions { CancellationToken = cancellation }, i => columns[i] = inference.Of(table.Headers[i], names[i], table.Column(i)));
        return TypedResults.Ok(new TableView(kept.Id, sheets, table.Rows.Count, [.. columns], kept.Lookup.RecordTypes.ToImmutableArray()));
    }
}

/// <summary>A file with a table.</summary>
/// <param name="File">A workbook (.xlsx), or separated values; cells that were pasted are such.</param>
/// <param name="Sheet">Which sheet of a workbook; null for the first.</param>
internal sealed record TableFile(byte[] File, string? Sheet = null);

/// <summary>A table with what its columns are taken to be.</summary>
/// <param name="Id">By which it is referred to.</param>
/// <param name="Sheets">The workbook's sheets; none for other files.</param>
/// <param name="Rows">How many records it would make.</param>
/// <param name="Columns">In their order.</param>
/// <param name="RecordTypes">Keys of the record types to which a column can lead.</param>
internal sealed record TableView(Guid Id, ImmutableArray<string> Sheets, int Rows, ImmutableArray<InferredColumn> Columns, ImmutableArray<string> RecordTypes);
