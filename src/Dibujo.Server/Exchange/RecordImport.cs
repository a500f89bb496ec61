using System.Collections.Immutable;
using System.Globalization;
using System.Security.Claims;
using Dibujo.Core.Csv;
using Dibujo.Core.Records;
using Dibujo.Core.Saving;
using Dibujo.Core.Values;
using Dibujo.Server.Accounts;
using Dibujo.Server.Hosting;
using Dibujo.Server.Records;
using Dibujo.Server.RecordTypes;
using Dibujo.Store;
using Dibujo.Store.Records;
using Microsoft.EntityFrameworkCore;

namespace Dibujo.Server.Exchange;

/// <summary>
/// Takes rows in, each under its own record's rules: judged without holding anybody up, and stored some at a time. A row
/// sees what rows before it did.
/// </summary>
/// <param name="db">The store.</param>
/// <param name="edition">The rules in force.</param>
/// <param name="circumstances">Who asks, and when.</param>
/// <param name="lookup">Linked records.</param>
/// <param name="news">Tells others of what was stored.</param>
/// <param name="user">Who asks.</param>
/// <param name="clock">The time of the saves.</param>
/// <param name="courtesy">Has it make way for others.</param>
/// <param name="isTrial">Whether nothing is stored.</param>
/// <param name="overwrites">Whether a row counts also where its record has been saved since the file was made.</param>
internal sealed class RecordImport(
    DibujoDb db, Edition edition, Circumstances circumstances, RecordLookup lookup, RecordNews news, ClaimsPrincipal user, TimeProvider clock, Courtesy courtesy, bool isTrial, bool overwrites)
{
    private const int ChunkSize = 50;

    private const string Superseded = "Another edition came into force while the file was taken in. This row was not; send it again.";

    private readonly Judge judge = new(edition.Program, lookup);
    private readonly List<RowReport> reports = [];

    /// <summary>What a trial would have made of records, for the rows after.</summary>
    private readonly Dictionary<int, StoredRecord> tried = [];

    /// <summary>The versions that this import gave to records: for the rows after, those are not saves of somebody else.</summary>
    private readonly Dictionary<int, int> own = [];

    /// <summary>Whether other rules are in force by now than those under which rows are judged here.</summary>
    private bool isSuperseded;

    /// <summary>What people are called who saved a record meanwhile.</summary>
    private ImmutableDictionary<string, string> names = ImmutableDictionary<string, string>.Empty;

    /// <summary>What is waiting to be stored: the row's place in the reports, what becomes of its record, and the record as it was read.</summary>
    private readonly List<Pending> pending = [];

    /// <summary>How many rows have been stored so far.</summary>
    internal int Stored { get; private set; }

    /// <summary>What came of the rows so far, in their order.</summary>
    internal ImmutableArray<RowReport> Reports => [.. reports];

    /// <summary>How many rows have been looked at so far.</summary>
    internal int Looked => reports.Count;

    private RecordType Type => edition.Definition.RecordType;

    internal async Task<ImmutableArray<RowReport>> RunAsync(ImmutableArray<ReadRow> rows, CancellationToken cancellation)
    {
        names = await PersonNames.ReadAsync(db, cancellation);
        foreach (var chunk in rows.Chunk(ChunkSize))
        {
            var piece = courtesy.Begin();
            if (isSuperseded)
            {
                reports.AddRange(chunk.Select(row => new RowReport(row.Line, row.Id, [Superseded])));
                continue;
            }

            var known = await ReadAsync(chunk, cancellation);
            foreach (var row in chunk)
            {
                cancellation.ThrowIfCancellationRequested();
                if (row.Id is { } again && pending.Exists(p => p.Record?.Id == again))
                {
                    // The same record once more: it is to be seen as the row before left it.
                    await StoreAsync(cancellation);
                    known = await ReadAsync(chunk, cancellation);
                }

                reports.Add(new(row.Line, row.Id, row.Mistakes.IsEmpty ? Judge(row, row.Id is { } id ? tried.GetValueOrDefault(id) ?? known.GetValueOrDefault(id) : null) : row.Mistakes));
            }

            await StoreAsync(cancellation);
            // Others come in between, and what a link leads to may be another record by now.
            lookup.Forget(andExpected: !isTrial);
            await piece.RestAsync(cancellation);
        }

        return [.. reports];
    }

    private async Task<Dictionary<int, StoredRecord>> ReadAsync(ReadRow[] rows, CancellationToken cancellation)
    {
        int[] ids = [.. rows.Select(row => row.Id).OfType<int>().Distinct()];
        return ids.Length == 0 ? [] : await db.Records.AsNoTracking().Where(r => ids.Contains(r.Id) && r.RecordType == Type.Key).ToDictionaryAsync(r => r.Id, cancellation);
    }

    private ImmutableArray<string> Judge(ReadRow row, StoredRecord? record)
    {
        if (row.Id is not null && record is null)
        {
            return [$"There is no {Type.Label.ToLowerInvariant()} {row.Id}. Leave the number blank to begin a record."];
        }

        if (row.Misplaced(Type, record is null ? null : (record.Workflow, record.Stage)) is { } misplaced)
        {
            return [misplaced];
        }

        return record is null ? Begin(row) : Change(row, record);
    }

    private ImmutableArray<string> Begin(ReadRow row)
    {
        var setting = circumstances.OfNew(Type, row.Workflow, user, Channel.Import)!;
        var verdict = judge.Decide(Type.Defaults(setting), setting, new(row.Filled));
        if (verdict.IsAccepted && !isTrial)
        {
            var record = CreateRecord.Record(edition, setting, verdict, clock.GetUtcNow().UtcDateTime);
            Restanding.Stand(record, edition, lookup, setting.Now);
            pending.Add(new(reports.Count, record, SaveRecord.Entry(record, edition.Number, RecordValues.Empty, setting.Stage, setting)));
        }

        return Reasons(verdict);
    }

    private ImmutableArray<string> Change(ReadRow row, StoredRecord record)
    {
        // What is as it was is no change: a file may carry locked columns along.
        var saved = record.Values.FittedTo(Type);
        var changes = row.Values.Where(v => !Plain(v.Value).Equals(saved[v.Key])).ToImmutableDictionary();
        if (changes.IsEmpty)
        {
            return [];
        }

        if (row.Version is { } version && version != record.Version && !overwrites && own.GetValueOrDefault(record.Id) != record.Version)
        {
            return [Overtaken(record)];
        }

        var setting = circumstances.Of(record, user, Channel.Import);
        var verdict = judge.Decide(saved, setting, new(changes));
        if (!verdict.IsAccepted)
        {
            return Reasons(verdict);
        }

        var changed = Copy(record);
        var entry = SaveRecord.Apply(changed, edition, verdict, setting, clock.GetUtcNow().UtcDateTime);
        own[record.Id] = changed.Version;
        lookup.Expect(changed);
        if (isTrial)
        {
            tried[record.Id] = changed;
        }
        else
        {
            Restanding.Stand(changed, edition, lookup, setting.Now);
            pending.Add(new(reports.Count, changed, entry, record));
        }

        return [];
    }

    /// <summary>Stores what is waiting in one short transaction. Where somebody saved one of the records meanwhile, that row is refused.</summary>
    private async Task StoreAsync(CancellationToken cancellation)
    {
        var waiting = pending.ToList();
        pending.Clear();
        if (waiting.Count == 0)
        {
            return;
        }

        try
        {
            await StoreAsync(waiting, cancellation);
        }
        catch (EditionSupersededException)
        {
            isSuperseded = true;
            waiting.ForEach(one => reports[one.Report] = reports[one.Report] with { Reasons = [Superseded] });
        }
        catch (DbUpdateException failure) when (failure.IsOvertaken())
        {
            foreach (var one in waiting)
            {
                await StoreAloneAsync(one, cancellation);
            }
        }
    }

    private async Task StoreAloneAsync(Pending one, CancellationToken cancellation)
    {
        try
        {
            await StoreAsync([one], cancellation);
        }
        catch (DbUpdateException failure) when (failure.IsOvertaken())
        {
            var now = await db.Records.AsNoTracking().SingleAsync(r => r.Id == one.Record.Id, cancellation);
            reports[one.Report] = reports[one.Report] with { Reasons = [Overtaken(now)] };
        }
    }

    private async Task StoreAsync(List<Pending> some, CancellationToken cancellation)
    {
        try
        {
            foreach (var one in some)
            {
                if (one.Before is { } before)
                {
                    db.Records.Attach(before);
                    db.Entry(before).CurrentValues.SetValues(one.Record);
                }

                db.History.Add(one.Entry);
            }

            await db.SaveUnderAsync(Type.Key, edition.Number, cancellation);
            await news.SavedAsync(Type.Key, user.Identity!.Name!, [.. some.Select(one => one.Record.Id)]);
            Stored += some.Count;
            foreach (var one in some)
            {
                reports[one.Report] = reports[one.Report] with { Record = one.Record.Id };
            }
        }
        finally
        {
            // What is stored need not be watched any more; a long file would be slower with every row.
            db.ChangeTracker.Clear();
        }
    }

    private string Overtaken(StoredRecord record) => string.Create(CultureInfo.InvariantCulture,
        $"{names.NameOf(record.ChangedBy)} saved this record on {record.ChangedAt:d MMM yyyy HH:mm} UTC, after the file was made. Export it again, or choose to overwrite later saves.");

    private static StoredRecord Copy(StoredRecord record) => new()
    {
        Id = record.Id,
        RecordType = record.RecordType,
        Workflow = record.Workflow,
        Stage = record.Stage,
        Title = record.Title,
        Values = record.Values,
        Version = record.Version,
        ChangedAt = record.ChangedAt,
        ChangedBy = record.ChangedBy,
    };

    private static Value Plain(Value value) => value.IsBlank ? Value.Blank : value;

    private ImmutableArray<string> Reasons(Verdict verdict) => [.. verdict.Refusals.Select(r => r.Sentence(Type))];

    private sealed record Pending(int Report, StoredRecord Record, HistoryEntry Entry, StoredRecord? Before = null);
}
