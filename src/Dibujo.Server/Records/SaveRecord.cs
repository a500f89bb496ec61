using System.Collections.Immutable;
using System.Security.Claims;
using Dibujo.Core.Conditions;
using Dibujo.Core.Records;
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

    /// <summary>What the save of a record is to be remembered by.</summary>
    /// <param name="record">The record as it is after.</param>
    /// <param name="edition">Number of the edition under which it was judged.</param>
    /// <param name="before">The values before.</param>
    /// <param name="fromStage">The stage before.</param>
    /// <param name="through">The setting in which it came; null where nobody asked for it.</param>
    internal static HistoryEntry Entry(StoredRecord record, int edition, RecordValues before, string fromStage, Setting? through = null)
    {
        var changed = before.ByField.Keys.Union(record.Values.ByField.Keys, StringComparer.Ordinal)
            .Where(field => !before[field].Equals(record.Values[field])).ToList();
        return new()
        {
            RecordId = record.Id,
            Record = record.Id == 0 ? record : null,
            Version = record.Version,
            By = record.ChangedBy,
            At = record.ChangedAt,
            Edition = edition,
            Before = Only(before, changed),
            After = Only(record.Values, changed),
            Channel = through is null ? null : SubjectTypes.KeyOf(through.Channel),
            Form = through is { Channel: Channel.Form or Channel.List } ? through.Form : null,
            FromStage = fromStage,
            ToStage = record.Stage,
        };
    }

    /// <summary>Takes over what an accepted verdict says. Values of fields that the edition does not know stay as they are.</summary>
    internal static HistoryEntry Apply(StoredRecord record, Edition edition, Verdict verdict, Setting through, DateTime at)
    {
        var type = edition.Definition.RecordType;
        var unknown = record.Values.ByField.Where(value => type.Find(value.Key) is null).ToList();
        var before = new RecordValues(unknown.Concat(record.Values.FittedTo(type).ByField));
        var fromStage = record.Stage;
        record.Values = new(unknown.Concat(verdict.Values.ByField));
        record.Stage = verdict.Stage;
        record.Title = verdict.Values[type.TitleField].Plain;
        record.Version++;
        record.ChangedAt = at;
        record.ChangedBy = through.Person!;
        return Entry(record, edition.Number, before, fromStage, through);
    }

    /// <summary>Judged again where another edition came into force between judging and saving.</summary>
    internal static async Task<Results<Ok<RecordView>, ProblemHttpResult>> Run(
        int id, RecordSave request, DibujoDb db, Editions editions, Circumstances circumstances, RecordLookup lookup, RecordNews news, ClaimsPrincipal user,
        TimeProvider clock, CancellationToken cancellation)
    {
        while (true)
        {
            try
            {
                return await JudgeAsync(id, request, db, editions, circumstances, lookup, news, user, clock, cancellation);
            }
            catch (EditionSupersededException)
            {
                db.ChangeTracker.Clear();
                lookup.Forget(andExpected: true);
            }
        }
    }

    private static async Task<Results<Ok<RecordView>, ProblemHttpResult>> JudgeAsync(
        int id, RecordSave request, DibujoDb db, Editions editions, Circumstances circumstances, RecordLookup lookup, RecordNews news, ClaimsPrincipal user,
        TimeProvider clock, CancellationToken cancellation)
    {
        if (await db.Records.SingleOrDefaultAsync(r => r.Id == id, cancellation) is not { } record
            || await editions.CurrentAsync(db, record.RecordType, cancellation) is not { } edition)
        {
            return ReadRecord.NoSuchRecord(id);
        }

        // Before anything that was sent is looked at.
        if (request.Version != record.Version)
        {
            return await OvertakenAsync(db, record, cancellation);
        }

        var saved = record.Values.FittedTo(edition.Definition.RecordType);
        var setting = circumstances.Of(record, user, Circumstances.ChannelOf(user, request.InList));
        if (FormAtHand.Open(edition, saved, setting, request.Form, lookup) is not { Setting: var there })
        {
            return FormAtHand.NoSuchForm(edition, request.Form);
        }

        var verdict = new Judge(edition.Program, lookup).Decide(saved, there, new Submission(request.Changes, request.Move));
        if (!verdict.IsAccepted)
        {
            return Refused(verdict);
        }

        db.History.Add(Apply(record, edition, verdict, there, clock.GetUtcNow().UtcDateTime));
        Restanding.Stand(record, edition, lookup, setting.Now);
        try
        {
            await db.SaveUnderAsync(record.RecordType, edition.Number, cancellation);
            await news.SavedAsync(record.RecordType, record.ChangedBy, record.Id);
        }
        catch (DbUpdateException failure) when (failure.IsOvertaken())
        {
            return await OvertakenAsync(db, await db.Records.AsNoTracking().SingleAsync(r => r.Id == id, cancellation), cancellation);
        }

        return TypedResults.Ok(RecordView.After(record, edition, circumstances.Of(record, user, there.Channel), there.Form, lookup));
    }

    private static async Task<ProblemHttpResult> OvertakenAsync(DibujoDb db, StoredRecord record, CancellationToken cancellation)
    {
        var by = await db.History.Where(e => e.RecordId == record.Id).OrderByDescending(e => e.Version).Select(e => e.By).FirstOrDefaultAsync(cancellation) ?? record.ChangedBy;
        var who = await PersonNames.ReadAsync(db, by, cancellation);
        return TypedResults.Problem(
            $"{who} has changed this record in the meantime. Nothing of theirs was overwritten, and nothing of yours is lost: look at both and go on.",
            statusCode: StatusCodes.Status409Conflict,
            title: "The record is no longer the one you began with.",
            extensions: [KeyValuePair.Create<string, object?>("version", record.Version)]);
    }

    /// <summary>Those fields, as far as they have values.</summary>
    internal static RecordValues Only(RecordValues values, List<string> fields) =>
        new(fields.Where(values.ByField.ContainsKey).Select(field => KeyValuePair.Create(field, values[field])));
}

/// <summary>What a person asks to be saved.</summary>
/// <param name="Version">The version that the changes were made on.</param>
/// <param name="Changes">The changed fields with their new values.</param>
/// <param name="Move">Key of the move to be made; null for none.</param>
/// <param name="Form">Key of the form that was filled in; null for the first that applies.</param>
/// <param name="InList">Whether a person typed it into a list and not on a form. Of a program it says nothing.</param>
internal sealed record RecordSave(
    int Version, ImmutableDictionary<string, Value> Changes, string? Move = null, string? Form = null, bool InList = false);
