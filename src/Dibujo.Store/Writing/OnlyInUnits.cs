using System.Data.Common;
using Microsoft.EntityFrameworkCore;
using Microsoft.EntityFrameworkCore.Diagnostics;

namespace Dibujo.Store.Writing;

/// <summary>Refuses statements that write without a <see cref="UnitOfWork"/>: they would pass the queue by, and could wait for whoever waits for them.</summary>
public sealed class OnlyInUnits : DbCommandInterceptor
{
    /// <inheritdoc/>
    public override InterceptionResult<int> NonQueryExecuting(DbCommand command, CommandEventData eventData, InterceptionResult<int> result)
    {
        Demand(eventData);
        return result;
    }

    /// <inheritdoc/>
    public override ValueTask<InterceptionResult<int>> NonQueryExecutingAsync(
        DbCommand command, CommandEventData eventData, InterceptionResult<int> result, CancellationToken cancellationToken = default)
    {
        Demand(eventData);
        return ValueTask.FromResult(result);
    }

    /// <exception cref="InvalidOperationException">The context is not within a unit of work.</exception>
    internal static void Demand(DbContext db)
    {
        if (db.Database.CurrentTransaction is null)
        {
            throw new InvalidOperationException($"Write within a {nameof(UnitOfWork)}.");
        }
    }

    private static void Demand(CommandEventData command)
    {
        // The store is brought up to date before anybody else writes.
        if (command is { CommandSource: not CommandSource.Migrations, Context: { } db })
        {
            Demand(db);
        }
    }
}
