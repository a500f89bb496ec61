using System.Collections.Immutable;
using Dibujo.Core.Values;
using Dibujo.Server.Accounts;
using Dibujo.Server.Writing;
using Dibujo.Store;
using Microsoft.AspNetCore.Http.HttpResults;

namespace Dibujo.Server.Records;

/// <summary>Saves changes to a record, moves it on, or both; or refuses all of it with all reasons.</summary>
internal static class SaveRecord
{
    internal static void Map(IEndpointRouteBuilder api) =>
        api.MapPost("/records/{id:int}/saves", Run).WithName("SaveRecord").RequireAuthorization(Policies.Members)
            .ProducesProblem(StatusCodes.Status404NotFound).ProducesProblem(StatusCodes.Status409Conflict)
            .ProducesProblem(StatusCodes.Status422UnprocessableEntity);

    private static async Task<Results<Ok<RecordView>, ProblemHttpResult>> Run(
        int id, RecordSave request, DibujoDb db, RecordWriting writing, Circumstances circumstances, RecordLookup lookup, HttpContext http, CancellationToken cancellation)
    {
        var author = Author.Of(http, request.InList);
        return await writing.SaveAsync(new(author, id, request.Version, request.Changes, request.Move, request.Form) { Ticket = request.Ticket }, cancellation) switch
        {
            WriteOutcome.Stored { Write: var write } => TypedResults.Ok(RecordView.After(write, circumstances.Of(write.Record, author), lookup)),
            WriteOutcome.Overtaken outcome => NotWritten.Problem(outcome, await PersonNames.ReadAsync(db, outcome.By, cancellation)),
            var outcome => NotWritten.Problem(outcome),
        };
    }
}

/// <summary>What a person asks to be saved.</summary>
/// <param name="Version">The version that the changes were made on.</param>
/// <param name="Changes">The changed fields with their new values.</param>
/// <param name="Move">Key of the move to be made; null for none.</param>
/// <param name="Form">Key of the form that was filled in; null for the first that applies.</param>
/// <param name="InList">Whether a person typed it into a list and not on a form. Of a program it says nothing.</param>
/// <param name="Ticket">Another one for each request: where one whose answer was lost is sent again with the same, nothing is done twice.</param>
internal sealed record RecordSave(
    int Version, ImmutableDictionary<string, Value> Changes, string? Move = null, string? Form = null, bool InList = false, Guid? Ticket = null);
