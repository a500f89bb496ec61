using System.Globalization;
using System.Text.Json;
using Dibujo.Core.Json;
using Dibujo.Core.Listing;
using Dibujo.Core.Values;
using Dibujo.Store.Records;
using Microsoft.Data.Sqlite;
using Microsoft.EntityFrameworkCore;
using Microsoft.EntityFrameworkCore.Storage;

namespace Dibujo.Store.Writing;

/// <summary>
/// Stores records along with their index, row by row as <see cref="RecordIndex"/> works it out: that takes two thirds of the time that the
/// database's triggers take. Those go on for whoever changes records by one statement, as a publication does.
/// </summary>
/// <param name="db">The store; within a unit of work.</param>
public sealed class RecordIndexing(DibujoDb db)
{
    private static readonly AsyncLocal<bool> ByHand = new();

    /// <summary>Whether the database's triggers are to keep the index of what is written now.</summary>
    internal static bool IsByTrigger => !ByHand.Value;

    /// <summary>Stores what is tracked, and the index of those records, all of one type.</summary>
    /// <param name="records">Each as it was (null for a new one) and as it is tracked.</param>
    /// <param name="cancellation">Ends it.</param>
    public async Task StoreAsync(IReadOnlyCollection<(StoredRecord? Before, StoredRecord Now)> records, CancellationToken cancellation)
    {
        // Holds until this is through, and for nobody else.
        ByHand.Value = true;
        await db.SaveChangesAsync(cancellation);
        if (records.Count == 0)
        {
            return;
        }

        var connection = (SqliteConnection)db.Database.GetDbConnection();
        var transaction = (SqliteTransaction)db.Database.CurrentTransaction!.GetDbTransaction();
        var fields = new Fields(connection, transaction, records.First().Now.RecordType);
        using var insert = Row("""INSERT OR IGNORE INTO "IndexedValues" ("Field", "Key", "Record") VALUES ($field, $key, $record)""");
        using var delete = Row("""DELETE FROM "IndexedValues" WHERE "Field" = $field AND "Key" = $key AND "Record" = $record""");
        using var begin = Text("""INSERT INTO "RecordTexts" (rowid, "Text") VALUES ($record, $text)""");
        using var change = Text("""UPDATE "RecordTexts" SET "Text" = $text WHERE rowid = $record""");
        foreach (var (before, now) in records)
        {
            var was = before is null ? [] : RecordIndex.Rows(before.Values, before.Standing).ToDictionary(row => row.Field, row => row.Key, StringComparer.Ordinal);
            var (values, standing) = (Bare(now.Values), Bare(now.Standing));
            foreach (var (field, key) in RecordIndex.Rows(values, standing))
            {
                if (!was.Remove(field, out var old) || !old.AsSpan().SequenceEqual(key))
                {
                    Run(delete, old is null ? null : fields[field], old, now.Id);
                    Run(insert, fields[field], key, now.Id);
                }
            }

            foreach (var (field, key) in was)
            {
                Run(delete, fields[field], key, now.Id);
            }

            var text = RecordIndex.Text(values);
            if (before is null || text != RecordIndex.Text(before.Values))
            {
                var command = before is null ? begin : change;
                (command.Parameters[0].Value, command.Parameters[1].Value) = (now.Id, text);
                command.ExecuteNonQuery();
            }
        }

        SqliteCommand Row(string sql) => Command(sql, ("$field", 0L), ("$key", Array.Empty<byte>()), ("$record", 0));

        SqliteCommand Text(string sql) => Command(sql, ("$record", 0), ("$text", ""));

        SqliteCommand Command(string sql, params (string Name, object Value)[] parameters)
        {
            var command = connection.CreateCommand();
            (command.Transaction, command.CommandText) = (transaction, sql);
            Array.ForEach(parameters, parameter => command.Parameters.AddWithValue(parameter.Name, parameter.Value));
            return command;
        }

        static void Run(SqliteCommand command, long? field, byte[]? key, int record)
        {
            if (field is not null)
            {
                (command.Parameters[0].Value, command.Parameters[1].Value, command.Parameters[2].Value) = (field, key, record);
                command.ExecuteNonQuery();
            }
        }
    }

    /// <summary>The values as they stand in the database, where a choice and a day are texts like others.</summary>
    private static RecordValues Bare(RecordValues values) => new(JsonSerializer.Deserialize(
        JsonSerializer.SerializeToUtf8Bytes(values.ByField, CoreJson.Default.IReadOnlyDictionaryStringValue), CoreJson.Default.IReadOnlyDictionaryStringValue)!);

    /// <summary>The numbers by which the index calls the fields of a type; one that it does not know yet gets one.</summary>
    private sealed class Fields
    {
        private readonly SqliteConnection connection;
        private readonly SqliteTransaction transaction;
        private readonly string recordType;
        private readonly Dictionary<string, long> numbers = new(StringComparer.Ordinal);

        internal Fields(SqliteConnection connection, SqliteTransaction transaction, string recordType)
        {
            (this.connection, this.transaction, this.recordType) = (connection, transaction, recordType);
            using var command = Command("""SELECT "Field", "Id" FROM "IndexedFields" WHERE "RecordType" = $type""");
            using var reader = command.ExecuteReader();
            while (reader.Read())
            {
                numbers[reader.GetString(0)] = reader.GetInt64(1);
            }
        }

        internal long this[string field]
        {
            get
            {
                if (numbers.TryGetValue(field, out var number))
                {
                    return number;
                }

                using var command = Command("""INSERT INTO "IndexedFields" ("RecordType", "Field") VALUES ($type, $field) RETURNING "Id" """);
                command.Parameters.AddWithValue("$field", field);
                return numbers[field] = Convert.ToInt64(command.ExecuteScalar(), CultureInfo.InvariantCulture);
            }
        }

        private SqliteCommand Command(string sql)
        {
            var command = connection.CreateCommand();
            (command.Transaction, command.CommandText) = (transaction, sql);
            command.Parameters.AddWithValue("$type", recordType);
            return command;
        }
    }
}
