using Microsoft.Data.Sqlite;

namespace Dibujo.Store.Writing;

/// <summary>The store as it is at one moment, for whoever reads it through in several questions. Nobody who writes waits for it.</summary>
internal static class Snapshot
{
    /// <summary>Begins with the first question, and ends when it is disposed. Nothing is written in it.</summary>
    internal static SqliteTransaction Of(SqliteConnection connection) => connection.BeginTransaction(deferred: true);
}
