using Microsoft.Data.Sqlite;

namespace Dibujo.Server.Hosting;

/// <summary>
/// Copies a data folder, also while a server runs on it: the database as it is at one moment, and the keys of cookies. The copy
/// is a data folder itself; to go back to it, start with it.
/// </summary>
internal static class Backup
{
    /// <summary>Copies one folder to another, which must be new or empty; throws <see cref="CannotStart"/> where that is not possible.</summary>
    internal static void Run(string data, string target)
    {
        var database = Path.Combine(data, "dibujo.db");
        if (!File.Exists(database))
        {
            throw new CannotStart($"There is no database in {Path.GetFullPath(data)}. Name the folder with DIBUJO_DATA.", CannotStart.Missing);
        }

        if (Directory.Exists(target) && Directory.EnumerateFileSystemEntries(target).Any())
        {
            throw new CannotStart($"The folder {Path.GetFullPath(target)} is not empty. Choose a new one; nothing was written.", CannotStart.Folder);
        }

        try
        {
            DataFolder.BeDiscreet();
            Directory.CreateDirectory(target);
            if (!OperatingSystem.IsWindows())
            {
                // It may have been there, and open to others.
                File.SetUnixFileMode(target, UnixFileMode.UserRead | UnixFileMode.UserWrite | UnixFileMode.UserExecute);
            }

            using (var from = new SqliteConnection(new SqliteConnectionStringBuilder { DataSource = database, Mode = SqliteOpenMode.ReadWrite, Pooling = false }.ToString()))
            using (var to = new SqliteConnection(new SqliteConnectionStringBuilder { DataSource = Path.Combine(target, "dibujo.db"), Pooling = false }.ToString()))
            {
                from.Open();
                to.Open();
                from.BackupDatabase(to);
            }

            Directory.CreateDirectory(Path.Combine(target, "keys"));
            foreach (var key in Directory.EnumerateFiles(Path.Combine(data, "keys")))
            {
                var copy = Path.Combine(target, "keys", Path.GetFileName(key));
                File.Copy(key, copy);
                if (!OperatingSystem.IsWindows())
                {
                    File.SetUnixFileMode(copy, UnixFileMode.UserRead | UnixFileMode.UserWrite);
                }
            }
        }
        catch (Exception failure) when (failure is IOException or UnauthorizedAccessException or SqliteException)
        {
            throw new CannotStart($"The copy was not made: {failure.Message} Look for room and rights in {Path.GetFullPath(target)}, and try again with a new folder.", CannotStart.Folder);
        }
    }
}
