using Dibujo.Core.Listing;
using Dibujo.Core.Records;
using Dibujo.Core.Values;
using Dibujo.Server.Hosting;
using Dibujo.Server.RecordTypes;
using Dibujo.Store;
using Dibujo.Store.Records;
using Microsoft.EntityFrameworkCore;

namespace Dibujo.Server.Records;

/// <summary>
/// Looks in the background at how records stand, wherever that was last done under another edition or on another day: rules may
/// look at the date. Some at a time, so that nobody who saves waits for it.
/// </summary>
internal sealed partial class Restanding(
    IServiceScopeFactory scopes, Editions editions, Readiness readiness, TimeProvider clock, ILogger<Restanding> log) : BackgroundService
{
    private const int ChunkSize = 100;
    private static readonly TimeSpan Pause = TimeSpan.FromMilliseconds(15);
    private static readonly TimeSpan Rest = TimeSpan.FromMinutes(30);

    private readonly SemaphoreSlim wanted = new(0);

    /// <inheritdoc/>
    public override void Dispose()
    {
        wanted.Dispose();
        base.Dispose();
    }

    /// <summary>How a record stands that is about to be stored.</summary>
    internal static void Stand(StoredRecord record, Edition edition, IRecordLookup lookup, DateTime now)
    {
        record.Standing = Of(record, edition, lookup, now);
        (record.StandingEdition, record.StandingDay) = (edition.Number, DateOnly.FromDateTime(now));
    }

    /// <summary>Has it begin soon: another edition is in force, or many records have come.</summary>
    internal void Want() => wanted.Release();

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

    private static RecordValues Of(StoredRecord record, Edition edition, IRecordLookup lookup, DateTime now) => Standing.Of(
        edition.Program, record.Values.FittedTo(edition.Definition.RecordType), new Setting(record.Workflow, record.Stage).At(now), lookup);

    private async Task RunAsync(CancellationToken cancellation)
    {
        await using var scope = scopes.CreateAsyncScope();
        var db = scope.ServiceProvider.GetRequiredService<DibujoDb>();
        var lookup = scope.ServiceProvider.GetRequiredService<RecordLookup>();
        foreach (var type in await db.RecordTypes.Where(t => t.Published != null).Select(t => t.Key).ToListAsync(cancellation))
        {
            var edition = (await editions.CurrentAsync(db, type, cancellation))!;
            var today = DateOnly.FromDateTime(clock.GetLocalNow().DateTime);
            for (var last = 0; ;)
            {
                var from = last;
                var records = await db.Records.AsNoTracking()
                    .Where(r => r.RecordType == type && r.Id > from && (r.StandingEdition != edition.Number || r.StandingDay != today))
                    .OrderBy(r => r.Id).Take(ChunkSize).ToListAsync(cancellation);
                if (records.Count == 0)
                {
                    break;
                }

                await StoreAsync(db, records, edition, lookup, cancellation);
                lookup.Forget(andExpected: false);
                last = records[^1].Id;
                await Task.Delay(Pause, cancellation);
            }
        }
    }

    /// <summary>Whoever saved a record in the meantime has looked at it as well.</summary>
    private async Task StoreAsync(DibujoDb db, List<StoredRecord> records, Edition edition, RecordLookup lookup, CancellationToken cancellation)
    {
        var now = clock.GetLocalNow().DateTime;
        foreach (var record in records)
        {
            Stand(record, edition, lookup, now);
        }

        await db.TogetherAsync(
            async _ =>
            {
                foreach (var record in records)
                {
                    await db.Records.Where(r => r.Id == record.Id && r.Version == record.Version).ExecuteUpdateAsync(
                        set => set.SetProperty(r => r.Standing, record.Standing).SetProperty(r => r.StandingEdition, record.StandingEdition)
                            .SetProperty(r => r.StandingDay, record.StandingDay),
                        cancellation);
                }
            },
            cancellation);
    }

    [LoggerMessage(LogLevel.Error, "How records stand could not be looked at; it is tried again later.")]
    private partial void LogFailure(Exception failure);
}
