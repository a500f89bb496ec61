using Microsoft.Data.Sqlite;
using Microsoft.EntityFrameworkCore;

namespace Dibujo.Store.Writing;

/// <summary>Two who write the same at once: the one who comes second is turned away by the database.</summary>
public static class Overtaking
{
    private const int Constraint = 19;

    /// <summary>Whether somebody else has written first. Any other failure, such as a full disk, is not that.</summary>
    public static bool IsOvertaken(this DbUpdateException failure) =>
        failure is DbUpdateConcurrencyException || failure.InnerException is SqliteException { SqliteErrorCode: Constraint };
}
