using System.Data.Common;
using System.Runtime.CompilerServices;
using Dibujo.Store.Listing;
using Microsoft.Data.Sqlite;
using Microsoft.EntityFrameworkCore.Diagnostics;

namespace Dibujo.Store;

/// <summary>
/// Sets every connection so that a save which was answered has reached the disk, readers do not wait for writers, and the index of
/// values is kept.
/// </summary>
public sealed class Durability : DbConnectionInterceptor
{
    private const string Pragmas = "PRAGMA journal_mode = WAL; PRAGMA synchronous = FULL; PRAGMA foreign_keys = ON; PRAGMA busy_timeout = 5000;";

    /// <summary>Connections are pooled: what is opened again has been set before.</summary>
    private readonly ConditionalWeakTable<object, object> set = [];

    /// <inheritdoc/>
    public override void ConnectionOpened(DbConnection connection, ConnectionEndEventData eventData)
    {
        // These are taken from a connection when it is closed.
        IndexFunctions.AddTo((SqliteConnection)connection);
        if (set.TryAdd(((SqliteConnection)connection).Handle!, this))
        {
            using var command = connection.CreateCommand();
            command.CommandText = Pragmas;
            command.ExecuteNonQuery();
        }
    }

    /// <inheritdoc/>
    public override Task ConnectionOpenedAsync(DbConnection connection, ConnectionEndEventData eventData, CancellationToken cancellationToken = default)
    {
        // SQLite has nothing to wait for.
        ConnectionOpened(connection, eventData);
        return Task.CompletedTask;
    }
}
