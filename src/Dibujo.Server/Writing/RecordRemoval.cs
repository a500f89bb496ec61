using System.Collections.Immutable;
using System.Globalization;
using Dibujo.Core.Records;
using Dibujo.Server.Records;
using Dibujo.Server.RecordTypes;
using Dibujo.Store;
using Dibujo.Store.Listing;
using Dibujo.Store.Records;
using Dibujo.Store.Writing;
using Microsoft.EntityFrameworkCore;

namespace Dibujo.Server.Writing;

/// <summary>
/// Removes records with their history, as though they had never been begun. Nobody else's work goes with them: a record that was saved since
/// stays, and one to which others lead.
/// </summary>
internal sealed class RecordRemoval(DibujoDb db, UnitOfWork unit, Editions editions, RecordNews news)
{
    private ImmutableArray<(string RecordType, string Field)>? links;

    /// <summary>Removes records of one type that are as they are given; of each, in their order, why it stays, or null.</summary>
    internal async Task<ImmutableArray<string?>> RemoveAsync(RecordType type, string by, IReadOnlyList<StoredRecord> records, CancellationToken cancellation)
    {
        var stay = ImmutableArray.CreateBuilder<string?>();
        await unit.RunAsync(
            async () =>
            {
                stay.Clear();
                links ??= await LinksToAsync(type.Key, cancellation);
                foreach (var record in records)
                {
                    stay.Add(await RemoveAsync(record, cancellation));
                }

                int[] gone = [.. records.Where((_, i) => stay[i] is null).Select(record => record.Id)];
                if (gone.Length > 0)
                {
                    unit.Afterwards(() => news.Saved(type.Key, by, [.. gone]));
                }
            },
            cancellation);
        return stay.ToImmutable();
    }

    private async Task<string?> RemoveAsync(StoredRecord record, CancellationToken cancellation)
    {
        if (await Linking.FirstToAsync(db, links!.Value, record.Id, cancellation) is { } other)
        {
            return string.Create(CultureInfo.InvariantCulture, $"No. {other} leads to this record. Take it from there first.");
        }

        if (!await db.Records.AnyAsync(r => r.Id == record.Id && r.Version == record.Version, cancellation))
        {
            return "Somebody saved this record meanwhile. It stays.";
        }

        await db.Staged.Where(s => s.Id == record.Id).ExecuteDeleteAsync(cancellation);
        await db.History.Where(e => e.RecordId == record.Id).ExecuteDeleteAsync(cancellation);
        await db.Records.Where(r => r.Id == record.Id).ExecuteDeleteAsync(cancellation);
        return null;
    }

    /// <summary>The fields of all record types that lead to records of that type.</summary>
    private async Task<ImmutableArray<(string RecordType, string Field)>> LinksToAsync(string type, CancellationToken cancellation)
    {
        var found = ImmutableArray.CreateBuilder<(string, string)>();
        foreach (var key in await db.RecordTypes.Where(t => t.Published != null).Select(t => t.Key).ToListAsync(cancellation))
        {
            var edition = await editions.CurrentAsync(db, key, cancellation);
            found.AddRange(edition?.Definition.RecordType.Fields.Where(field => field.Type is LinkType link && link.RecordType == type).Select(field => (key, field.Key)) ?? []);
        }

        return found.ToImmutable();
    }
}
