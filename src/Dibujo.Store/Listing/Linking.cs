using Dibujo.Core.Listing;
using Dibujo.Core.Values;
using Microsoft.EntityFrameworkCore;

namespace Dibujo.Store.Listing;

/// <summary>Which records lead to one, found by the index.</summary>
public static class Linking
{
    /// <summary>The number of some record that leads to that one; null where none does.</summary>
    /// <param name="db">The store.</param>
    /// <param name="links">Keys of record types and of their fields that may lead there.</param>
    /// <param name="record">Number of the record.</param>
    /// <param name="cancellation">Ends it.</param>
    public static async Task<int?> FirstToAsync(DibujoDb db, IEnumerable<(string RecordType, string Field)> links, int record, CancellationToken cancellation)
    {
        var key = ListKey.Of(new Number(record))!;
        foreach (var (type, field) in links)
        {
            var found = await db.Database.SqlQuery<int>(
                $"""
                SELECT v."Record" AS "Value" FROM "IndexedValues" AS v JOIN "IndexedFields" AS f ON f."Id" = v."Field"
                WHERE f."RecordType" = {type} AND f."Field" = {field} AND v."Key" = {key} AND v."Record" <> {record} LIMIT 1
                """).ToListAsync(cancellation);
            if (found is [var other])
            {
                return other;
            }
        }

        return null;
    }
}
