using System.Collections.Concurrent;
using Dibujo.Store;
using Microsoft.EntityFrameworkCore;

namespace Dibujo.Server.RecordTypes;

/// <summary>Published editions, shared by all requests; those in force are compiled before anybody asks.</summary>
internal sealed class Editions
{
    private readonly ConcurrentDictionary<(string RecordType, int Number), Edition> known = new();

    /// <summary>The edition in force, or null where the record type is unknown or has none yet.</summary>
    internal async Task<Edition?> CurrentAsync(DibujoDb db, string recordType, CancellationToken cancellation)
    {
        var published = await db.RecordTypes.Where(t => t.Key == recordType).Select(t => t.Published).FirstOrDefaultAsync(cancellation);
        return published is { } number ? await NumberedAsync(db, recordType, number, cancellation) : null;
    }

    /// <summary>The edition of that number, or null where there is none.</summary>
    internal async Task<Edition?> NumberedAsync(DibujoDb db, string recordType, int number, CancellationToken cancellation)
    {
        if (known.TryGetValue((recordType, number), out var edition))
        {
            return edition;
        }

        var definition = await db.Editions.Where(e => e.RecordType == recordType && e.Number == number)
            .Select(e => e.Definition).SingleOrDefaultAsync(cancellation);
        return definition is null ? null : known.GetOrAdd((recordType, number), new Edition(number, definition));
    }

    /// <summary>Compiles the edition of that number, as when it has just been published.</summary>
    internal async Task PrepareAsync(DibujoDb db, string recordType, int number, CancellationToken cancellation) =>
        (await NumberedAsync(db, recordType, number, cancellation))?.Prepare();

    /// <summary>Compiles every edition in force, as when the server starts.</summary>
    internal async Task PrepareAllAsync(DibujoDb db, CancellationToken cancellation)
    {
        foreach (var type in await db.RecordTypes.Where(t => t.Published != null).Select(t => new { t.Key, t.Published }).ToListAsync(cancellation))
        {
            await PrepareAsync(db, type.Key, type.Published!.Value, cancellation);
        }
    }
}
