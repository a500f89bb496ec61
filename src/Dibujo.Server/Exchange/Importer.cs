using System.Collections.Concurrent;
using System.Collections.Immutable;
using System.Security.Claims;
using Dibujo.Core.Csv;
using Dibujo.Server.Hosting;
using Dibujo.Server.Records;
using Dibujo.Server.RecordTypes;
using Dibujo.Store;
using Dibujo.Store.Auditing;

namespace Dibujo.Server.Exchange;

/// <summary>Takes rows in while whoever sent them does something else. See <see cref="RecordImport"/> for what becomes of a row.</summary>
internal sealed partial class Importer(IServiceScopeFactory scopes, IHostApplicationLifetime lifetime, ILogger<Importer> log)
{
    private readonly ConcurrentDictionary<Guid, RunningImport> running = new();

    /// <summary>The import of that number, which somebody began; null for none, and for one of somebody else.</summary>
    internal RunningImport? Find(Guid id, ClaimsPrincipal user) =>
        running.TryGetValue(id, out var import) && import.By == user.Identity!.Name ? import : null;

    /// <summary>Begins to take rows in as that person's.</summary>
    /// <param name="recordType">Key of a record type that has been published.</param>
    /// <param name="rows">The rows.</param>
    /// <param name="user">Whose records they are.</param>
    /// <param name="entry">What is noted of it once it is through.</param>
    /// <param name="overwrites">Whether rows count also where their record has been saved since the file was made.</param>
    internal RunningImport Begin(string recordType, ImmutableArray<ReadRow> rows, ClaimsPrincipal user, AuditEntry entry, bool overwrites = false)
    {
        var import = new RunningImport(Guid.NewGuid(), recordType, user.Identity!.Name!, rows.Length, CancellationTokenSource.CreateLinkedTokenSource(lifetime.ApplicationStopping));
        // Of what is through, a person is told of the latest.
        foreach (var earlier in running.Values.Where(one => one.By == import.By && (one.Report is not null || one.Failure is not null)))
        {
            running.TryRemove(earlier.Id, out _);
        }

        running[import.Id] = import;
        _ = Task.Run(() => RunAsync(import, rows, user, entry, overwrites));
        return import;
    }

    private async Task RunAsync(RunningImport import, ImmutableArray<ReadRow> rows, ClaimsPrincipal user, AuditEntry entry, bool overwrites)
    {
        await using var scope = scopes.CreateAsyncScope();
        var services = scope.ServiceProvider;
        var db = services.GetRequiredService<DibujoDb>();
        try
        {
            var edition = (await services.GetRequiredService<Editions>().CurrentAsync(db, import.RecordType, CancellationToken.None))!;
            import.Work = new RecordImport(
                db, edition, services.GetRequiredService<Circumstances>(), services.GetRequiredService<RecordLookup>(), services.GetRequiredService<RecordNews>(), user, services.GetRequiredService<TimeProvider>(), services.GetRequiredService<Courtesy>(),
                isTrial: false, overwrites);
            try
            {
                import.Report = ImportReport.Of(await import.Work.RunAsync(rows, import.Cancellation.Token));
            }
            catch (OperationCanceledException)
            {
                // What was stored before stays.
                var done = import.Work.Reports;
                import.Report = ImportReport.Of([.. done, .. rows.Skip(done.Length).Select(row => new RowReport(row.Line, row.Id, ["The import was ended before this row."]))]);
            }

            db.ChangeTracker.Clear();
            entry.About += $", {import.Report.Imported} rows, {import.Report.Refused} refused";
            db.Audit.Add(entry);
            await db.SaveChangesAsync(CancellationToken.None);
        }
        catch (Exception failure) when (failure is not OutOfMemoryException)
        {
            LogFailure(failure, import.RecordType);
            import.Failure = $"Something went wrong at the server. {import.Work?.Stored ?? 0} rows were taken in before.";
        }
    }

    [LoggerMessage(LogLevel.Error, "An import into {RecordType} failed.")]
    private partial void LogFailure(Exception failure, string recordType);
}
