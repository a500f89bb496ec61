using System.Runtime.InteropServices;
using Microsoft.Data.Sqlite;

namespace Dibujo.Server.Hosting;

/// <summary>
/// The folder with everything that is kept: the database and the keys of cookies, for their owner's eyes only, and used
/// by one process at a time. What is wrong with it is said before anything is written.
/// </summary>
internal sealed partial class DataFolder : IDisposable
{
    private const UnixFileMode OwnerOnly = UnixFileMode.UserRead | UnixFileMode.UserWrite;

    /// <summary>Bytes of a database that is read through before the start; a larger one is read through beside the first requests.</summary>
    private const long SmallDatabase = 64 * 1024 * 1024;

    private readonly FileStream held;

    private DataFolder(string path, FileStream held) => (Path, this.held) = (path, held);

    internal string Path { get; }

    internal string Database => System.IO.Path.Combine(Path, "dibujo.db");

    internal string Keys => System.IO.Path.Combine(Path, "keys");

    internal string ConnectionString => new SqliteConnectionStringBuilder { DataSource = Database }.ToString();

    internal bool IsLarge => new FileInfo(Database) is { Exists: true, Length: > SmallDatabase };

    /// <summary>Takes the folder for this process; throws <see cref="CannotStart"/> where that is not possible.</summary>
    internal static DataFolder Open(string path)
    {
        path = System.IO.Path.GetFullPath(path);
        BeDiscreet();
        try
        {
            Directory.CreateDirectory(path);
            var folder = new DataFolder(path, new FileStream(
                System.IO.Path.Combine(path, "dibujo.lock"), FileMode.OpenOrCreate, FileAccess.ReadWrite, FileShare.None));
            folder.KeepToOwner();
            folder.DemandDatabase();
            return folder;
        }
        catch (Exception failure) when (failure is IOException or UnauthorizedAccessException)
        {
            throw new CannotStart(
                $"The data folder {path} cannot be used: {failure.Message} Another Dibujo may be running on it, or this user may not write there. Stop the other one, choose another folder with DIBUJO_DATA, or give this user the right to write.",
                CannotStart.Folder);
        }
    }

    /// <summary>Reads the database through; throws <see cref="CannotStart"/> where it is damaged.</summary>
    internal void Check()
    {
        if (!File.Exists(Database))
        {
            return;
        }

        string verdict;
        try
        {
            using var connection = new SqliteConnection(ConnectionString);
            connection.Open();
            using var command = connection.CreateCommand();
            command.CommandText = "PRAGMA quick_check(1)";
            verdict = (string)command.ExecuteScalar()!;
        }
        catch (SqliteException failure) when (StoreFaults.Of(failure) is { IsDamage: false } fault)
        {
            // The file may be as good as ever: nobody is to put an old copy in its place.
            throw new CannotStart($"The database {Database} cannot be used now. {fault.Detail} Nothing was changed in it, and it is not known to be damaged.", CannotStart.Folder);
        }
        catch (SqliteException failure)
        {
            verdict = failure.Message;
        }

        if (verdict != "ok")
        {
            throw new CannotStart(
                $"The database {Database} is damaged: {verdict} Nothing was changed in it. Put back a copy that is whole; the file may still hold much that can be saved, so keep it.",
                CannotStart.Broken);
        }
    }

    public void Dispose() => held.Dispose();

    /// <summary>From now on whatever this process, SQLite and the framework create is for its owner's eyes only.</summary>
    internal static void BeDiscreet()
    {
        if (!OperatingSystem.IsWindows())
        {
            _ = Umask(0b_000_111_111);
        }
    }

    /// <summary>Where there has been a database, none is made up in place of it.</summary>
    private void DemandDatabase()
    {
        if (!File.Exists(Database) && Directory.Exists(Keys) && Directory.EnumerateFiles(Keys).Any())
        {
            throw new CannotStart(
                $"The database {Database} is missing, though Dibujo has been used in this folder. Put it back, or start with ./demo --fresh to begin anew.",
                CannotStart.Missing);
        }
    }

    private void KeepToOwner()
    {
        if (OperatingSystem.IsWindows())
        {
            return;
        }

        foreach (var file in Directory.EnumerateFiles(Path, "dibujo.*").Concat(Directory.Exists(Keys) ? Directory.EnumerateFiles(Keys) : []))
        {
            File.SetUnixFileMode(file, OwnerOnly);
        }
    }

    [LibraryImport("libc", EntryPoint = "umask")]
    [DefaultDllImportSearchPaths(DllImportSearchPath.System32)]
    private static partial int Umask(int mask);
}
