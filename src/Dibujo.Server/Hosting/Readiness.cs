using Microsoft.Extensions.Diagnostics.HealthChecks;

namespace Dibujo.Server.Hosting;

/// <summary>Healthy once the store is up to date and requests can be answered.</summary>
internal sealed class Readiness : IHealthCheck
{
    internal bool IsReady { get; set; }

    public Task<HealthCheckResult> CheckHealthAsync(HealthCheckContext context, CancellationToken cancellationToken = default) =>
        Task.FromResult(IsReady ? HealthCheckResult.Healthy() : HealthCheckResult.Unhealthy("The store is being prepared."));
}
