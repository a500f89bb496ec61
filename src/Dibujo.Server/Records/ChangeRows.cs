using System.Collections.Immutable;
using System.Security.Claims;
using Dibujo.Core.Records;
using Dibujo.Core.Saving;
using Dibujo.Core.Values;
using Dibujo.Server.Accounts;
using Dibujo.Server.RecordTypes;
using Dibujo.Store;
using Dibujo.Store.Records;
using Microsoft.AspNetCore.Http.HttpResults;
using Microsoft.AspNetCore.Mvc;
using Microsoft.EntityFrameworkCore;

namespace Dibujo.Server.Records;

/// <summary>Changes several records of a list, or moves them on, each under its own rules: what one refuses keeps no other from being saved.</summary>
internal static class ChangeRows
{
    private const int MostRows = 500;

    private static readonly ImmutableDictionary<string, Value> None = ImmutableDictionary<string, Value>.Empty;

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
            if (await db.Records.AsNoTracking().SingleOrDefaultAsync(r => r.Id == row.Id && r.RecordType == key, cancellation) is not { } before)
            {
                outcomes.Add(new(row.Id, null, "There is no such record.", [], None));
                continue;
            }

            var saved = await SaveRecord.Run(
                row.Id, new(row.Version, row.Changes, row.Move, row.Form, InList: true), db, editions, circumstances, lookup, news, user, clock, cancellation);
            if (saved.Result is not Ok<RecordView>)
            {
                outcomes.Add(Refused(row.Id, ((ProblemHttpResult)saved.Result).ProblemDetails));
                continue;
            }

            // As it was judged: another edition may have come into force since the first row.
            var edition = (await editions.CurrentAsync(db, key, cancellation))!;
            Setting Setting(StoredRecord record) => circumstances.Of(record, user, Circumstances.ChannelOf(user, inList: true));
            var after = await db.Records.AsNoTracking().SingleAsync(r => r.Id == row.Id, cancellation);
            var entry = db.ChangeTracker.Entries<HistoryEntry>().Single().Entity;
            outcomes.Add(new(
                row.Id, new RowReader(edition, request.Columns, lookup).Of(after, Setting(after)), null, [],
                Replaced(entry, row.Changes.Keys, fields => new RowReader(edition, fields, lookup).Editable(before, Setting(before)))));
        }

        return TypedResults.Ok(outcomes.ToImmutable());
    }

    /// <summary>What stood where something else stands now, as far as a person can put it back: what was sent, and what rules changed along with it in fields that were open before.</summary>
    private static ImmutableDictionary<string, Value> Replaced(HistoryEntry entry, IEnumerable<string> sent, Func<ImmutableArray<string>, ImmutableArray<string>> editable)
    {
        var known = sent.ToHashSet(StringComparer.Ordinal);
        var changed = entry.Before.ByField.Keys.Union(entry.After.ByField.Keys, StringComparer.Ordinal).ToList();
        var byRules = changed.Where(field => !known.Contains(field)).ToImmutableArray();
        known.UnionWith(byRules.IsEmpty ? [] : editable(byRules));
        return changed.Where(known.Contains).ToImmutableDictionary(field => field, field => entry.Before[field]);
    }

    private static RowOutcome Refused(int id, ProblemDetails problem) => new(
        id, null, problem.Extensions.ContainsKey("refusals") ? problem.Title! : $"{problem.Title} {problem.Detail}",
        problem.Extensions.TryGetValue("refusals", out var refusals) && refusals is ImmutableArray<Refusal> reasons ? reasons : [], None,
        problem.Extensions.TryGetValue("version", out var version) ? version as int? : null);
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
/// <param name="Replaced">To be sent as changes to have it undone: what stood where something else stands now, whether a column of the list or not. Blank where nothing stood.</param>
/// <param name="Version">The record's version now, where nothing was saved because somebody has saved it since the one that was sent; null otherwise.</param>
internal sealed record RowOutcome(
    int Id, ListRow? Row, string? Problem, ImmutableArray<Refusal> Refusals, ImmutableDictionary<string, Value> Replaced, int? Version = null);
