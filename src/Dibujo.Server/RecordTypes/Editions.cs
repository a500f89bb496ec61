using System.Collections.Concurrent;
using System.Collections.Immutable;
using System.Text.Json;
using Dibujo.Core.Json;
using Dibujo.Core.Records;
using Dibujo.Store;
using Microsoft.EntityFrameworkCore;

namespace Dibujo.Server.RecordTypes;

/// <summary>Published editions, shared by all requests; those in force are compiled before anybody asks.</summary>
internal sealed class Editions
{
    private readonly ConcurrentDictionary<(string RecordType, int Number), Edition> known = new();

    private readonly ConcurrentDictionary<(string RecordType, int Number), ImmutableDictionary<string, string>> formerKeys = new();

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
        return published is not { } number ? ImmutableDictionary<string, string>.Empty
            : formerKeys.GetOrAdd((recordType, number), _ => Core.Reshaping.FormerKeys.Of(ReshapingAfter(db, recordType, 0)));
    }

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

    /// <summary>Makes one known that has just been put in force, compiled already.</summary>
    internal void Add(string recordType, Edition edition) => known[(recordType, edition.Number)] = edition;

    private async Task PrepareAsync(DibujoDb db, string recordType, int number, CancellationToken cancellation) =>
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
