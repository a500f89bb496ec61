using Dibujo.Server.Hosting;
using Dibujo.Store.Listing;
using Dibujo.Store.Writing;

namespace Dibujo.Server.Records;

/// <summary>Looks in the background, soon after the start and once a day, for records whose index differs from what they hold, and mends it.</summary>
internal sealed partial class Reindexing(IServiceScopeFactory scopes, Readiness readiness, Courtesy courtesy, ILogger<Reindexing> log) : BackgroundService
{
    private static readonly TimeSpan Beginning = TimeSpan.FromMinutes(2);
    private static readonly TimeSpan Rest = TimeSpan.FromDays(1);

    /// <summary>Looks once; answers with the numbers of the records that were mended.</summary>
    internal async Task<IReadOnlyList<int>> RunAsync(CancellationToken cancellation)
    {
        await using var scope = scopes.CreateAsyncScope();
        scope.ServiceProvider.GetRequiredService<UnitOfWork>().Patience = Timeout.InfiniteTimeSpan;
        var piece = courtesy.Begin();
        var mended = await scope.ServiceProvider.GetRequiredService<IndexCheck>().MendAsync(
            async () =>
            {
                await piece.RestAsync(cancellation);
                piece = courtesy.Begin();
            },
            cancellation);
        if (mended.Count > 0)
        {
            LogMended(mended.Count, string.Join(", ", mended.Take(20)));
        }

        return mended;
    }

    protected override async Task ExecuteAsync(CancellationToken stoppingToken)
    {
        await readiness.WhenReady.WaitAsync(stoppingToken);
        for (var pause = Beginning; ; pause = Rest)
        {
            await Task.Delay(pause, stoppingToken);
            try
            {
                await RunAsync(stoppingToken);
            }
            catch (Exception failure) when (failure is not (OutOfMemoryException or OperationCanceledException))
            {
                LogFailure(failure);
            }
        }
    }

    [LoggerMessage(LogLevel.Warning, "The index of {Count} records was not what they hold, and has been mended: {Records}.")]
    private partial void LogMended(int count, string records);

    [LoggerMessage(LogLevel.Error, "The index could not be looked at; it is tried again in a day.")]
    private partial void LogFailure(Exception failure);
}
