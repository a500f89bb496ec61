using System.Globalization;
using System.Text.Json;
using Dibujo.Core.Json;
using Dibujo.Core.Listing;
using Dibujo.Core.Values;
using Dibujo.Store.Writing;
using Microsoft.Data.Sqlite;
using Microsoft.EntityFrameworkCore;
using Microsoft.EntityFrameworkCore.Storage;

namespace Dibujo.Store.Listing;

/// <summary>
/// Finds records whose index is not what <see cref="RecordIndex"/> makes of them, and mends it. Records and index are gone through once
/// each, as they are at one moment, and compared by a sum for each field; only where sums differ is it looked which records are meant.
/// </summary>
public sealed class IndexCheck(DibujoDb db, UnitOfWork unit)
{
    private const int Piece = 2000;

    /// <summary>Looks at all records.</summary>
    /// <param name="rest">Called after each piece of the work, so that it can make way for others.</param>
    /// <param name="cancellation">Ends it.</param>
    /// <returns>Numbers of the records that were mended.</returns>
    public async Task<IReadOnlyList<int>> MendAsync(Func<Task> rest, CancellationToken cancellation)
    {
        await db.Database.OpenConnectionAsync(cancellation);
        try
        {
            var connection = (SqliteConnection)db.Database.GetDbConnection();
            SortedSet<int> odd = [];
            await using (var view = Snapshot.Of(connection))
            {
                var fields = await FieldsAsync(connection, view, cancellation);
                var sums = new Dictionary<long, ulong>();
                await EachRecordAsync(connection, view, (id, type, values, standing, text) =>
                {
                    foreach (var (field, key) in RecordIndex.Rows(values, standing))
                    {
                        // A field that the index does not know at all is found below, by its record.
                        var number = fields.GetValueOrDefault((type, field), -1);
                        odd.UnionWith(number < 0 ? [id] : []);
                        sums[number] = sums.GetValueOrDefault(number) + Sum(key, id);
                    }

                    odd.UnionWith(text == RecordIndex.Text(values) ? [] : [id]);
                }, rest, cancellation);
                await EachRowAsync(connection, view, "", (field, key, record) => sums[field] = sums.GetValueOrDefault(field) - Sum(key, record), rest, cancellation);
                foreach (var (field, _) in sums.Where(sum => sum.Key >= 0 && sum.Value != 0))
                {
                    odd.UnionWith(await DifferingAsync(connection, view, fields, field, rest, cancellation));
                }
            }

            foreach (var some in odd.Chunk(50))
            {
                await MendAsync(connection, some, cancellation);
                await rest();
            }

            return [.. odd];
        }
        finally
        {
            await db.Database.CloseConnectionAsync();
        }
    }

    private static async Task<Dictionary<(string RecordType, string Field), long>> FieldsAsync(SqliteConnection connection, SqliteTransaction view, CancellationToken cancellation)
    {
        await using var command = connection.CreateCommand();
        (command.Transaction, command.CommandText) = (view, """SELECT "RecordType", "Field", "Id" FROM "IndexedFields" """);
        await using var reader = await command.ExecuteReaderAsync(cancellation);
        var fields = new Dictionary<(string, string), long>();
        while (await reader.ReadAsync(cancellation))
        {
            fields[(reader.GetString(0), reader.GetString(1))] = reader.GetInt64(2);
        }

        return fields;
    }

    /// <summary>The records of which the index has another key in that field than they have, or has one where they have none, or the other way round.</summary>
    private static async Task<IEnumerable<int>> DifferingAsync(
        SqliteConnection connection, SqliteTransaction view, Dictionary<(string RecordType, string Field), long> fields, long field, Func<Task> rest, CancellationToken cancellation)
    {
        var (recordType, name) = fields.First(one => one.Value == field).Key;
        var sums = new Dictionary<int, ulong>();
        await EachRecordAsync(connection, view, (id, type, values, standing, _) =>
        {
            foreach (var (_, key) in RecordIndex.Rows(values, standing).Where(row => type == recordType && row.Field == name))
            {
                sums[id] = Sum(key, id);
            }
        }, rest, cancellation);
        await EachRowAsync(connection, view, string.Create(CultureInfo.InvariantCulture, $"WHERE \"Field\" = {field}"), (_, key, record) => sums[record] = sums.GetValueOrDefault(record) - Sum(key, record), rest, cancellation);
        return sums.Where(sum => sum.Value != 0).Select(sum => sum.Key);
    }

