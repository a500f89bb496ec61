using Dibujo.Core.Inference;
using Dibujo.Server.Accounts;
using Microsoft.AspNetCore.Http.HttpResults;

namespace Dibujo.Server.Tables;

/// <summary>What of a column fits, where somebody says what it holds.</summary>
internal static class ReadColumn
{
    internal static void Map(IEndpointRouteBuilder api) =>
        api.MapPost("/tables/{id:guid}/columns", Run).WithName("ReadColumn").RequireAuthorization(Policies.Administrators)
            .ProducesProblem(StatusCodes.Status404NotFound);

    private static Results<Ok<InferredColumn>, ProblemHttpResult> Run(Guid id, TakenColumn column, ReadTables tables) =>
        tables.Find(id) is { } kept && column.Column >= 0 && column.Column < kept.Table.Headers.Length
            ? TypedResults.Ok(new ColumnInference(kept.Lookup).As(column.Label, column.Key, column.Type, column.Format, kept.Table.Column(column.Column)))
            : ReadTable.NoSuchTable();
}
