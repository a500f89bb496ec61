using System.Collections.Immutable;
using Dibujo.Core.Saving;
using Dibujo.Core.Values;
using Dibujo.Server.Accounts;
using Dibujo.Server.RecordTypes;
using Dibujo.Server.Writing;
using Dibujo.Store;
using Microsoft.AspNetCore.Http.HttpResults;

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
        string key, RowChanges request, DibujoDb db, Editions editions, RecordWriting writing, Circumstances circumstances, RecordLookup lookup, HttpContext http,
        CancellationToken cancellation)
    {
        if (await editions.CurrentAsync(db, key, cancellation) is null)
        {
            return ReadRecordTypes.NoSuchRecordType(key);
        }

        if (request.Rows.Length > MostRows)
        {
            return TypedResults.Problem($"Change at most {MostRows} rows at once.", statusCode: StatusCodes.Status400BadRequest);
        }

        var author = Author.Of(http, inList: true);
        var outcomes = ImmutableArray.CreateBuilder<RowOutcome>();
        RowReader? reader = null;
        foreach (var row in request.Rows)
        {
            var outcome = await writing.SaveAsync(new(author, row.Id, row.Version, row.Changes, row.Move, row.Form) { Ticket = row.Ticket }, cancellation, key, request.IsTrial);
            outcomes.Add(outcome switch
            {
                WriteOutcome.Stored { Write: var write } => Stored(write, row),
                WriteOutcome.Overtaken overtaken => NotStored(
                    row, overtaken, await PersonNames.ReadAsync(db, overtaken.By, cancellation)) with
                { Version = overtaken.Now.Version },
                WriteOutcome.Refused refused => NotStored(row, refused) with { Refusals = refused.Refusals },
                _ => NotStored(row, outcome),
            });
        }

        return TypedResults.Ok(outcomes.ToImmutable());

        RowOutcome Stored(JudgedWrite write, RowChange row)
        {
            // As it was judged: another edition may have come into force since the first row.
            reader = reader?.Edition == write.Edition ? reader : new(write.Edition, request.Columns, lookup);
            return new(
                row.Id, reader.Of(write.Record, circumstances.Of(write.Record, author)), null, [],
                Replaced(write, row.Changes.Keys, fields => new RowReader(write.Edition, fields, lookup).Editable(write.Before!, circumstances.Of(write.Before!, author))));
        }
    }

    /// <summary>What stood where something else stands now, as far as a person can put it back: what was sent, and what rules changed along with it in fields that were open before.</summary>
    private static ImmutableDictionary<string, Value> Replaced(JudgedWrite write, IEnumerable<string> sent, Func<ImmutableArray<string>, ImmutableArray<string>> editable)
    {
        if (write.Entry is not { } entry)
        {
            return None;
        }

        var known = sent.ToHashSet(StringComparer.Ordinal);
        var changed = entry.Before.ByField.Keys.Union(entry.After.ByField.Keys, StringComparer.Ordinal).ToList();
        var byRules = changed.Where(field => !known.Contains(field)).ToImmutableArray();
        known.UnionWith(byRules.IsEmpty ? [] : editable(byRules));
        return changed.Where(known.Contains).ToImmutableDictionary(field => field, field => entry.Before[field]);
    }

    private static RowOutcome NotStored(RowChange row, WriteOutcome outcome, string who = "Somebody else") =>
        new(row.Id, null, NotWritten.Sentence(outcome, who), [], None);
}

/// <summary>What is to become of several records.</summary>
/// <param name="Rows">Each with its changes.</param>
/// <param name="Columns">Keys of the columns of the list, in which they are shown again.</param>
/// <param name="IsTrial">Whether it is only to be told what would come of it, row by row; nothing is stored then.</param>
internal sealed record RowChanges(ImmutableArray<RowChange> Rows, ImmutableArray<string> Columns, bool IsTrial = false);

/// <summary>What is to become of one record.</summary>
/// <param name="Id">Its number.</param>
/// <param name="Version">The version that the change was made on.</param>
/// <param name="Changes">The changed fields with their new values.</param>
/// <param name="Move">Key of a move to be made; null for none.</param>
/// <param name="Form">Key of the form through which the fields are seen; null for the first that applies.</param>
/// <param name="Ticket">Another one for each row of each request: where one whose answer was lost is sent again with the same, nothing is done twice.</param>
internal sealed record RowChange(int Id, int Version, ImmutableDictionary<string, Value> Changes, string? Move = null, string? Form = null, Guid? Ticket = null);

/// <summary>What came of a change to one record.</summary>
/// <param name="Id">Its number.</param>
/// <param name="Row">The record as it is now, where it was saved; null where not.</param>
/// <param name="Problem">Why nothing was saved, in a sentence; null where it was.</param>
/// <param name="Refusals">All reasons, each with its field.</param>
/// <param name="Replaced">To be sent as changes to have it undone: what stood where something else stands now, whether a column of the list or not. Blank where nothing stood.</param>
/// <param name="Version">The record's version now, where nothing was saved because somebody has saved it since the one that was sent; null otherwise.</param>
internal sealed record RowOutcome(
    int Id, ListRow? Row, string? Problem, ImmutableArray<Refusal> Refusals, ImmutableDictionary<string, Value> Replaced, int? Version = null);