    private static async Task EachRecordAsync(
        SqliteConnection connection, SqliteTransaction view, Action<int, string, RecordValues, RecordValues, string?> look, Func<Task> rest, CancellationToken cancellation)
    {
        await using var command = connection.CreateCommand();
        (command.Transaction, command.CommandText) = (view, """
            SELECT r."Id", r."RecordType", r."Values", r."Standing", t."Text" FROM "Records" AS r LEFT JOIN "RecordTexts" AS t ON t.rowid = r."Id" ORDER BY r."Id"
            """);
        await using var reader = await command.ExecuteReaderAsync(cancellation);
        for (var count = 1; await reader.ReadAsync(cancellation); count++)
        {
            look(reader.GetInt32(0), reader.GetString(1), Values(reader.GetString(2)), Values(reader.GetString(3)), reader.IsDBNull(4) ? null : reader.GetString(4));
            if (count % (Piece / 20) == 0)
            {
                await rest();
            }
        }
    }

    private static async Task EachRowAsync(
        SqliteConnection connection, SqliteTransaction? view, string where, Action<long, byte[], int> look, Func<Task> rest, CancellationToken cancellation)
    {
        await using var command = connection.CreateCommand();
        (command.Transaction, command.CommandText) = (view, $"""SELECT "Field", "Key", "Record" FROM "IndexedValues" {where}""");
        await using var reader = await command.ExecuteReaderAsync(cancellation);
        for (var count = 1; await reader.ReadAsync(cancellation); count++)
        {
            look(reader.GetInt64(0), (byte[])reader[1], reader.GetInt32(2));
            if (count % Piece == 0)
            {
                await rest();
            }
        }
    }

    /// <summary>
    /// Makes the index of some records what it has to be. Which rows there are is looked up before anybody has to wait; what was saved
    /// since has its rows from that.
    /// </summary>
    private async Task MendAsync(SqliteConnection connection, int[] some, CancellationToken cancellation)
    {
        var there = some.ToDictionary(id => id, _ => new List<(long Field, byte[] Key)>());
        await EachRowAsync(
            connection, null, $"WHERE \"Record\" IN ({string.Join(',', some)})", (field, key, record) => there[record].Add((field, key)), () => Task.CompletedTask, cancellation);
        await unit.RunAsync(
            async () =>
            {
                foreach (var record in await db.Records.AsNoTracking().Where(r => some.Contains(r.Id)).Select(r => new { r.Id, r.RecordType, r.Values, r.Standing }).ToListAsync(cancellation))
                {
                    var right = RecordIndex.Rows(record.Values, record.Standing).ToList();
                    foreach (var (field, _) in right)
                    {
                        await db.Database.ExecuteSqlAsync($"""INSERT OR IGNORE INTO "IndexedFields" ("RecordType", "Field") VALUES ({record.RecordType}, {field})""", cancellation);
                    }

                    var fields = await FieldsAsync(connection, (SqliteTransaction)db.Database.CurrentTransaction!.GetDbTransaction(), cancellation);
                    var wanted = right.ConvertAll(row => (Field: fields[(record.RecordType, row.Field)], row.Key));
                    foreach (var (field, key) in there[record.Id].Where(row => !wanted.Exists(one => one.Field == row.Field && one.Key.AsSpan().SequenceEqual(row.Key))))
                    {
                        await db.Database.ExecuteSqlAsync($"""DELETE FROM "IndexedValues" WHERE "Field" = {field} AND "Key" = {key} AND "Record" = {record.Id}""", cancellation);
                    }

                    foreach (var (field, key) in wanted)
                    {
                        await db.Database.ExecuteSqlAsync($"""INSERT OR IGNORE INTO "IndexedValues" ("Field", "Key", "Record") VALUES ({field}, {key}, {record.Id})""", cancellation);
                    }

                    var text = RecordIndex.Text(record.Values);
                    await db.Database.ExecuteSqlAsync($"""DELETE FROM "RecordTexts" WHERE rowid = {record.Id}""", cancellation);
                    await db.Database.ExecuteSqlAsync($"""INSERT INTO "RecordTexts" (rowid, "Text") VALUES ({record.Id}, {text})""", cancellation);
                }
            },
            cancellation);
    }

    private static RecordValues Values(string json) => new(JsonSerializer.Deserialize(json, CoreJson.Default.IReadOnlyDictionaryStringValue)!);

    /// <summary>Sums of these differ where rows do, but for one chance in 2^64 (FNV-1a).</summary>
    private static ulong Sum(byte[] key, int record)
    {
        var sum = 14695981039346656037 ^ (uint)record;
        foreach (var part in key)
        {
            sum = (sum ^ part) * 1099511628211;
        }

        return sum * 1099511628211;
    }
}
