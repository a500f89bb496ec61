using System.Collections.Immutable;
using Dibujo.Core.Conditions;
using Dibujo.Core.Notations;
using Dibujo.Core.Records;
using Dibujo.Core.Values;
using Dibujo.Server.RecordTypes;
using Dibujo.Store;
using Dibujo.Store.Records;
using Microsoft.EntityFrameworkCore;

namespace Dibujo.Server.Records;

/// <summary>Finds linked records and persons in the store, each once for a request.</summary>
internal sealed class RecordLookup(DibujoDb db, Editions editions) : IRecordLookup, IKnownNames
{
    /// <summary>Of how many that are called the same one is told.</summary>
    private const int MostAlike = 5;

    private readonly Dictionary<(string RecordType, int Number), (string Title, RecordValues Values)?> found = [];
    private readonly Dictionary<(string RecordType, int Number), (string Title, RecordValues Values)?> expected = [];
    private readonly Dictionary<string, ImmutableDictionary<string, string>> formerKeys = [];
    private List<(string UserName, string DisplayName)>? accounts;
    private readonly Dictionary<string, bool> persons = new(StringComparer.OrdinalIgnoreCase);

    public RecordValues? Find(string recordType, int number) => Load(recordType, number)?.Values;

    public bool HasPerson(string userName)
    {
        if (!persons.TryGetValue(userName, out var there))
        {
            var normalized = userName.ToUpperInvariant();
            persons[userName] = there = db.Users.Any(u => u.NormalizedUserName == normalized);
        }

        return there;
    }

    public string? TitleOf(string recordType, int number) => Load(recordType, number)?.Title;

    public string? NameOf(string userName) => Accounts.FirstOrDefault(one => string.Equals(one.UserName, userName, StringComparison.OrdinalIgnoreCase)).DisplayName;

    public IReadOnlyList<string> PeopleCalled(string name) => [.. Accounts.Where(one => Same(one.DisplayName, name) || Same(one.UserName, name)).Select(one => one.UserName).Take(MostAlike)];

    public IReadOnlyList<int> RecordsCalled(string recordType, string title) =>
        [.. db.Records.Where(r => r.RecordType == recordType && r.Title == title).OrderBy(r => r.Id).Select(r => r.Id).Take(MostAlike)];

    /// <summary>All who have an account; read where somebody is named.</summary>
    private List<(string UserName, string DisplayName)> Accounts => accounts ??= [.. db.Users.Select(u => new { u.UserName, u.DisplayName }).AsEnumerable().Select(u => (u.UserName!, u.DisplayName))];

    private static bool Same(string one, string other) => string.Equals(one.Trim(), other.Trim(), StringComparison.OrdinalIgnoreCase);

    /// <summary>Finds the records to which many lead in one go, so that none of them is asked for by itself.</summary>
    internal async Task FetchAsync(RecordType type, IEnumerable<RecordValues> many, CancellationToken cancellation)
    {
        var values = many.ToList();
        foreach (var fields in type.Fields.Where(field => field.Type is LinkType).GroupBy(field => ((LinkType)field.Type).RecordType, StringComparer.Ordinal))
        {
            int[] numbers = [.. fields.SelectMany(field => values.Select(one => one[field.Key])).OfType<Link>().Select(link => link.Record).Distinct().Where(number => !found.ContainsKey((fields.Key, number)))];
            var there = await db.Records.AsNoTracking().Where(r => numbers.Contains(r.Id) && r.RecordType == fields.Key).Select(r => new { r.Id, r.Title, r.Values }).ToDictionaryAsync(r => r.Id, cancellation);
            foreach (var number in numbers)
            {
                found[(fields.Key, number)] = there.TryGetValue(number, out var one) ? (one.Title, ByFormerKeys(fields.Key, one.Values)) : null;
            }
        }
    }

    /// <summary>Finds a record as it will be, before it is stored: what comes after sees what came before.</summary>
    internal void Expect(StoredRecord record) => expected[(record.RecordType, record.Id)] = (record.Title, record.Values);

    /// <summary>Forgets what was found, so that the next question finds what is there then.</summary>
    /// <param name="andExpected">Whether also what was expected, as it has been stored by now.</param>
    internal void Forget(bool andExpected)
    {
        found.Clear();
        persons.Clear();
        accounts = null;
        if (andExpected)
        {
            expected.Clear();
        }
    }

    /// <summary>The records to which the values lead, over as many links as rules may follow, with the fields that the record type knows of them.</summary>
    internal ImmutableArray<LinkedRecord> From(RecordType type, RecordValues values)
    {
        var reached = ImmutableArray.CreateBuilder<LinkedRecord>();
        Follow(type, type.Fields, values, depth: 1, reached);
        return [.. reached.DistinctBy(r => (r.RecordType, r.Number))];
    }

    private void Follow(RecordType type, ImmutableArray<Field> fields, RecordValues values, int depth, ImmutableArray<LinkedRecord>.Builder reached)
    {
        foreach (var field in fields)
        {
            if (field.Type is not LinkType link || field.Type.Fit(values[field.Key]) is not Link { Record: var number }
                || Load(link.RecordType, number) is not { } there)
            {
                continue;
            }

            var knownFields = type.FieldsOf(link.RecordType) ?? [];
            var known = knownFields.Aggregate(RecordValues.Empty, (some, f) => some.With(f.Key, there.Values[f.Key]));
            reached.Add(new(link.RecordType, number, there.Title, known.ByField));
            if (depth < LinkedSubject.MostLinks)
            {
                Follow(type, knownFields, there.Values, depth + 1, reached);
            }
        }
    }

    private (string Title, RecordValues Values)? Load(string recordType, int number)
    {
        if (expected.TryGetValue((recordType, number), out var known))
        {
            return known;
        }

        if (!found.TryGetValue((recordType, number), out var record))
        {
            found[(recordType, number)] = record = db.Records.AsNoTracking().Where(r => r.Id == number && r.RecordType == recordType)
                .Select(r => new { r.Title, r.Values }).AsEnumerable().Select(r => ((string, RecordValues)?)(r.Title, ByFormerKeys(recordType, r.Values))).SingleOrDefault();
        }

        return record;
    }

    /// <summary>Rules of another record type go on looking for a field under the key that it had when they were written.</summary>
    private RecordValues ByFormerKeys(string recordType, RecordValues values)
    {
        if (!formerKeys.TryGetValue(recordType, out var keys))
        {
            formerKeys[recordType] = keys = editions.FormerKeys(db, recordType);
        }

        return keys.IsEmpty ? values : keys.Where(key => !values.ByField.ContainsKey(key.Key)).Aggregate(values, (known, key) => known.With(key.Key, values[key.Value]));
    }
}

/// <summary>A record to which a link leads.</summary>
/// <param name="RecordType">Key of its record type.</param>
/// <param name="Number">Its number.</param>
/// <param name="Title">What it is called in lists.</param>
/// <param name="Values">Its values, as far as the linking record type knows its fields.</param>
internal sealed record LinkedRecord(string RecordType, int Number, string Title, IReadOnlyDictionary<string, Value> Values);
