using Dibujo.Store;
using Dibujo.Store.Writing;
using Microsoft.EntityFrameworkCore;
using Microsoft.Extensions.Diagnostics.HealthChecks;

namespace Dibujo.Server.Hosting;

/// <summary>Healthy while the store can be written: it is tried, not assumed. Asked often, it tries every few seconds.</summary>
internal sealed class Readiness(IServiceScopeFactory scopes, TimeProvider clock, ILogger<Readiness> log) : IHealthCheck, IDisposable
{
    private static readonly TimeSpan Pause = TimeSpan.FromSeconds(2);

    private readonly TaskCompletionSource ready = new(TaskCreationOptions.RunContinuationsAsynchronously);
    private readonly SemaphoreSlim turn = new(1, 1);
    private (DateTimeOffset At, HealthCheckResult Result) last;

    /// <summary>Done when the store has been brought up to date. Requests that come before wait for it.</summary>
    internal Task WhenReady => ready.Task;

    /// <summary>What was found out about the database beside the requests; null for nothing bad.</summary>
    internal string? Damage { get; set; }

    public async Task<HealthCheckResult> CheckHealthAsync(HealthCheckContext context, CancellationToken cancellationToken = default)
    {
        if (!ready.Task.IsCompleted || Damage is not null)
        {
            return HealthCheckResult.Unhealthy(Damage ?? "The store is being prepared.");
        }

        await turn.WaitAsync(cancellationToken);
        try
        {
            if (clock.GetUtcNow() - last.At > Pause)
            {
                last = (clock.GetUtcNow(), await WriteAsync(cancellationToken));
            }

            return last.Result;
        }
        finally
        {
            turn.Release();
        }
    }

    public void Dispose() => turn.Dispose();

    internal void Ready() => ready.TrySetResult();

    private async Task<HealthCheckResult> WriteAsync(CancellationToken cancellation)
    {
        try
        {
            await using var scope = scopes.CreateAsyncScope();
            var db = scope.ServiceProvider.GetRequiredService<DibujoDb>();
            await scope.ServiceProvider.GetRequiredService<UnitOfWork>().RunAsync(
                async () =>
                {
                    var now = clock.GetUtcNow().UtcDateTime;
                    if (await db.Heartbeats.FirstOrDefaultAsync(cancellation) is { } heartbeat)
                    {
                        heartbeat.At = now;
                    }
                    else
                    {
                        db.Heartbeats.Add(new Heartbeat { Id = 1, At = now });
                    }
                },
                cancellation);
            return HealthCheckResult.Healthy();
        }
        catch (Exception failure) when (StoreFaults.Of(failure) is { } fault)
        {
            log.LogError("The store cannot be written: {Fault}", fault.Detail);
            return HealthCheckResult.Unhealthy(fault.Detail);
        }
    }
}
