using Dibujo.Core.Evaluation;
using Dibujo.Core.Listing;
using Dibujo.Core.Records;
using Dibujo.Core.Values;
using Dibujo.Server.Hosting;
using Dibujo.Server.RecordTypes;
using Dibujo.Store;
using Dibujo.Store.Records;
using Dibujo.Store.Writing;
using Microsoft.EntityFrameworkCore;

namespace Dibujo.Server.Records;

/// <summary>
/// Looks in the background at how records stand, wherever that was last done under another edition, and each day where something
/// looks at the date. Some at a time, so that nobody who saves waits for it, and it rests while others ask for something.
/// </summary>
internal sealed partial class Restanding(
    IServiceScopeFactory scopes, Editions editions, Readiness readiness, Courtesy courtesy, TimeProvider clock, ILogger<Restanding> log) : BackgroundService
{
    private const int ChunkSize = 100;
    private static readonly TimeSpan Rest = TimeSpan.FromMinutes(30);

    private readonly SemaphoreSlim wanted = new(0);

    /// <summary>As of which edition and day all records of a type have been looked at; whoever saves one looks at it as well.</summary>
    private readonly Dictionary<string, (int Edition, DateOnly Day)> done = new(StringComparer.Ordinal);

    /// <inheritdoc/>
    public override void Dispose()
    {
        wanted.Dispose();
        base.Dispose();
    }

    /// <summary>Has it begin soon: another edition is in force.</summary>
    internal void Want()
    {
        if (wanted.CurrentCount == 0)
        {
            wanted.Release();
        }
    }

    protected override async Task ExecuteAsync(CancellationToken stoppingToken)
    {
        await readiness.WhenReady.WaitAsync(stoppingToken);
        while (!stoppingToken.IsCancellationRequested)
        {
            try
            {
                await RunAsync(stoppingToken);
            }
            catch (Exception failure) when (failure is not (OutOfMemoryException or OperationCanceledException))
            {
                LogFailure(failure);
            }

            await wanted.WaitAsync(Rest, stoppingToken);
        }
    }

    private async Task RunAsync(CancellationToken cancellation)
    {
        await using var scope = scopes.CreateAsyncScope();
        var db = scope.ServiceProvider.GetRequiredService<DibujoDb>();
        var unit = scope.ServiceProvider.GetRequiredService<UnitOfWork>();
        var lookup = scope.ServiceProvider.GetRequiredService<RecordLookup>();
        unit.Patience = Timeout.InfiniteTimeSpan;
        foreach (var type in await db.RecordTypes.Where(t => t.Published != null).Select(t => t.Key).ToListAsync(cancellation))
        {
            var edition = (await editions.CurrentAsync(db, type, cancellation))!;
            var looksAtTime = edition.Program.LooksAtTime;
            var today = DateOnly.FromDateTime(clock.GetLocalNow().DateTime);
            var aim = (edition.Number, looksAtTime ? today : default);
            for (var last = 0; done.GetValueOrDefault(type) != aim;)
            {
                var (from, piece) = (last, courtesy.Begin());
                var records = await db.Records.AsNoTracking()
                    .Where(r => r.RecordType == type && r.Id > from && (r.StandingEdition != edition.Number || (looksAtTime && r.StandingDay != today)))
                    .OrderBy(r => r.Id).Take(ChunkSize).ToListAsync(cancellation);
                if (records.Count == 0)
                {
                    done[type] = aim;
                    break;
                }

                await lookup.FetchAsync(edition.Definition.RecordType, records.Select(record => record.Values), cancellation);
                await StoreAsync(db, unit, records, edition, lookup, cancellation);
                lookup.Forget(andExpected: false);
                last = records[^1].Id;
                await piece.RestAsync(cancellation);
            }
        }
    }

    /// <summary>Whoever saved a record in the meantime has looked at it as well. Most stand as they did: of those it is only noted that they were looked at.</summary>
    private async Task StoreAsync(DibujoDb db, UnitOfWork unit, List<StoredRecord> records, Edition edition, RecordLookup lookup, CancellationToken cancellation)
    {
        var now = clock.GetLocalNow().DateTime;
        WholeRecord? open = null;
        var moved = new List<(int Id, int Version, RecordValues Standing)>();
        foreach (var record in records)
        {
            var (values, setting) = (record.Values.FittedTo(edition.Definition.RecordType), new Setting(record.Workflow, record.Stage).At(now));
            open ??= new(new Session(edition.Program, values, setting, lookup));
            if (Standing.Of(open, values, setting) is var standing && !standing.Equals(record.Standing))
            {
                moved.Add((record.Id, record.Version, standing));
            }
        }

        int[] ids = [.. records.Select(record => record.Id)];
        var day = DateOnly.FromDateTime(now);
        await unit.RunAsync(
            async () =>
            {
                foreach (var (id, version, standing) in moved)
                {
                    await db.Records.Where(r => r.Id == id && r.Version == version).ExecuteUpdateAsync(set => set.SetProperty(r => r.Standing, standing), cancellation);
                }

                await db.Records.Where(r => ids.Contains(r.Id) && r.StandingEdition <= edition.Number).ExecuteUpdateAsync(
                    set => set.SetProperty(r => r.StandingEdition, edition.Number).SetProperty(r => r.StandingDay, day), cancellation);
            },
            cancellation);
    }

    [LoggerMessage(LogLevel.Error, "How records stand could not be looked at; it is tried again later.")]
    private partial void LogFailure(Exception failure);
}
