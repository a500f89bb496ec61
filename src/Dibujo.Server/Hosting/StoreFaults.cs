using Dibujo.Store.Writing;
using Microsoft.Data.Sqlite;

namespace Dibujo.Server.Hosting;

/// <summary>What keeps the store from being read or written.</summary>
/// <param name="Detail">What is wrong and what to do about it, for whoever runs the server.</param>
/// <param name="IsPassing">Whether it may be over in a moment.</param>
/// <param name="IsDamage">Whether the file itself is broken: all else may be mended around it.</param>
internal sealed record StoreFaults(string Detail, bool IsPassing = false, bool IsDamage = false)
{
    /// <summary>The fault behind an exception; null where the store is not at fault.</summary>
    internal static StoreFaults? Of(Exception exception)
    {
        for (Exception? e = exception; e is not null; e = e.InnerException)
        {
            if (e is WriterBusyException busy)
            {
                return new($"{busy.Holder} has been writing for {busy.Duration.TotalSeconds:0.0} s, and nobody else gets a turn. Try again in a moment.", IsPassing: true);
            }

            if (e is DatabaseGoneException)
            {
                return new("The database file has been taken away, replaced or cut. Stop the server and put it back.");
            }

            if (e is SqliteException { SqliteErrorCode: var code } && OfCode(code) is { } fault)
            {
                return fault;
            }
        }

        return null;
    }

    /// <summary>By SQLite's result codes (sqlite.org/rescode.html).</summary>
    private static StoreFaults? OfCode(int code) => code switch
    {
        5 or 6 => new("The database is busy for longer than it should be. Try again in a moment.", IsPassing: true),
        8 or 14 => new("The database cannot be written: the folder or the file is read only, or gone. Give the server the right to write there."),
        10 => new("The disk reports errors, or is full. Look at the disk of the data folder."),
        11 or 26 => new("The database file is damaged. Stop the server, keep the file, and put back a copy that is whole.", IsDamage: true),
        13 => new("The disk is full. Make room on the disk of the data folder."),
        _ => null,
    };
}
