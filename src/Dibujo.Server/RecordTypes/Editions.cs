using System.Collections.Concurrent;
using System.Collections.Immutable;
using System.Text.Json;
using Dibujo.Core.Json;
using Dibujo.Core.Records;
using Dibujo.Store;
using Microsoft.EntityFrameworkCore;
using Microsoft.Extensions.Caching.Memory;

namespace Dibujo.Server.RecordTypes;

/// <summary>
/// Published editions, shared by all requests; those in force are compiled before anybody asks. Of earlier ones, which are read to look
/// back, the latest that were asked for are kept.
/// </summary>
internal sealed class Editions : IDisposable
{
    private const int MostFormer = 32;

    private readonly ConcurrentDictionary<string, Edition> inForce = new(StringComparer.Ordinal);
    private readonly MemoryCache former = new(new MemoryCacheOptions { SizeLimit = MostFormer });
    private readonly ConcurrentDictionary<string, (int Number, ImmutableDictionary<string, string> Keys)> formerKeys = new(StringComparer.Ordinal);

    /// <summary>How many are kept that are not in force.</summary>
    internal int Former => former.Count;

    /// <inheritdoc/>
    public void Dispose() => former.Dispose();

    /// <summary>What the editions of a record type did to its records, after the edition of that number, in their order.</summary>
    internal static ImmutableArray<Reshape> ReshapingAfter(DibujoDb db, string recordType, int number) =>
    [
        .. db.Database.SqlQuery<string>(
            $"""
            SELECT json_extract("Definition", '$.recordType.reshaping') AS "Value" FROM "Editions"
            WHERE "RecordType" = {recordType} AND "Number" > {number} AND json_extract("Definition", '$.recordType.reshaping') IS NOT NULL ORDER BY "Number"
            """).AsEnumerable().SelectMany(json => JsonSerializer.Deserialize(json, CoreJson.Default.ImmutableArrayReshape)),
    ];

    /// <summary>For every key that a field of the record type once had, the key that it has in the edition in force.</summary>
    internal ImmutableDictionary<string, string> FormerKeys(DibujoDb db, string recordType)
    {
        var published = db.RecordTypes.Where(t => t.Key == recordType).Select(t => t.Published).FirstOrDefault();
        if (published is not { } number)
        {
            return ImmutableDictionary<string, string>.Empty;
        }

        if (!formerKeys.TryGetValue(recordType, out var known) || known.Number != number)
        {
            formerKeys[recordType] = known = (number, Core.Reshaping.FormerKeys.Of(ReshapingAfter(db, recordType, 0)));
        }

        return known.Keys;
    }

    /// <summary>The edition in force, or null where the record type is unknown or has none yet.</summary>
    internal async Task<Edition?> CurrentAsync(DibujoDb db, string recordType, CancellationToken cancellation)
    {
        var published = await db.RecordTypes.Where(t => t.Key == recordType).Select(t => t.Published).FirstOrDefaultAsync(cancellation);
        if (published is not { } number)
        {
            return null;
        }

        if (inForce.TryGetValue(recordType, out var edition) && edition.Number == number)
        {
            return edition;
        }

        // Of several who read it at once one is kept, so that it is compiled once.
        return await ReadAsync(db, recordType, number, cancellation) is { } read
            ? inForce.AddOrUpdate(recordType, read, (_, other) => other.Number >= number ? other : read) is var kept && kept.Number == number ? kept : read
            : null;
    }

    /// <summary>The edition of that number, or null where there is none.</summary>
    internal async Task<Edition?> NumberedAsync(DibujoDb db, string recordType, int number, CancellationToken cancellation)
    {
        if (inForce.TryGetValue(recordType, out var edition) && edition.Number == number)
        {
            return edition;
        }

        return former.TryGetValue((recordType, number), out Edition? known) || await ReadAsync(db, recordType, number, cancellation) is not { } read
            ? known
            : former.Set((recordType, number), read, new MemoryCacheEntryOptions { Size = 1 });
    }

    /// <summary>Makes one known that has just been put in force, compiled already.</summary>
    internal void Add(string recordType, Edition edition) => inForce[recordType] = edition;

    private static async Task<Edition?> ReadAsync(DibujoDb db, string recordType, int number, CancellationToken cancellation) =>
        await db.Editions.Where(e => e.RecordType == recordType && e.Number == number).Select(e => e.Definition).SingleOrDefaultAsync(cancellation) is { } definition
            ? new(number, definition) : null;

    private async Task PrepareAsync(DibujoDb db, string recordType, CancellationToken cancellation) =>
        (await CurrentAsync(db, recordType, cancellation))?.Prepare();

    /// <summary>Compiles every edition in force, as when the server starts.</summary>
    internal async Task PrepareAllAsync(DibujoDb db, CancellationToken cancellation)
    {
        foreach (var type in await db.RecordTypes.Where(t => t.Published != null).Select(t => t.Key).ToListAsync(cancellation))
        {
            await PrepareAsync(db, type, cancellation);
        }
    }
}
