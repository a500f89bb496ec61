using System.Collections.Immutable;
using Dibujo.Core.Values;
using Dibujo.Server.Accounts;
using Dibujo.Server.Writing;
using Microsoft.AspNetCore.Http.HttpResults;

namespace Dibujo.Server.Records;

/// <summary>Stores a new record, if the rules let it be saved.</summary>
internal static class CreateRecord
{
    internal static void Map(IEndpointRouteBuilder api) =>
        api.MapPost("/record-types/{key}/records", Run).WithName("CreateRecord").RequireAuthorization(Policies.Members)
            .ProducesProblem(StatusCodes.Status404NotFound).ProducesProblem(StatusCodes.Status422UnprocessableEntity);

    private static async Task<Results<Created<RecordView>, ProblemHttpResult>> Run(
        string key, NewRecord request, RecordWriting writing, Circumstances circumstances, RecordLookup lookup, HttpContext http, CancellationToken cancellation)
    {
        var author = Author.Of(http, request.InList);
        return await writing.BeginAsync(key, new(author, request.Changes, request.Workflow, request.Move, request.Form) { Ticket = request.Ticket }, cancellation) switch
        {
            WriteOutcome.Stored { Write: var write } => TypedResults.Created(
                $"/api/records/{write.Record.Id}", RecordView.After(write, circumstances.Of(write.Record, author), lookup)),
            var outcome => NotWritten.Problem(outcome),
        };
    }
}

/// <summary>A record to be begun.</summary>
/// <param name="Changes">What was filled in.</param>
/// <param name="Workflow">Key of the workflow; null for the record type's first.</param>
/// <param name="Move">A move to be made at once; null for none.</param>
/// <param name="Form">Key of the form that was filled in; null for the first that applies.</param>
/// <param name="InList">Whether a person typed it into a list and not on a form. Of a program it says nothing.</param>
/// <param name="Ticket">Another one for each request: where one whose answer was lost is sent again with the same, no other record is begun.</param>
internal sealed record NewRecord(
    ImmutableDictionary<string, Value> Changes, string? Workflow = null, string? Move = null, string? Form = null, bool InList = false, Guid? Ticket = null);
