using System.Collections.Concurrent;
using System.Collections.Immutable;
using System.Security.Claims;
using Dibujo.Core.Csv;
using Dibujo.Server.RecordTypes;
using Dibujo.Store;
using Dibujo.Store.Auditing;
using Dibujo.Store.Records;
using Dibujo.Store.Writing;
using Microsoft.EntityFrameworkCore;

namespace Dibujo.Server.Exchange;

/// <summary>
/// Takes rows in while whoever sent them does something else, a few imports at a time; the others wait in line. See
/// <see cref="RecordImport"/> for what becomes of a row.
/// </summary>
internal sealed partial class Importer(IServiceScopeFactory scopes, IHostApplicationLifetime lifetime, TimeProvider clock, ILogger<Importer> log) : IDisposable
{
    private const int MostAtOnce = 4;
    private const int MostInLine = 32;

    /// <summary>For how long somebody is told what came of an import, and may take it back.</summary>
    internal static readonly TimeSpan Memory = TimeSpan.FromHours(24);

    /// <summary>Of how many a person is told.</summary>
    private const int MostTold = 20;

    /// <summary>Those that go on, trials, of which nothing is stored, and what could not be.</summary>
    private readonly ConcurrentDictionary<Guid, RunningImport> known = new();
    private readonly SemaphoreSlim turns = new(MostAtOnce, MostAtOnce);
    private int inLine;

    /// <inheritdoc/>
    public void Dispose() => turns.Dispose();

    /// <summary>The import of that number, which somebody began; null for none, and for one of somebody else.</summary>
    internal async Task<RunningImport?> FindAsync(Guid id, ClaimsPrincipal user, DibujoDb db, CancellationToken cancellation) =>
        known.TryGetValue(id, out var import) ? import.By.Identity!.Name == user.Identity!.Name ? import : null
        : await db.Imports.AsNoTracking().SingleOrDefaultAsync(one => one.Id == id && one.By == user.Identity!.Name && (one.ThroughAt == null || one.ThroughAt > Now - Memory), cancellation) is { } stored ? RunningImport.Of(stored, user)
        : null;

    /// <summary>The imports that somebody began lately, the latest first; trials are none.</summary>
    internal async Task<IEnumerable<RunningImport>> OfAsync(ClaimsPrincipal user, DibujoDb db, CancellationToken cancellation)
    {
        var running = known.Values.Where(one => one.By.Identity!.Name == user.Identity!.Name && !one.IsTrial).ToList();
        var stored = await db.Imports.AsNoTracking().Where(one => one.By == user.Identity!.Name && one.ThroughAt > Now - Memory)
            .OrderByDescending(one => one.BegunAt).Take(MostTold)
            // Not what came of each row: that is long.
            .Select(one => new StoredImport
            {
                Id = one.Id,
                RecordType = one.RecordType,
                By = one.By,
                BegunAt = one.BegunAt,
                Rows = one.Rows,
                Stored = one.Stored,
                ThroughAt = one.ThroughAt,
                Outcome = one.Outcome,
                TakesBack = one.TakesBack,
            }).ToListAsync(cancellation);
        return running.Concat(stored.Select(one => RunningImport.Of(one, user))).DistinctBy(one => one.Id).OrderByDescending(one => one.BegunAt);
    }

