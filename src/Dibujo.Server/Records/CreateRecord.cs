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

namespace Dibujo.Server.Records;

/// <summary>Stores a new record, if the rules let it be saved.</summary>
internal static class CreateRecord
{
    internal static void Map(IEndpointRouteBuilder api) =>
        api.MapPost("/record-types/{key}/records", Run).WithName("CreateRecord").RequireAuthorization(Policies.Members)
            .ProducesProblem(StatusCodes.Status404NotFound).ProducesProblem(StatusCodes.Status422UnprocessableEntity);

    /// <summary>The setting of a new record: the first stage of that workflow, or of the record type's first; null for an unknown one.</summary>
    internal static Setting? Beginning(Edition edition, string? workflow, ClaimsPrincipal user)
    {
        var type = edition.Definition.RecordType;
        var way = workflow is null ? type.Workflows[0] : type.FindWorkflow(workflow);
        return way is null ? null : new(way.Key, way.Stages[0].Key, IsNew: true) { Roles = user.RoleKeys() };
    }

    private static async Task<Results<Created<RecordView>, ProblemHttpResult>> Run(
        string key, NewRecord request, DibujoDb db, Editions editions, ClaimsPrincipal user, TimeProvider clock, CancellationToken cancellation)
    {
        if (await editions.CurrentAsync(db, key, cancellation) is not { } edition
            || Beginning(edition, request.Workflow, user) is not { } setting)
        {
            return ReadRecordTypes.NoSuchRecordType(key);
        }

        var verdict = new Judge(edition.Program).Decide(RecordValues.Empty, setting, new Submission(request.Changes, request.Move));
        if (!verdict.IsAccepted)
        {
            return SaveRecord.Refused(verdict);
        }

        var record = new StoredRecord
        {
            RecordType = key,
            Workflow = setting.Workflow,
            Stage = verdict.Stage,
            Title = verdict.Values[edition.Definition.RecordType.TitleField].Plain,
            Values = verdict.Values,
            ChangedAt = clock.GetUtcNow().UtcDateTime,
            ChangedBy = user.Identity!.Name!,
        };
        await using var transaction = await db.Database.BeginTransactionAsync(cancellation);
        db.Records.Add(record);
        await db.SaveChangesAsync(cancellation);
        db.History.Add(SaveRecord.Entry(record, edition.Number, RecordValues.Empty, setting.Stage));
        await db.SaveChangesAsync(cancellation);
        await transaction.CommitAsync(cancellation);
        return TypedResults.Created($"/api/records/{record.Id}", RecordView.Of(record, edition, user.RoleKeys()));
    }
}

/// <summary>A record to be begun.</summary>
/// <param name="Changes">What was filled in.</param>
/// <param name="Workflow">Key of the workflow; null for the record type's first.</param>
/// <param name="Move">A move to be made at once; null for none.</param>
internal sealed record NewRecord(ImmutableDictionary<string, Value> Changes, string? Workflow = null, string? Move = null);
