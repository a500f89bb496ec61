using System.Collections.Immutable;
using System.Data.Common;
using System.Globalization;
using System.Text;
using System.Text.Json;
using Dibujo.Core.Conditions;
using Dibujo.Core.Listing;
using Dibujo.Core.Records;
using Microsoft.Data.Sqlite;
using Microsoft.EntityFrameworkCore;

namespace Dibujo.Store.Listing;

/// <summary>Finds records in the order of any column, some at a time, each time from where the time before ended: what others save in between moves nothing about.</summary>
public sealed class RecordList(DibujoDb db)
{
    private const int ShortestIndexed = 3;

    /// <summary>The records from there on.</summary>
    /// <param name="query">Which records.</param>
    /// <param name="after">Where the ones before ended, as they said; null for the first.</param>
    /// <param name="count">How many at most.</param>
    /// <param name="cancellation">Ends it.</param>
    /// <exception cref="FormatException"><paramref name="after"/> comes from elsewhere.</exception>
    public async Task<QueriedRecords> TakeAsync(RecordQuery query, string? after, int count, CancellationToken cancellation)
    {
        var place = Place.Read(after);
        var found = new List<(object? Key, int Id)>();
        if (!place.IsBlank && !Asks(query.Filter, query.SortBy, test => test == Test.Blank))
        {
            await ReadAsync(query, place, isBlank: false, count + 1, found, cancellation);
        }

        if (found.Count <= count && IsField(query) && !Asks(query.Filter, query.SortBy, test => !FilterSql.IsNegative(test)))
        {
            await ReadAsync(query, place.IsBlank ? place : new(true, null, null), isBlank: true, count + 1 - found.Count, found, cancellation);
        }

        return new([.. found.Take(count).Select(one => one.Id)], found.Count > count ? Place.Of(found[count - 1]).Written : null);
    }

    /// <summary>How many there are.</summary>
    public async Task<int> CountAsync(RecordQuery query, CancellationToken cancellation)
    {
        await using var command = await CommandAsync(cancellation);
        command.CommandText = $"""SELECT count(*) FROM "Records" AS r WHERE r."RecordType" = $type{Where(query, command, "r.\"Id\"", await FieldsAsync(query.Type, command, cancellation))}""";
        command.Parameters.AddWithValue("$type", query.Type.Key);
        return Convert.ToInt32(await command.ExecuteScalarAsync(cancellation), CultureInfo.InvariantCulture);
    }

    /// <summary>How many records hold which key of a column of choices that is kept in the index, by the choice's folded key.</summary>
    public async Task<ImmutableDictionary<string, int>> TallyAsync(RecordQuery query, string column, CancellationToken cancellation)
    {
        await using var command = await CommandAsync(cancellation);
        var fields = await FieldsAsync(query.Type, command, cancellation);
        if (!fields.TryGetValue(column, out var field))
        {
            return ImmutableDictionary<string, int>.Empty;
        }

        command.CommandText = $"""SELECT s."Key", count(*) FROM "IndexedValues" AS s WHERE s."Field" = {field}{Where(query, command, "s.\"Record\"", fields)} GROUP BY s."Key" """;
        await using var reader = await command.ExecuteReaderAsync(cancellation);
        var tally = ImmutableDictionary.CreateBuilder<string, int>(StringComparer.Ordinal);
        while (await reader.ReadAsync(cancellation))
        {
            tally[Encoding.UTF8.GetString(((byte[])reader[0]).AsSpan(1))] = reader.GetInt32(1);
        }

        return tally.ToImmutable();
    }

    /// <summary>Whether nothing passes the filter but what passes such a test on that column: then it need not be looked for where nothing can.</summary>
    private static bool Asks(Filter? filter, string column, Func<Test, bool> isSuch) => filter switch
    {
        FilterClause clause => clause.Of == column && isSuch(clause.Test),
        FilterGroup { Quantifier: Quantifier.AllOf } group => group.Members.Any(member => Asks(member, column, isSuch)),
        _ => false,
    };

    private static bool IsField(RecordQuery query) => ListColumn.Of(query.Type, query.SortBy) is { Key: not (ListColumn.Number or ListColumn.Stage or ListColumn.Workflow or ListColumn.ChangedAt or ListColumn.ChangedBy) };

    /// <summary>What is sorted by: the key of the index, a column of the records, or where the choice stands among the choices.</summary>
    private static string Sorted(RecordQuery query, FilterSql sql) => ListColumn.Of(query.Type, query.SortBy) switch
    {
        { Key: ListColumn.Number } => "r.\"Id\"",
        { Key: ListColumn.ChangedAt } => "r.\"ChangedAt\"",
        { Key: ListColumn.ChangedBy } => "r.\"ChangedBy\"",
        { Key: ListColumn.Stage, Type: ChoiceType stages } => Position("r.\"Stage\"", [.. stages.Options.Select(option => sql.Parameter(option.Key))]),
        { Key: ListColumn.Workflow, Type: ChoiceType workflows } => Position("r.\"Workflow\"", [.. workflows.Options.Select(option => sql.Parameter(option.Key))]),
        { Type: ChoiceType choice } => Position("s.\"Key\"", [.. choice.Options.Select(option => sql.Parameter(ListKey.Of(new Core.Values.Choice(option.Key))!))]),
        _ => "s.\"Key\"",
    };

    private static string Position(string what, string[] inOrder) =>
        $"CASE {what} {string.Concat(inOrder.Select((key, place) => string.Create(CultureInfo.InvariantCulture, $"WHEN {key} THEN {place} ")))}ELSE {inOrder.Length.ToString(CultureInfo.InvariantCulture)} END";