    /// <summary>Begins to take rows in; null where too many wait already.</summary>
    /// <param name="recordType">Key of a record type that has been published.</param>
    /// <param name="table">The rows.</param>
    /// <param name="user">Whose records they are.</param>
    /// <param name="entry">What is noted of it once it is through.</param>
    /// <param name="isTrial">Whether nothing is stored.</param>
    /// <param name="overwrites">Whether rows count also where their record has been saved since the file was made.</param>
    /// <param name="takesBack">The import that is taken back by it; null for one from a file.</param>
    /// <returns>The import, and what is done when it is through.</returns>
    internal (RunningImport Import, Task Through)? Begin(string recordType, RowsRead table, ClaimsPrincipal user, AuditEntry entry, bool isTrial = false, bool overwrites = false, Guid? takesBack = null)
    {
        if (Interlocked.Increment(ref inLine) > MostAtOnce + MostInLine)
        {
            Interlocked.Decrement(ref inLine);
            return null;
        }

        var import = new RunningImport(Guid.NewGuid(), recordType, user, table, isTrial, entry, CancellationTokenSource.CreateLinkedTokenSource(lifetime.ApplicationStopping)) { BegunAt = Now, TakesBack = takesBack };
        // A trial is forgotten at the next file of that person; what the store could not take in is not kept for ever either.
        foreach (var earlier in known.Values.Where(one => one.ThroughAt is { } through && ((one.IsTrial && one.By.Identity!.Name == user.Identity!.Name) || through < Now - Memory)))
        {
            known.TryRemove(earlier.Id, out _);
        }

        known[import.Id] = import;
        return (import, Task.Run(() => RunAsync(import, table.Rows, new(import.Id, isTrial, overwrites, takesBack is not null))));
    }

    /// <summary>Tells of the imports that the end of the process broke off; to be called before others begin.</summary>
    internal async Task TellOfBrokenAsync(CancellationToken cancellation)
    {
        await using var scope = scopes.CreateAsyncScope();
        var db = scope.ServiceProvider.GetRequiredService<DibujoDb>();
        await scope.ServiceProvider.GetRequiredService<UnitOfWork>().RunAsync(
            async () =>
            {
                foreach (var broken in await db.Imports.AsNoTracking().Where(one => one.ThroughAt == null).ToListAsync(cancellation))
                {
                    var outcome = new ImportOutcome(null, $"The server was stopped before it was through. {broken.Stored} of {broken.Rows} rows were taken in before.").Short;
                    await db.Imports.Where(one => one.Id == broken.Id).ExecuteUpdateAsync(set => set.SetProperty(one => one.ThroughAt, Now).SetProperty(one => one.Outcome, outcome), cancellation);
                    db.Audit.Add(new()
                    {
                        At = Now,
                        Event = broken.TakesBack is null ? AuditEvent.RecordsImported : AuditEvent.ImportTakenBack,
                        Who = broken.By,
                        About = $"{await db.RecordTypes.Where(t => t.Key == broken.RecordType).Select(t => t.Label).FirstOrDefaultAsync(cancellation) ?? broken.RecordType}, {broken.Stored} of {broken.Rows} rows, broken off as the server was stopped",
                        Address = broken.Address,
                    });
                }
            },
            cancellation);
    }

    private DateTime Now => clock.GetUtcNow().UtcDateTime;

    private async Task RunAsync(RunningImport import, ImmutableArray<ReadRow> rows, ImportKind kind)
    {
        await using var scope = scopes.CreateAsyncScope();
        var (db, unit) = (scope.ServiceProvider.GetRequiredService<DibujoDb>(), scope.ServiceProvider.GetRequiredService<UnitOfWork>());
        // It is nobody's request: it waits for as long as it takes.
        unit.Patience = Timeout.InfiniteTimeSpan;
        var hasTurn = false;
        try
        {
            if (!kind.IsTrial)
            {
                await NoteAsync(db, unit, import, rows.Length);
            }

            await turns.WaitAsync(import.Cancellation.Token);
            hasTurn = true;
            var edition = (await scope.ServiceProvider.GetRequiredService<Editions>().CurrentAsync(db, import.RecordType, CancellationToken.None))!;
            import.Work = ActivatorUtilities.CreateInstance<RecordImport>(scope.ServiceProvider, edition, import.By, kind);
            var report = await import.Work.RunAsync(rows, import.Cancellation.Token);
            import.KeepRefused(report);
            if (!kind.IsTrial && !lifetime.ApplicationStopping.IsCancellationRequested)
            {
                import.Entry.About += $", {report.Imported} rows, {report.Refused} refused{(report.NotReached > 0 ? $", ended before {report.NotReached} more" : "")}";
                await KeepAsync(db, unit, import, new(report, null) { Headers = import.Table.Headers, Refused = import.RefusedCells, Encoding = import.Table.Encoding }, import.Entry);
            }

            import.Report = report;
        }
        catch (OperationCanceledException) when (import.Cancellation.IsCancellationRequested)
        {
            import.Report = new ImportReport(0, 0, []) with { NotReached = rows.Length, Ended = "It was ended before it began." };
            await KeepEndAsync(import, new(import.Report, null), kind);
        }
        catch (Exception failure) when (failure is not OutOfMemoryException)
        {
            LogFailure(failure, import.RecordType);
            import.Failure = $"Something went wrong at the server. {import.Work?.Stored ?? 0} rows were taken in before.";
            await KeepEndAsync(import, new(null, import.Failure), kind);
        }
        finally
        {
            import.ThroughAt = Now;
            if (import.IsKept)
            {
                // The store tells of it from now on.
                known.TryRemove(import.Id, out _);
            }

            Interlocked.Decrement(ref inLine);
            if (hasTurn)
            {
                turns.Release();
            }
        }
    }

