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

namespace Dibujo.Server.Records;

/// <summary>Stores a new record, if the rules let it be saved.</summary>
internal static class CreateRecord
{
    internal static void Map(IEndpointRouteBuilder api) =>
        api.MapPost("/record-types/{key}/records", Run).WithName("CreateRecord").RequireAuthorization(Policies.Members)
            .ProducesProblem(StatusCodes.Status404NotFound).ProducesProblem(StatusCodes.Status422UnprocessableEntity);

    /// <summary>The record that comes of an accepted verdict.</summary>
    internal static StoredRecord Record(Edition edition, Setting setting, Verdict verdict, DateTime at) => new()
    {
        RecordType = edition.Definition.RecordType.Key,
        Workflow = setting.Workflow,
        Stage = verdict.Stage,
        Title = verdict.Values[edition.Definition.RecordType.TitleField].Plain,
        Values = verdict.Values,
        ChangedAt = at,
        ChangedBy = setting.Person!,
    };

    /// <summary>Judged again where another edition came into force between judging and saving.</summary>
    private static async Task<Results<Created<RecordView>, ProblemHttpResult>> Run(
        string key, NewRecord request, DibujoDb db, Editions editions, Circumstances circumstances, RecordLookup lookup, RecordNews news,
        ClaimsPrincipal user, TimeProvider clock, CancellationToken cancellation)
    {
        while (true)
        {
            try
            {
                return await JudgeAsync(key, request, db, editions, circumstances, lookup, news, user, clock, cancellation);
            }
            catch (EditionSupersededException)
            {
                db.ChangeTracker.Clear();
                lookup.Forget(andExpected: true);
            }
        }
    }

    private static async Task<Results<Created<RecordView>, ProblemHttpResult>> JudgeAsync(
        string key, NewRecord request, DibujoDb db, Editions editions, Circumstances circumstances, RecordLookup lookup, RecordNews news,
        ClaimsPrincipal user, TimeProvider clock, CancellationToken cancellation)
    {
        if (await editions.CurrentAsync(db, key, cancellation) is not { } edition
            || circumstances.OfNew(edition.Definition.RecordType, request.Workflow, user, Circumstances.ChannelOf(user, request.InList)) is not { } setting)
        {
            return ReadRecordTypes.NoSuchRecordType(key);
        }

        var defaults = edition.Definition.RecordType.Defaults(setting);
        if (FormAtHand.Open(edition, defaults, setting, request.Form, lookup) is not { Setting: var there })
        {
            return FormAtHand.NoSuchForm(edition, request.Form);
        }

        var verdict = new Judge(edition.Program, lookup).Decide(defaults, there, new Submission(request.Changes, request.Move));
        if (!verdict.IsAccepted)
        {
            return SaveRecord.Refused(verdict);
        }

        var record = Record(edition, setting, verdict, clock.GetUtcNow().UtcDateTime);
        Restanding.Stand(record, edition, lookup, setting.Now);
        db.History.Add(SaveRecord.Entry(record, edition.Number, RecordValues.Empty, setting.Stage, there));
        await db.SaveUnderAsync(key, edition.Number, cancellation);
        await news.SavedAsync(key, record.ChangedBy, record.Id);
        return TypedResults.Created(
            $"/api/records/{record.Id}", RecordView.After(record, edition, circumstances.Of(record, user, there.Channel), there.Form, lookup));
    }
}

/// <summary>A record to be begun.</summary>
/// <param name="Changes">What was filled in.</param>
/// <param name="Workflow">Key of the workflow; null for the record type's first.</param>
/// <param name="Move">A move to be made at once; null for none.</param>
/// <param name="Form">Key of the form that was filled in; null for the first that applies.</param>
/// <param name="InList">Whether a person typed it into a list and not on a form. Of a program it says nothing.</param>
internal sealed record NewRecord(
    ImmutableDictionary<string, Value> Changes, string? Workflow = null, string? Move = null, string? Form = null, bool InList = false);
