using System.Buffers.Binary;
using System.Runtime.InteropServices;
using Microsoft.Data.Sqlite;

namespace Dibujo.Store.Writing;

/// <summary>
/// The file of the database and its log as they lie in the folder. A process goes on writing to a file that somebody has deleted or
/// replaced, and nothing of that is there after it; so a save is answered only while the files are the ones that are open.
/// </summary>
/// <param name="path">Where the database is.</param>
public sealed partial class DatabaseFile(string path) : IDisposable
{
    private const int AtWorkingDirectory = -100;
    private const uint Basic = 0x7ff;

    private readonly Lock turn = new();
    private Identity? database;
    private Identity? log;

    /// <summary>The log is deleted by whoever closes the last connection; this one stays.</summary>
    private SqliteConnection? anchor;

    /// <summary>Where the database is.</summary>
    public string Path => path;

    /// <summary>Whether the files are those that were there when <see cref="Hold"/> was called, and have not become shorter; true before.</summary>
    /// <remarks>Neither ever does by itself: nothing is vacuumed, and the log is begun again from its start without being cut.</remarks>
    public bool IsWhole
    {
        get
        {
            lock (turn)
            {
                return anchor is null || (Follows(ref database, Look(path)) && Follows(ref log, Look($"{path}-wal")));
            }
        }
    }

    /// <summary>Takes the files as they are now for those that have to stay.</summary>
    public void Hold()
    {
        var connection = new SqliteConnection(new SqliteConnectionStringBuilder { DataSource = path, Pooling = false }.ToString());
        connection.Open();
        using var command = connection.CreateCommand();
        command.CommandText = "SELECT count(*) FROM sqlite_master";
        command.ExecuteScalar();
        lock (turn)
        {
            (anchor, database, log) = (connection, Look(path), Look($"{path}-wal"));
        }
    }

    /// <inheritdoc/>
    public void Dispose() => anchor?.Dispose();

    /// <exception cref="DatabaseGoneException">What has just been written would be gone with the process.</exception>
    internal void Demand()
    {
        if (!IsWhole)
        {
            throw new DatabaseGoneException(path);
        }
    }

    private static bool Follows(ref Identity? known, Identity? now)
    {
        if (now is null)
        {
            return known is null;
        }

        if (known is { } before && (before.Device != now.Value.Device || before.File != now.Value.File || now.Value.Size < before.Size))
        {
            return false;
        }

        known = now;
        return true;
    }

    private static Identity? Look(string file)
    {
        if (!OperatingSystem.IsLinux())
        {
            return new FileInfo(file) is { Exists: true } there ? new(0, 0, there.Length) : null;
        }

        Span<byte> answer = stackalloc byte[256];
        if (Statx(AtWorkingDirectory, file, 0, Basic, ref MemoryMarshal.GetReference(answer)) != 0)
        {
            return null;
        }

        // By the layout in statx(2), which is the same on every machine.
        return new(BinaryPrimitives.ReadUInt64LittleEndian(answer[136..]), BinaryPrimitives.ReadUInt64LittleEndian(answer[32..]), BinaryPrimitives.ReadInt64LittleEndian(answer[40..]));
    }

    [LibraryImport("libc", EntryPoint = "statx", StringMarshalling = StringMarshalling.Utf8)]
    [DefaultDllImportSearchPaths(DllImportSearchPath.System32)]
    private static partial int Statx(int directory, string path, int flags, uint mask, ref byte answer);

    private readonly record struct Identity(ulong Device, ulong File, long Size);
}