    /// <summary>Keeps what came of it, so that it is told also when the server has been started anew.</summary>
    private async Task KeepAsync(DibujoDb db, UnitOfWork unit, RunningImport import, ImportOutcome outcome, AuditEntry? entry)
    {
        db.ChangeTracker.Clear();
        // Written out before anybody waits for it.
        var (whole, all) = (outcome.Short, outcome.Report is null ? null : outcome.Long);
        await unit.RunAsync(
            async () =>
            {
                if (entry is not null)
                {
                    db.Audit.Add(entry);
                }

                await db.Imports.Where(one => one.Id == import.Id).ExecuteUpdateAsync(set => set
                    .SetProperty(one => one.ThroughAt, Now).SetProperty(one => one.Outcome, whole).SetProperty(one => one.Details, all));
            },
            CancellationToken.None);
        import.IsKept = true;
    }

    /// <summary>Keeps how one ended that did not come to its end; where the server itself is being stopped that is told at its next start.</summary>
    private async Task KeepEndAsync(RunningImport import, ImportOutcome outcome, ImportKind kind)
    {
        if (kind.IsTrial || lifetime.ApplicationStopping.IsCancellationRequested)
        {
            return;
        }

        try
        {
            await using var scope = scopes.CreateAsyncScope();
            await KeepAsync(scope.ServiceProvider.GetRequiredService<DibujoDb>(), scope.ServiceProvider.GetRequiredService<UnitOfWork>(), import, outcome, null);
        }
        catch (Exception failure) when (failure is not OutOfMemoryException)
        {
            LogFailure(failure, import.RecordType);
        }
    }

    /// <summary>Notes that it has been begun, so that it is told of also where the process ends before it is through.</summary>
    private async Task NoteAsync(DibujoDb db, UnitOfWork unit, RunningImport import, int rows)
    {
        await ForgetAsync(db, unit, import.Entry.Who!, lifetime.ApplicationStopping);
        db.Imports.Add(new()
        {
            Id = import.Id,
            RecordType = import.RecordType,
            By = import.Entry.Who!,
            Address = import.Entry.Address,
            Rows = rows,
            BegunAt = import.BegunAt,
            TakesBack = import.TakesBack,
        });
        await unit.SaveAsync(lifetime.ApplicationStopping);
        db.ChangeTracker.Clear();
    }

    /// <summary>Forgets what came of imports too long ago to be told, and of those of one person that are too many.</summary>
    private async Task ForgetAsync(DibujoDb db, UnitOfWork unit, string person, CancellationToken cancellation) => await unit.RunAsync(
        async () =>
        {
            await db.Imports.Where(one => one.ThroughAt < Now - Memory).ExecuteDeleteAsync(cancellation);
            var latest = await db.Imports.Where(one => one.By == person && one.ThroughAt != null).OrderByDescending(one => one.BegunAt).Select(one => one.Id).Take(MostTold - 1).ToListAsync(cancellation);
            await db.Imports.Where(one => one.By == person && one.ThroughAt != null && !latest.Contains(one.Id)).ExecuteDeleteAsync(cancellation);
        },
        cancellation);

    [LoggerMessage(LogLevel.Error, "An import into {RecordType} failed.")]
    private partial void LogFailure(Exception failure, string recordType);
}
