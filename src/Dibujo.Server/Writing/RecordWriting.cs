using System.Collections.Immutable;
using Dibujo.Core.Evaluation;
using Dibujo.Core.Listing;
using Dibujo.Core.Records;
using Dibujo.Core.Saving;
using Dibujo.Core.Values;
using Dibujo.Server.Records;
using Dibujo.Server.RecordTypes;
using Dibujo.Store;
using Dibujo.Store.Records;
using Dibujo.Store.Writing;
using Microsoft.EntityFrameworkCore;

namespace Dibujo.Server.Writing;

/// <summary>
/// Writes records, by whatever way the request comes: judges it under the edition in force, and stores it with its history, how the
/// record stands and its index in one transaction. Of two who write one record at once, one is told what the other did.
/// </summary>
/// <remarks>
/// Judging needs no turn and holds up nobody; storing is short. A record is opened once for each of its forms (see
/// <see cref="WholeRecord"/>), and the sessions serve for verdict, standing and answer, and for the records after.
/// </remarks>
internal sealed class RecordWriting(DibujoDb db, UnitOfWork unit, Editions editions, Circumstances circumstances, RecordIndexing indexing, RecordLookup lookup, RecordNews news, TimeProvider clock)
{
    private const int MostMeanwhile = 25;

    private static readonly Func<DibujoDb, string, Task<int?>> Published = EF.CompileAsyncQuery(
        (DibujoDb db, string type) => db.RecordTypes.Where(t => t.Key == type).Select(t => t.Published).SingleOrDefault());

    private (Edition Edition, WholeRecord Record)? open;

    /// <summary>Begins a record.</summary>
    internal Task<WriteOutcome> BeginAsync(string recordType, RecordToBegin request, CancellationToken cancellation) => UntilInForceAsync(async () =>
        await editions.CurrentAsync(db, recordType, cancellation) is not { } edition ? (null, new WriteOutcome.NoSuchRecordType(recordType))
        : await RepeatedAsync(edition, request, cancellation) is { } done ? (null, done)
        : Judge(edition, null, request), cancellation);

    /// <summary>Changes a record, moves it on, or both.</summary>
    /// <param name="request">What is asked for.</param>
    /// <param name="cancellation">Ends it, with nothing done.</param>
    /// <param name="recordType">Key of the record type of which it has to be; null for any.</param>
    /// <param name="isTrial">Whether it is only to be told what would come of it: nothing is stored then.</param>
    internal Task<WriteOutcome> SaveAsync(RecordToSave request, CancellationToken cancellation, string? recordType = null, bool isTrial = false) => UntilInForceAsync(
        async () =>
        {
            if (await db.Records.AsNoTracking().SingleOrDefaultAsync(r => r.Id == request.Record && (recordType == null || r.RecordType == recordType), cancellation) is not { } record
                || await editions.CurrentAsync(db, record.RecordType, cancellation) is not { } edition)
            {
                return (null, new WriteOutcome.NoSuchRecord(request.Record));
            }

            // Before anything that was sent is looked at.
            return await RepeatedAsync(edition, request, cancellation) is { } done ? (null, done)
                : request.Version == record.Version ? Judge(edition, record, request, isTrial)
                : (null, await OvertakenAsync(record, request.Version, cancellation));
        },
        cancellation,
        isTrial);

    /// <summary>What the rules say of a request: what is to be stored, or what came of it instead. Nothing is stored.</summary>
    /// <param name="edition">The edition in force.</param>
    /// <param name="stored">The record as it is stored; null for one to be begun.</param>
    /// <param name="request">What is asked for.</param>
    /// <param name="isTrial">Whether it will not be stored: then it is not looked at how the record would stand.</param>
    internal (JudgedWrite? Write, WriteOutcome? Instead) Judge(Edition edition, StoredRecord? stored, WriteRequest request, bool isTrial = false)
    {
        var type = edition.Definition.RecordType;
        var setting = stored is null ? circumstances.OfNew(type, (request as RecordToBegin)?.Workflow, request.By) : circumstances.Of(stored, request.By);
        if (setting is null)
        {
            return (null, new WriteOutcome.NoSuchRecordType(type.Key));
        }

        if (request.Form is not null && edition.Program.FindForm(request.Form) is null)
        {
            return (null, new WriteOutcome.NoSuchForm(edition, request.Form));
        }

        var record = Open(edition, stored?.Values.FittedTo(type) ?? type.Defaults(setting), setting, request.Form);
        var through = record.AtHand.Setting;
        var verdict = new Judge(edition.Program, lookup).Decide(record, new Submission(request.Changes, request.Move, request.By.Written));
        if (!verdict.IsAccepted)
        {
            return (null, new WriteOutcome.Refused(edition, verdict.Refusals));
        }

        var at = clock.GetUtcNow().UtcDateTime;
        var changed = stored is null ? RecordChange.Begun(edition, setting, verdict, at) : RecordChange.Changed(stored, edition, setting, verdict, at);
        var entry = RecordChange.Entry(changed, edition.Number, stored is null ? null : RecordChange.Before(stored, edition), setting.Stage, through, request);
        if (entry is null)
        {
            return (new(edition, through, stored, stored!, null, record), null);
        }

        if (!isTrial)
        {
            changed.Standing = Standing.Of(record, verdict.Values, setting with { Stage = changed.Stage });
            (changed.StandingEdition, changed.StandingDay) = (edition.Number, DateOnly.FromDateTime(setting.Now));
        }

        return (new(edition, through, stored, changed, entry, record), null);
    }

