using Dibujo.Core.Inference;
using Dibujo.Store;
using Microsoft.EntityFrameworkCore;

namespace Dibujo.Server.Tables;

/// <summary>Records by title and people by name, as they are in the store when it is made.</summary>
internal sealed class StoredLookup : ICellLookup
{
    /// <summary>How many that are called the same are told: nobody chooses among more.</summary>
    private const int MostAlike = 5;

    private readonly Dictionary<string, Dictionary<string, List<int>>> titles = [];
    private readonly Dictionary<string, Dictionary<int, string>> numbers = [];
    private readonly Dictionary<string, string> labels = new(StringComparer.OrdinalIgnoreCase);
    private readonly Dictionary<string, List<string>> people = new(StringComparer.OrdinalIgnoreCase);
    private readonly Dictionary<string, string> names = new(StringComparer.OrdinalIgnoreCase);

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
                lookup.numbers[record.RecordType][record.Id] = record.Title;
                Add(called, record.Title.Trim(), record.Id);
            }
        }

        foreach (var person in await db.Users.Select(u => new { u.UserName, u.DisplayName }).ToListAsync(cancellation))
        {
            lookup.names[person.UserName!] = person.DisplayName;
            Add(lookup.people, person.DisplayName, person.UserName!);
            if (!string.Equals(person.DisplayName, person.UserName, StringComparison.OrdinalIgnoreCase))
            {
                Add(lookup.people, person.UserName!, person.UserName!);
            }
        }

        return lookup;
    }

    public string? RecordTypeCalled(string heading) => labels.GetValueOrDefault(heading);

    public IReadOnlyList<int> RecordsCalled(string recordType, string title) => titles.GetValueOrDefault(recordType)?.GetValueOrDefault(title.Trim()) ?? [];

    public string? TitleOf(string recordType, int number) => numbers.GetValueOrDefault(recordType)?.GetValueOrDefault(number);

    public IReadOnlyList<string> PeopleCalled(string name) => people.GetValueOrDefault(name.Trim()) ?? [];

    public string? NameOf(string userName) => names.GetValueOrDefault(userName);

    private static void Add<T>(Dictionary<string, List<T>> to, string name, T one)
    {
        if (!to.TryGetValue(name, out var known))
        {
            to[name] = known = [];
        }

        if (known.Count < MostAlike)
        {
            known.Add(one);
        }
    }
}