    private async Task ReadAsync(RecordQuery query, Place place, bool isBlank, int count, List<(object? Key, int Id)> found, CancellationToken cancellation)
    {
        await using var command = await CommandAsync(cancellation);
        var fields = await FieldsAsync(query.Type, command, cancellation);
        var sql = new FilterSql(query.Type, fields, command);
        var isField = IsField(query);
        if (isField && !isBlank && !fields.ContainsKey(query.SortBy))
        {
            return;
        }

        var type = sql.Parameter(query.Type.Key);
        var (from, id) = isField && !isBlank
            ? ($"""FROM "IndexedValues" AS s WHERE s."Field" = {fields[query.SortBy]}""", "s.\"Record\"")
            : ($"""FROM "Records" AS r WHERE r."RecordType" = {type}""", "r.\"Id\"");
        var key = isBlank ? "NULL" : Sorted(query, sql);
        // Where the filter asks for that very blank, it is looked for once.
        if (isBlank && !Asks(query.Filter, query.SortBy, test => test == Test.Blank) && fields.TryGetValue(query.SortBy, out var field))
        {
            from += $""" AND {id} NOT IN (SELECT "Record" FROM "IndexedValues" WHERE "Field" = {field})""";
        }

        var (order, sign) = query.Descending ? ("DESC", "<") : ("ASC", ">");
        if (place.Id is { } last)
        {
            from += isBlank ? $" AND {id} {sign} {sql.Parameter(last)}" : $" AND ({key}, {id}) {sign} ({sql.Parameter(place.Key!)}, {sql.Parameter(last)})";
        }

        command.CommandText = $"SELECT {key}, {id} {from}{Where(query, command, id, fields)} ORDER BY {(isBlank ? "" : $"{key} {order}, ")}{id} {order} LIMIT {count.ToString(CultureInfo.InvariantCulture)}";
        await using var reader = await command.ExecuteReaderAsync(cancellation);
        while (await reader.ReadAsync(cancellation))
        {
            found.Add((isBlank ? null : reader.GetValue(0), reader.GetInt32(1)));
        }
    }

    /// <summary>Filter and search, each with AND before it.</summary>
    private static string Where(RecordQuery query, SqliteCommand command, string id, Dictionary<string, long> fields)
    {
        var sql = new FilterSql(query.Type, fields, command);
        var where = query.Filter is null ? "" : $" AND {sql.Of(query.Filter, id)}";
        if (string.IsNullOrWhiteSpace(query.Search))
        {
            return where;
        }

        var text = ListKey.Folded(query.Search);
        // Three letters in a row are looked up. Where they are in a text, and not in a key, is looked at after.
        var found = text.Length >= ShortestIndexed
            ? $"\"Text\" MATCH {sql.Parameter($"\"{text.Replace("\"", "\"\"", StringComparison.Ordinal)}\"")}"
            : $"instr(\"Text\", {sql.Parameter(text)}) > 0";
        where += $""" AND {id} IN (SELECT rowid FROM "RecordTexts" WHERE {found})""";
        return where + $""" AND dibujo_holds((SELECT "Values" FROM "Records" WHERE "Id" = {id}), {sql.Parameter(string.Join(',', query.Searched))}, {sql.Parameter(text)})""";
    }

    private async Task<SqliteCommand> CommandAsync(CancellationToken cancellation)
    {
        await db.Database.OpenConnectionAsync(cancellation);
        return ((SqliteConnection)db.Database.GetDbConnection()).CreateCommand();
    }

    private static async Task<Dictionary<string, long>> FieldsAsync(RecordType type, SqliteCommand sibling, CancellationToken cancellation)
    {
        await using var command = sibling.Connection!.CreateCommand();
        command.CommandText = """SELECT "Field", "Id" FROM "IndexedFields" WHERE "RecordType" = $type""";
        command.Parameters.AddWithValue("$type", type.Key);
        await using DbDataReader reader = await command.ExecuteReaderAsync(cancellation);
        var fields = new Dictionary<string, long>(StringComparer.Ordinal);
        while (await reader.ReadAsync(cancellation))
        {
            fields[reader.GetString(0)] = reader.GetInt64(1);
        }

        return fields;
    }

    /// <summary>Where a page ended: among what is filled in, at a key, or among what is blank; and the record's number.</summary>
    private readonly record struct Place(bool IsBlank, object? Key, int? Id)
    {
        /// <summary>To be handed out; whoever hands it back changed may see other records than meant, and nothing else.</summary>
        internal string Written => Convert.ToBase64String(JsonSerializer.SerializeToUtf8Bytes<object?[]>([Key switch { null => "blank", byte[] => "key", long => "number", _ => "text" }, Key, Id]));

        internal static Place Of((object? Key, int Id) last) => new(last.Key is null, last.Key, last.Id);

        internal static Place Read(string? written)
        {
            if (written is null)
            {
                return default;
            }

            try
            {
                using var document = JsonDocument.Parse(Convert.FromBase64String(written));
                var (kind, key, id) = (document.RootElement[0].GetString(), document.RootElement[1], document.RootElement[2].GetInt32());
                return kind switch
                {
                    "blank" => new(true, null, id),
                    "key" => new(false, key.GetBytesFromBase64(), id),
                    "number" => new(false, key.GetInt64(), id),
                    _ => new(false, key.GetString()!, id),
                };
            }
            catch (Exception mistake) when (mistake is JsonException or InvalidOperationException or IndexOutOfRangeException)
            {
                throw new FormatException("This is no place in a list.", mistake);
            }
        }
    }
}
