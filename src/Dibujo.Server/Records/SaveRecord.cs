using System.Collections.Immutable;
using System.Security.Claims;
using Dibujo.Core.Evaluation;
using Dibujo.Core.Saving;
using Dibujo.Core.Values;
using Dibujo.Server.Accounts;
using Dibujo.Server.RecordTypes;
using Dibujo.Store;
using Dibujo.Store.Records;
using Microsoft.AspNetCore.Http.HttpResults;
using Microsoft.EntityFrameworkCore;

namespace Dibujo.Server.Records;

/// <summary>Saves changes to a record, moves it on, or both; or refuses all of it with all reasons.</summary>
internal static class SaveRecord
{
    internal static void Map(IEndpointRouteBuilder api) =>
        api.MapPost("/records/{id:int}/saves", Run).WithName("SaveRecord").RequireAuthorization(Policies.Members)
            .ProducesProblem(StatusCodes.Status404NotFound).ProducesProblem(StatusCodes.Status409Conflict)
            .ProducesProblem(StatusCodes.Status422UnprocessableEntity);

    internal static ProblemHttpResult Refused(Verdict verdict) => TypedResults.Problem(
        "Nothing was saved. Each reason says what to do.",
        statusCode: StatusCodes.Status422UnprocessableEntity,
        title: verdict.Refusals.Length == 1 ? "Something speaks against this." : $"{verdict.Refusals.Length} things speak against this.",
        extensions: [KeyValuePair.Create<string, object?>("refusals", verdict.Refusals)]);

    internal static HistoryEntry Entry(StoredRecord record, int edition, RecordValues before, string fromStage)
    {
        var changed = before.ByField.Keys.Union(record.Values.ByField.Keys, StringComparer.Ordinal)
            .Where(field => !before[field].Equals(record.Values[field])).ToList();
        return new()
        {
            RecordId = record.Id,
            Version = record.Version,
            By = record.ChangedBy,
            At = record.ChangedAt,
            Edition = edition,
            Before = Only(before, changed),
            After = Only(record.Values, changed),
            FromStage = fromStage,
            ToStage = record.Stage,
        };
    }

    private static async Task<Results<Ok<RecordView>, ProblemHttpResult>> Run(
        int id, RecordSave request, DibujoDb db, Editions editions, ClaimsPrincipal user, TimeProvider clock, CancellationToken cancellation)
    {
        if (await db.Records.SingleOrDefaultAsync(r => r.Id == id, cancellation) is not { } record
            || await editions.CurrentAsync(db, record.RecordType, cancellation) is not { } edition)
        {
            return ReadRecord.NoSuchRecord(id);
        }

        if (request.Version != record.Version)
        {
            return Overtaken(record);
        }

        var type = edition.Definition.RecordType;
        var before = record.Values.FittedTo(type);
        var setting = new Setting(record.Workflow, record.Stage) { Roles = user.RoleKeys() };
        var verdict = new Judge(edition.Program).Decide(before, setting, new Submission(request.Changes, request.Move));
        if (!verdict.IsAccepted)
        {
            return Refused(verdict);
        }

        var fromStage = record.Stage;
        // Values of fields that this edition does not know stay as they are.
        var unknown = record.Values.ByField.RemoveRange(type.Fields.Select(f => f.Key));
        record.Values = new(unknown.AddRange(verdict.Values.ByField));
        record.Stage = verdict.Stage;
        record.Title = verdict.Values[type.TitleField].Plain;
        record.Version++;
        record.ChangedAt = clock.GetUtcNow().UtcDateTime;
        record.ChangedBy = user.Identity!.Name!;
        db.History.Add(Entry(record, edition.Number, new(unknown.AddRange(before.ByField)), fromStage));
        try
        {
            await db.SaveChangesAsync(cancellation);
        }
        catch (DbUpdateException)
        {
            return Overtaken(await db.Records.AsNoTracking().SingleAsync(r => r.Id == id, cancellation));
        }

        return TypedResults.Ok(RecordView.Of(record, edition, user.RoleKeys()));
    }

    private static ProblemHttpResult Overtaken(StoredRecord record) => TypedResults.Problem(
        $"{record.ChangedBy} has saved this record in the meantime. Load it again and make your changes there; nothing of theirs was overwritten.",
        statusCode: StatusCodes.Status409Conflict,
        title: "The record is no longer the one you began with.",
        extensions: [KeyValuePair.Create<string, object?>("version", record.Version)]);

    private static RecordValues Only(RecordValues values, List<string> fields) =>
        fields.Aggregate(RecordValues.Empty, (kept, field) => kept.With(field, values[field]));
}

/// <summary>What a person asks to be saved.</summary>
/// <param name="Version">The version that the changes were made on.</param>
/// <param name="Changes">The changed fields with their new values.</param>
/// <param name="Move">Key of the move to be made; null for none.</param>
internal sealed record RecordSave(int Version, ImmutableDictionary<string, Value> Changes, string? Move = null);