    /// <summary>Stores what was judged under one edition, each of another record, in one short transaction. What came of each, in their order.</summary>
    internal async Task<ImmutableArray<WriteOutcome>> StoreAsync(IReadOnlyList<JudgedWrite> some, CancellationToken cancellation)
    {
        var (edition, type) = (some[0].Edition, some[0].Record.RecordType);
        var overtaken = new HashSet<int>();
        try
        {
            await unit.RunAsync(
                async () =>
                {
                    if (await Published(db, type) != edition.Number)
                    {
                        throw new EditionSupersededException();
                    }

                    // One by itself is turned away by the database where it comes too late; of several the others are stored.
                    int[] ids = some.Count == 1 ? [] : [.. some.Where(one => one.Entry is not null).Select(one => one.Before?.Id).OfType<int>()];
                    var versions = ids.Length == 0 ? [] : await db.Records.Where(r => ids.Contains(r.Id)).Select(r => new { r.Id, r.Version }).ToDictionaryAsync(r => r.Id, r => r.Version, cancellation);
                    overtaken.UnionWith(some.Where(one => some.Count > 1 && one is { Entry: not null, Before: { } before } && versions.GetValueOrDefault(before.Id) != before.Version).Select(one => one.Record.Id));
                    JudgedWrite[] stored = [.. some.Where(one => one.Entry is not null && !IsOvertaken(one))];
                    Array.ForEach(stored, Track);
                    await indexing.StoreAsync([.. stored.Select(one => (one.Before, one.Record))], cancellation);
                    if (stored.Length > 0)
                    {
                        unit.Afterwards(() => news.Saved(type, stored[0].Record.ChangedBy, [.. stored.Select(one => one.Record.Id)]));
                    }
                },
                cancellation);
        }
        catch (DbUpdateException failure) when (some is [{ Before: null, Entry.Ticket: not null }] && failure.IsOvertaken())
        {
            // The same request came twice at once, and the other was stored: it is answered like that one.
            return [new WriteOutcome.Superseded()];
        }
        catch (DbUpdateException failure) when (some is [{ Before: not null } only] && failure.IsOvertaken())
        {
            overtaken.Add(only.Record.Id);
        }
        catch (EditionSupersededException)
        {
            return [.. some.Select(_ => new WriteOutcome.Superseded())];
        }
        finally
        {
            // What is stored need not be watched any more; a long file would be slower with every row.
            db.ChangeTracker.Clear();
        }

        var outcomes = ImmutableArray.CreateBuilder<WriteOutcome>();
        foreach (var one in some)
        {
            outcomes.Add(!IsOvertaken(one) ? new WriteOutcome.Stored(one)
                : await db.Records.AsNoTracking().SingleOrDefaultAsync(r => r.Id == one.Record.Id, cancellation) is { } now ? await OvertakenAsync(now, one.Before!.Version, cancellation)
                : new WriteOutcome.NoSuchRecord(one.Record.Id));
        }

        return outcomes.ToImmutable();

        bool IsOvertaken(JudgedWrite one) => one.Before is not null && overtaken.Contains(one.Record.Id);
    }

    /// <summary>Judged again where another edition came into force between judging and storing.</summary>
    private async Task<WriteOutcome> UntilInForceAsync(Func<Task<(JudgedWrite? Write, WriteOutcome? Instead)>> judge, CancellationToken cancellation, bool isTrial = false)
    {
        while (true)
        {
            lookup.Forget(andExpected: true);
            var (write, instead) = await judge();
            var outcome = instead ?? (isTrial || write!.Entry is null ? new WriteOutcome.Stored(write!) : (await StoreAsync([write], cancellation))[0]);
            if (outcome is not WriteOutcome.Superseded)
            {
                return outcome;
            }
        }
    }

    /// <summary>What came of a request that has been sent before by the same person; null for one that was not, or came to nothing.</summary>
    private async Task<WriteOutcome?> RepeatedAsync(Edition edition, WriteRequest request, CancellationToken cancellation)
    {
        if (request.Ticket is not { } ticket
            || await db.History.AsNoTracking().SingleOrDefaultAsync(e => e.Ticket == ticket && e.By == request.By.Person, cancellation) is not { } entry
            || await db.Records.AsNoTracking().SingleAsync(r => r.Id == entry.RecordId, cancellation) is not { } record || record.RecordType != edition.Definition.RecordType.Key)
        {
            return null;
        }

        var setting = circumstances.Of(record, request.By);
        var whole = Open(edition, record.Values.FittedTo(edition.Definition.RecordType), setting, request.Form);
        return new WriteOutcome.Stored(new(edition, whole.AtHand.Setting, entry.Version == 1 ? null : RecordChange.Undone(record, entry), record, entry, whole));
    }

    private WholeRecord Open(Edition edition, RecordValues values, Setting setting, string? form)
    {
        if (open is not var (known, record) || known != edition)
        {
            record = new(new Session(edition.Program, values, setting with { Form = form ?? edition.Definition.RecordType.Forms[0].Key }, lookup));
            open = (edition, record);
        }
        else
        {
            record.Become(values, setting with { Form = form ?? edition.Definition.RecordType.Forms[0].Key });
        }

        if (form is null)
        {
            record.GoToFirstThatApplies();
        }

        return record;
    }

    private void Track(JudgedWrite one)
    {
        if (one.Before is { } before)
        {
            db.Records.Attach(one.Record).OriginalValues.SetValues(before);
        }

        db.History.Add(one.Entry!);
    }

    private async Task<WriteOutcome> OvertakenAsync(StoredRecord now, int version, CancellationToken cancellation)
    {
        var meanwhile = await db.History.AsNoTracking().Where(e => e.RecordId == now.Id && e.Version > version).OrderByDescending(e => e.Version).Take(MostMeanwhile).ToListAsync(cancellation);
        return new WriteOutcome.Overtaken(now, meanwhile.FirstOrDefault()?.By ?? now.ChangedBy, [.. meanwhile]);
    }
}
