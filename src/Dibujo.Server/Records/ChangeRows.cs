using System.Collections.Immutable;
using System.Security.Claims;
using Dibujo.Core.Saving;
using Dibujo.Core.Values;
using Dibujo.Server.Accounts;
using Dibujo.Server.RecordTypes;
using Dibujo.Store;
using Microsoft.AspNetCore.Http.HttpResults;
using Microsoft.AspNetCore.Mvc;
using Microsoft.EntityFrameworkCore;

namespace Dibujo.Server.Records;

/// <summary>Changes several records of a list, or moves them on, each under its own rules: what one refuses keeps no other from being saved.</summary>
internal static class ChangeRows
{
    private const int MostRows = 500;

    internal static void Map(IEndpointRouteBuilder api) =>
        api.MapPost("/record-types/{key}/changes", Run).WithName("ChangeRows").RequireAuthorization(Policies.Members)
            .ProducesProblem(StatusCodes.Status400BadRequest).ProducesProblem(StatusCodes.Status404NotFound);

    private static async Task<Results<Ok<ImmutableArray<RowOutcome>>, ProblemHttpResult>> Run(
        string key, RowChanges request, DibujoDb db, Editions editions, Circumstances circumstances, RecordLookup lookup, RecordNews news, ClaimsPrincipal user,
        TimeProvider clock, CancellationToken cancellation)
    {
        if (await editions.CurrentAsync(db, key, cancellation) is null)
        {
            return ReadRecordTypes.NoSuchRecordType(key);
        }

        if (request.Rows.Length > MostRows)
        {
            return TypedResults.Problem($"Change at most {MostRows} rows at once.", statusCode: StatusCodes.Status400BadRequest);
        }

        var outcomes = ImmutableArray.CreateBuilder<RowOutcome>();
        foreach (var row in request.Rows)
        {
            db.ChangeTracker.Clear();
            lookup.Forget(andExpected: true);
            if (!await db.Records.AnyAsync(r => r.Id == row.Id && r.RecordType == key, cancellation))
            {
                outcomes.Add(new(row.Id, null, "There is no such record.", []));
                continue;
            }

            var saved = await SaveRecord.Run(
                row.Id, new(row.Version, row.Changes, row.Move, row.Form, InList: true), db, editions, circumstances, lookup, news, user, clock, cancellation);
            outcomes.Add(saved.Result is Ok<RecordView> { Value: { } view }
                ? new(row.Id, await RowAsync(view.Id, request.Columns, db, editions, circumstances, lookup, user, cancellation), null, [])
                : Refused(row.Id, ((ProblemHttpResult)saved.Result).ProblemDetails));
        }

        return TypedResults.Ok(outcomes.ToImmutable());
    }

    private static async Task<ListRow> RowAsync(
        int id, ImmutableArray<string> columns, DibujoDb db, Editions editions, Circumstances circumstances, RecordLookup lookup, ClaimsPrincipal user, CancellationToken cancellation)
    {
        var record = await db.Records.AsNoTracking().SingleAsync(r => r.Id == id, cancellation);
        var edition = (await editions.CurrentAsync(db, record.RecordType, cancellation))!;
        return new RowReader(edition, columns, lookup).Of(record, circumstances.Of(record, user, Circumstances.ChannelOf(user, inList: true)));
    }

    private static RowOutcome Refused(int id, ProblemDetails problem) => new(
        id, null, problem.Extensions.ContainsKey("refusals") ? problem.Title! : $"{problem.Title} {problem.Detail}",
        problem.Extensions.TryGetValue("refusals", out var refusals) && refusals is ImmutableArray<Refusal> reasons ? reasons : []);
}

/// <summary>What is to become of several records.</summary>
/// <param name="Rows">Each with its changes.</param>
/// <param name="Columns">Keys of the columns of the list, in which they are shown again.</param>
internal sealed record RowChanges(ImmutableArray<RowChange> Rows, ImmutableArray<string> Columns);

/// <summary>What is to become of one record.</summary>
/// <param name="Id">Its number.</param>
/// <param name="Version">The version that the change was made on.</param>
/// <param name="Changes">The changed fields with their new values.</param>
/// <param name="Move">Key of a move to be made; null for none.</param>
/// <param name="Form">Key of the form through which the fields are seen; null for the first that applies.</param>
internal sealed record RowChange(int Id, int Version, ImmutableDictionary<string, Value> Changes, string? Move = null, string? Form = null);

/// <summary>What came of a change to one record.</summary>
/// <param name="Id">Its number.</param>
/// <param name="Row">The record as it is now, where it was saved; null where not.</param>
/// <param name="Problem">Why nothing was saved, in a sentence; null where it was.</param>
/// <param name="Refusals">All reasons, each with its field.</param>
internal sealed record RowOutcome(int Id, ListRow? Row, string? Problem, ImmutableArray<Refusal> Refusals);
