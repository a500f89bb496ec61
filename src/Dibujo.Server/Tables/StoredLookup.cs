using System.Globalization;
using Dibujo.Core.Inference;
using Dibujo.Store;
using Microsoft.EntityFrameworkCore;

namespace Dibujo.Server.Tables;

/// <summary>Records by title and people by name, as they are in the store when it is made.</summary>
internal sealed class StoredLookup : ICellLookup
{
    private readonly Dictionary<string, Dictionary<string, int?>> titles = [];
    private readonly Dictionary<string, HashSet<int>> numbers = [];
    private readonly Dictionary<string, string> labels = new(StringComparer.OrdinalIgnoreCase);
    private readonly Dictionary<string, string?> people = new(StringComparer.OrdinalIgnoreCase);

    private StoredLookup(IReadOnlyList<string> recordTypes) => RecordTypes = recordTypes;

    public IReadOnlyList<string> RecordTypes { get; }

    /// <summary>How many records and people it knows.</summary>
    internal int Size => people.Count + numbers.Values.Sum(known => known.Count);

    internal static async Task<StoredLookup> ReadAsync(DibujoDb db, CancellationToken cancellation)
    {
        var types = await db.RecordTypes.Where(t => t.Published != null).OrderBy(t => t.Key).Select(t => new { t.Key, t.Label }).ToListAsync(cancellation);
        var lookup = new StoredLookup([.. types.Select(t => t.Key)]);
        foreach (var type in types)
        {
            lookup.labels[type.Key] = type.Key;
            lookup.labels[type.Label] = type.Key;
            lookup.titles[type.Key] = new(StringComparer.OrdinalIgnoreCase);
            lookup.numbers[type.Key] = [];
        }

        await foreach (var record in db.Records.Where(r => r.Title != "").Select(r => new { r.RecordType, r.Id, r.Title }).AsAsyncEnumerable().WithCancellation(cancellation))
        {
            if (lookup.titles.TryGetValue(record.RecordType, out var called))
            {
                // Two that are called the same are none: nobody could tell which is meant.
                called[record.Title.Trim()] = called.ContainsKey(record.Title.Trim()) ? null : record.Id;
                lookup.numbers[record.RecordType].Add(record.Id);
            }
        }

        foreach (var person in await db.Users.Select(u => new { u.UserName, u.DisplayName }).ToListAsync(cancellation))
        {
            lookup.people[person.DisplayName] = lookup.people.ContainsKey(person.DisplayName) ? null : person.UserName;
            lookup.people[person.UserName!] = person.UserName;
        }

        return lookup;
    }

    public string? RecordTypeCalled(string heading) => labels.GetValueOrDefault(heading);

    public int? FindRecord(string recordType, string cell) => !titles.TryGetValue(recordType, out var called) ? null
        : called.TryGetValue(cell, out var number) ? number
        : int.TryParse(cell, NumberStyles.None, CultureInfo.InvariantCulture, out var id) && numbers[recordType].Contains(id) ? id : null;

    public string? FindPerson(string cell) => people.GetValueOrDefault(cell);
}
