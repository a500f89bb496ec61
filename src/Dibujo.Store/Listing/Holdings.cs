using Microsoft.Data.Sqlite;
using Microsoft.EntityFrameworkCore;

namespace Dibujo.Store.Listing;

/// <summary>How many records hold what, counted from the index: no record is read.</summary>
/// <param name="Fields">By key of the field: how many hold a value of it.</param>
/// <param name="Keys">By key of each field that was asked about: how many hold which key of the index.</param>
/// <param name="Stages">By keys of workflow and stage: how many stand there.</param>
public sealed record Holdings(
    IReadOnlyDictionary<string, int> Fields, IReadOnlyDictionary<string, List<(byte[] Key, int Records)>> Keys, IReadOnlyDictionary<(string Workflow, string Stage), int> Stages)
{
    /// <summary>Counts the records of a type.</summary>
    /// <param name="db">The store.</param>
    /// <param name="recordType">Key of the type.</param>
    /// <param name="byKey">Keys of the fields of which it is told how many records hold which value.</param>
    /// <param name="cancellation">Ends it.</param>
    public static async Task<Holdings> CountAsync(DibujoDb db, string recordType, IReadOnlySet<string> byKey, CancellationToken cancellation)
    {
        await db.Database.OpenConnectionAsync(cancellation);
        try
        {
            var connection = (SqliteConnection)db.Database.GetDbConnection();
            var fields = new Dictionary<string, int>(StringComparer.Ordinal);
            var keys = new Dictionary<string, List<(byte[] Key, int Records)>>(StringComparer.Ordinal);
            foreach (var (field, number) in await NumbersAsync(connection, recordType, cancellation))
            {
                await using var command = connection.CreateCommand();
                command.CommandText = byKey.Contains(field)
                    ? $"""SELECT count(*), "Key" FROM "IndexedValues" WHERE "Field" = {command.Parameter(number)} GROUP BY "Key" """
                    : $"""SELECT count(*), NULL FROM "IndexedValues" WHERE "Field" = {command.Parameter(number)}""";
                await using var reader = await command.ExecuteReaderAsync(cancellation);
                while (await reader.ReadAsync(cancellation))
                {
                    fields[field] = fields.GetValueOrDefault(field) + reader.GetInt32(0);
                    if (!reader.IsDBNull(1))
                    {
                        (keys.TryGetValue(field, out var known) ? known : keys[field] = []).Add(((byte[])reader[1], reader.GetInt32(0)));
                    }
                }
            }

            var stages = await db.Records.Where(r => r.RecordType == recordType).GroupBy(r => new { r.Workflow, r.Stage })
                .Select(g => new { g.Key.Workflow, g.Key.Stage, Records = g.Count() }).ToListAsync(cancellation);
            return new(
                fields.Where(field => field.Value > 0).ToDictionary(StringComparer.Ordinal), keys, stages.ToDictionary(place => (place.Workflow, place.Stage), place => place.Records));
        }
        finally
        {
            await db.Database.CloseConnectionAsync();
        }
    }

    private static async Task<List<(string Field, long Number)>> NumbersAsync(SqliteConnection connection, string recordType, CancellationToken cancellation)
    {
        await using var command = connection.CreateCommand();
        // What begins with an @ is about how records stand.
        command.CommandText = $"""SELECT "Field", "Id" FROM "IndexedFields" WHERE "RecordType" = {command.Parameter(recordType)} AND "Field" NOT LIKE '@%'""";
        await using var reader = await command.ExecuteReaderAsync(cancellation);
        var numbers = new List<(string, long)>();
        while (await reader.ReadAsync(cancellation))
        {
            numbers.Add((reader.GetString(0), reader.GetInt64(1)));
        }

        return numbers;
    }
}
