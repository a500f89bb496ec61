using System.Collections.Concurrent;
using System.Collections.Immutable;
using System.Security.Claims;
using Dibujo.Core.Csv;
using Dibujo.Server.RecordTypes;
using Dibujo.Store;
using Dibujo.Store.Auditing;
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

    /// <summary>For how long somebody is told what came of an import.</summary>
    private static readonly TimeSpan Memory = TimeSpan.FromHours(24);

    /// <summary>Of how many a person is told, and how many are known in all.</summary>
    private const int MostTold = 20;

    private const int MostKnown = 400;

    private readonly ConcurrentDictionary<Guid, RunningImport> known = new();
    private readonly SemaphoreSlim turns = new(MostAtOnce, MostAtOnce);
    private int inLine;

    /// <inheritdoc/>
    public void Dispose() => turns.Dispose();

    /// <summary>The import of that number, which somebody began; null for none, and for one of somebody else.</summary>
    internal RunningImport? Find(Guid id, ClaimsPrincipal user) =>
        known.TryGetValue(id, out var import) && import.By.Identity!.Name == user.Identity!.Name ? import : null;

    /// <summary>The imports that somebody began lately, the latest first; trials are none.</summary>
    internal IEnumerable<RunningImport> Of(ClaimsPrincipal user) =>
        known.Values.Where(one => one.By.Identity!.Name == user.Identity!.Name && !one.IsTrial).OrderByDescending(one => one.BegunAt);

    /// <summary>Begins to take rows in; null where too many wait already.</summary>
    /// <param name="recordType">Key of a record type that has been published.</param>
    /// <param name="table">The rows.</param>
    /// <param name="user">Whose records they are.</param>
    /// <param name="entry">What is noted of it once it is through.</param>
    /// <param name="isTrial">Whether nothing is stored.</param>
    /// <param name="overwrites">Whether rows count also where their record has been saved since the file was made.</param>
    /// <returns>The import, and what is done when it is through.</returns>
    internal (RunningImport Import, Task Through)? Begin(string recordType, RowsRead table, ClaimsPrincipal user, AuditEntry entry, bool isTrial = false, bool overwrites = false)
    {
        if (Interlocked.Increment(ref inLine) > MostAtOnce + MostInLine)
        {
            Interlocked.Decrement(ref inLine);
            return null;
        }

        var import = new RunningImport(Guid.NewGuid(), recordType, user, table, isTrial, entry, CancellationTokenSource.CreateLinkedTokenSource(lifetime.ApplicationStopping)) { BegunAt = Now };
        // Of what is through, a person is told of the latest, and not for ever; a trial is forgotten at the next file.
        var own = known.Values.Where(one => one.By.Identity!.Name == user.Identity!.Name && one.ThroughAt is not null).OrderByDescending(one => one.BegunAt).ToList();
        foreach (var earlier in known.Values.Where(one => one.ThroughAt < Now - Memory).Concat(own.Where(one => one.IsTrial)).Concat(own.Where(one => !one.IsTrial).Skip(MostTold))
            .Concat(known.Values.Where(one => one.ThroughAt is not null).OrderByDescending(one => one.BegunAt).Skip(MostKnown)))
        {
            known.TryRemove(earlier.Id, out _);
        }

        known[import.Id] = import;
        return (import, Task.Run(() => RunAsync(import, table.Rows, new(import.Id, isTrial, overwrites))));
    }

    /// <summary>Tells of the imports that the end of the process broke off; to be called before others begin.</summary>
    internal async Task TellOfBrokenAsync(CancellationToken cancellation)
    {
        await using var scope = scopes.CreateAsyncScope();
        var db = scope.ServiceProvider.GetRequiredService<DibujoDb>();
        await scope.ServiceProvider.GetRequiredService<UnitOfWork>().RunAsync(
            async () =>
            {
                foreach (var broken in await db.Imports.ToListAsync(cancellation))
                {
                    var entry = new AuditEntry
                    {
                        At = Now,
                        Event = AuditEvent.RecordsImported,
                        Who = broken.By,
                        About = $"{await db.RecordTypes.Where(t => t.Key == broken.RecordType).Select(t => t.Label).FirstOrDefaultAsync(cancellation) ?? broken.RecordType}, {broken.Stored} of {broken.Rows} rows, broken off as the server was stopped",
                        Address = broken.Address,
                    };
                    var by = new ClaimsPrincipal(new ClaimsIdentity([new(ClaimTypes.Name, broken.By)]));
                    known[broken.Id] = new(broken.Id, broken.RecordType, by, new RowsRead([], null), false, entry, new())
                    {
                        Rows = broken.Rows,
                        BegunAt = Now,
                        Failure = $"The server was stopped before it was through. {broken.Stored} of {broken.Rows} rows were taken in before.",
                        ThroughAt = Now,
                    };
                    db.Audit.Add(entry);
                    db.Imports.Remove(broken);
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
            await turns.WaitAsync(import.Cancellation.Token);
            hasTurn = true;
            if (!kind.IsTrial)
            {
                db.Imports.Add(new() { Id = import.Id, RecordType = import.RecordType, By = import.Entry.Who!, Address = import.Entry.Address, Rows = rows.Length });
                await unit.SaveAsync(import.Cancellation.Token);
                db.ChangeTracker.Clear();
            }

            var edition = (await scope.ServiceProvider.GetRequiredService<Editions>().CurrentAsync(db, import.RecordType, CancellationToken.None))!;
            import.Work = ActivatorUtilities.CreateInstance<RecordImport>(scope.ServiceProvider, edition, import.By, kind);
            var report = await import.Work.RunAsync(rows, import.Cancellation.Token);
            if (!kind.IsTrial && !lifetime.ApplicationStopping.IsCancellationRequested)
            {
                await unit.RunAsync(
                    async () =>
                    {
                        import.Entry.About += $", {report.Imported} rows, {report.Refused} refused{(report.NotReached > 0 ? $", ended before {report.NotReached} more" : "")}";
                        db.Audit.Add(import.Entry);
                        await db.Imports.Where(one => one.Id == import.Id).ExecuteDeleteAsync();
                    },
                    CancellationToken.None);
            }

            import.Report = report;
        }
        catch (OperationCanceledException) when (import.Cancellation.IsCancellationRequested)
        {
            import.Report = new ImportReport(0, 0, []) with { NotReached = rows.Length, Ended = "It was ended before it began." };
        }
        catch (Exception failure) when (failure is not OutOfMemoryException)
        {
            LogFailure(failure, import.RecordType);
            import.Failure = $"Something went wrong at the server. {import.Work?.Stored ?? 0} rows were taken in before.";
        }
        finally
        {
            import.KeepRefused();
            import.ThroughAt = Now;
            Interlocked.Decrement(ref inLine);
            if (hasTurn)
            {
                turns.Release();
            }
        }
    }

    [LoggerMessage(LogLevel.Error, "An import into {RecordType} failed.")]
    private partial void LogFailure(Exception failure, string recordType);
}
