using System.Collections.Immutable;
using System.Globalization;
using System.Security.Claims;
using Dibujo.Core.Csv;
using Dibujo.Core.Records;
using Dibujo.Core.Values;
using Dibujo.Server.Accounts;
using Dibujo.Server.Hosting;
using Dibujo.Server.Records;
using Dibujo.Server.RecordTypes;
using Dibujo.Server.Writing;
using Dibujo.Store;
using Dibujo.Store.Records;
using Dibujo.Store.Writing;
using Microsoft.EntityFrameworkCore;

namespace Dibujo.Server.Exchange;

/// <summary>
/// Takes rows in, each under its own record's rules: judged without holding anybody up, and stored some at a time. A row
/// sees what rows before it did. It ends with the right of whoever began it.
/// </summary>
/// <param name="db">The store.</param>
/// <param name="unit">In which some rows are stored together.</param>
/// <param name="writing">How they are.</param>
/// <param name="removal">Takes away what a row had begun.</param>
/// <param name="lookup">Linked records.</param>
/// <param name="rights">What whoever began it may do by now.</param>
/// <param name="courtesy">Has it make way for others.</param>
/// <param name="edition">The rules in force.</param>
/// <param name="user">Who began it.</param>
/// <param name="kind">How rows are taken.</param>
internal sealed class RecordImport(
    DibujoDb db, UnitOfWork unit, RecordWriting writing, RecordRemoval removal, RecordLookup lookup, Rights rights, Courtesy courtesy, Edition edition, ClaimsPrincipal user, ImportKind kind)
{
    private const int ChunkSize = 50;

    private const string SupersededFile = "Another edition came into force while the file was taken in. This row was not; send it again.";
    private const string SupersededTaking = "Another edition came into force meanwhile. This record is as it was; take the import back once more.";

    /// <summary>What a trial would have made of records, for the rows after.</summary>
    private readonly Dictionary<int, StoredRecord> tried = [];

    /// <summary>The versions that this import gave to records: for the rows after, those are not saves of somebody else.</summary>
    private readonly Dictionary<int, int> own = [];

    /// <summary>What is waiting to be stored, with the row's place in the file.</summary>
    private readonly List<(int Row, JudgedWrite Write)> pending = [];

    /// <summary>Records that are waiting to be removed, with the row's place.</summary>
    private readonly List<(int Row, StoredRecord Record)> leaving = [];

    /// <summary>What came of each row; null for one that has not been come to, or is not stored yet.</summary>
    private RowReport?[] reports = [];

    /// <summary>Whether other rules are in force by now than those under which rows are judged here.</summary>
    private bool isSuperseded;

    /// <summary>What people are called who saved a record meanwhile.</summary>
    private ImmutableDictionary<string, string> names = ImmutableDictionary<string, string>.Empty;

    /// <summary>Whether the row that was judged last says what its record says already.</summary>
    private bool isSame;

    /// <summary>Who asks, as of the last rows.</summary>
    private Author? author;

    /// <summary>How many rows have been stored so far.</summary>
    internal int Stored { get; private set; }

    /// <summary>How many rows have been looked at so far.</summary>
    internal int Looked { get; private set; }

    private string Superseded => kind.TakesBack ? SupersededTaking : SupersededFile;

    private RecordType Type => edition.Definition.RecordType;

    /// <summary>Takes them in. Where it is ended before, what was stored stays, and the rows that were not come to are counted.</summary>
    internal async Task<ImportReport> RunAsync(ImmutableArray<ReadRow> rows, CancellationToken cancellation)
    {
        reports = new RowReport?[rows.Length];
        string? ended = null;
        try
        {
            names = await PersonNames.ReadAsync(db, cancellation);
            for (var first = 0; first < rows.Length && ended is null; first += ChunkSize)
            {
                var piece = courtesy.Begin();
                ended = await TakeAsync(rows, first, Math.Min(ChunkSize, rows.Length - first), cancellation);
                await piece.RestAsync(cancellation);
            }
        }
        catch (OperationCanceledException) when (cancellation.IsCancellationRequested)
        {
            ended = "It was ended before it was through.";
        }

        var reached = reports.OfType<RowReport>().ToList();
        return ImportReport.Of(reached) with { NotReached = rows.Length - reached.Count, Ended = ended };
    }

    /// <summary>Takes some rows in; answers with why no more are to be, or null.</summary>
    private async Task<string?> TakeAsync(ImmutableArray<ReadRow> rows, int first, int count, CancellationToken cancellation)
    {
        if (await rights.NowAsync(user, cancellation) is not { } now)
        {
            return "Whoever began it has signed out since, or may not do it any more.";
        }

        author = Author.Importing(now);
        var chunk = rows.AsSpan(first, count).ToArray();
        var known = await ReadAsync(chunk, cancellation);
        await lookup.FetchAsync(Type, chunk.Select(row => new RecordValues(row.Values)).Concat(known.Values.Select(record => record.Values)), cancellation);
        for (var i = 0; i < count; i++)
        {
            cancellation.ThrowIfCancellationRequested();
            var row = chunk[i];
            if (row.Id is { } again && pending.Exists(p => p.Write.Record.Id == again))
            {
                // The same record once more: it is to be seen as the row before left it.
                await StoreAsync(rows, cancellation);
                known = await ReadAsync(chunk, cancellation);
            }

            isSame = false;
            var reasons = isSuperseded ? [Superseded]
                : !row.Mistakes.IsEmpty ? row.Mistakes
                : Judge(first + i, row, row.Id is { } id ? tried.GetValueOrDefault(id) ?? known.GetValueOrDefault(id) : null);
            if (!pending.Exists(p => p.Row == first + i) && !leaving.Exists(p => p.Row == first + i))
            {
                reports[first + i] = new(row.Line, row.Id, reasons) { Fate = FateOf(row, reasons, isSame) };
            }

            Looked++;
        }

        await StoreAsync(rows, cancellation);
        // Others come in between, and what a link leads to may be another record by now.
        lookup.Forget(andExpected: !kind.IsTrial);
        return null;
    }

    private async Task<Dictionary<int, StoredRecord>> ReadAsync(ReadRow[] rows, CancellationToken cancellation)
    {
        int[] ids = [.. rows.Select(row => row.Id).OfType<int>().Distinct()];
        return ids.Length == 0 ? [] : await db.Records.AsNoTracking().Where(r => ids.Contains(r.Id) && r.RecordType == Type.Key).ToDictionaryAsync(r => r.Id, cancellation);
    }

    /// <summary>Why a row is refused; where it is not, what comes of it waits to be stored.</summary>
    private ImmutableArray<string> Judge(int row, ReadRow read, StoredRecord? record)
    {
        if (read.Removes)
        {
            return Remove(row, read, record);
        }

        if (read.Id is not null && record is null)
        {
            return [$"There is no {Type.Label.ToLowerInvariant()} {read.Id}. Leave the number blank to begin a record."];
        }

        if (read.Misplaced(Type, record is null ? null : (record.Workflow, record.Stage)) is { } misplaced)
        {
            return [misplaced];
        }

        WriteRequest request = new RecordToBegin(author!, read.Filled, read.Workflow, Form: Type.Forms[0].Key) { Import = kind.Import };
        if (record is not null)
        {
            // What is as it was is no change: a file may carry locked columns along.
            var saved = record.Values.FittedTo(Type);
            var changes = read.Values.Where(v => !Plain(v.Value).Equals(saved[v.Key])).ToImmutableDictionary();
            if (changes.IsEmpty)
            {
                isSame = true;
                return [];
            }

            if (read.Version is { } version && version != record.Version && !kind.Overwrites && own.GetValueOrDefault(record.Id) != record.Version)
            {
                return [Overtaken(record)];
            }

            request = new RecordToSave(author!, record.Id, record.Version, changes, Form: Type.Forms[0].Key) { Import = kind.Import };
        }

        var (write, instead) = writing.Judge(edition, record, request, kind.IsTrial);
        if (write is null)
        {
            return instead is WriteOutcome.Refused refused ? [.. refused.Refusals.Select(r => r.Sentence(Type))] : [NotWritten.Sentence(instead!)];
        }

        if (write.Entry is null)
        {
            isSame = true;
            return [];
        }

        if (record is not null)
        {
            own[record.Id] = write.Record.Version;
            lookup.Expect(write.Record);
        }

        if (!kind.IsTrial)
        {
            pending.Add((row, write));
        }
        else if (record is not null)
        {
            tried[record.Id] = write.Record;
        }

        return [];
    }

    private ImmutableArray<string> Remove(int row, ReadRow read, StoredRecord? record)
    {
        if (record is null)
        {
            isSame = true;
            return [];
        }

        if (read.Version != record.Version)
        {
            return [Overtaken(record)];
        }

        leaving.Add((row, record));
        return [];
    }

    /// <summary>Stores what is waiting in one short transaction. Where somebody saved one of the records meanwhile, that row is refused.</summary>
    private async Task StoreAsync(ImmutableArray<ReadRow> rows, CancellationToken cancellation)
    {
        var (waiting, gone) = (pending.ToList(), leaving.ToList());
        pending.Clear();
        leaving.Clear();
        if (waiting.Count + gone.Count == 0)
        {
            return;
        }

        ImmutableArray<WriteOutcome> outcomes = [];
        ImmutableArray<string?> stay = [];
        await unit.RunAsync(
            async () =>
            {
                outcomes = waiting.Count == 0 ? [] : await writing.StoreAsync([.. waiting.Select(one => one.Write)], cancellation);
                stay = gone.Count == 0 ? [] : await removal.RemoveAsync(Type, author!.Person, [.. gone.Select(one => one.Record)], cancellation);
                var stored = outcomes.Count(outcome => outcome is WriteOutcome.Stored) + stay.Count(why => why is null);
                await db.Imports.Where(one => one.Id == kind.Import).ExecuteUpdateAsync(set => set.SetProperty(one => one.Stored, one => one.Stored + stored), cancellation);
            },
            cancellation);
        foreach (var ((row, _), why) in gone.Zip(stay))
        {
            Report(row, rows[row], why);
        }

        foreach (var ((row, write), outcome) in waiting.Zip(outcomes))
        {
            Stored += outcome is WriteOutcome.Stored ? 1 : 0;
            isSuperseded |= outcome is WriteOutcome.Superseded;
            ImmutableArray<string> reasons = outcome switch
            {
                WriteOutcome.Stored => [],
                WriteOutcome.Superseded => [Superseded],
                WriteOutcome.Overtaken { Now: var now } => [Overtaken(now)],
                _ => [NotWritten.Sentence(outcome)],
            };
            reports[row] = new(rows[row].Line, rows[row].Id ?? (outcome is WriteOutcome.Stored ? write.Record.Id : null), reasons) { Fate = FateOf(rows[row], reasons, isSame: false) };
        }
    }

    private void Report(int row, ReadRow read, string? why)
    {
        Stored += why is null ? 1 : 0;
        reports[row] = new(read.Line, read.Id, why is null ? [] : [why]) { Fate = why is null ? RowFate.Removes : null };
    }

    private static RowFate? FateOf(ReadRow row, ImmutableArray<string> reasons, bool isSame) =>
        !reasons.IsEmpty ? null : isSame ? RowFate.Leaves : row.Id is null ? RowFate.Begins : RowFate.Changes;

    private string Overtaken(StoredRecord record) => string.Create(CultureInfo.InvariantCulture,
        $"{names.NameOf(record.ChangedBy)} saved this record on {record.ChangedAt:d MMM yyyy HH:mm} UTC, after {(kind.TakesBack ? "it came in. What was saved since stays." : "the file was made. Export it again, or choose to overwrite later saves.")}");

    private static Value Plain(Value value) => value.IsBlank ? Value.Blank : value;
}

/// <summary>How rows are taken.</summary>
/// <param name="Import">By which the import is asked for.</param>
/// <param name="IsTrial">Whether nothing is stored.</param>
/// <param name="Overwrites">Whether a row counts also where its record has been saved since the file was made.</param>
/// <param name="TakesBack">Whether another import is taken back.</param>
internal sealed record ImportKind(Guid Import, bool IsTrial = false, bool Overwrites = false, bool TakesBack = false);
