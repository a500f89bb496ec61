using System.Collections.Immutable;
using System.Globalization;
using System.Runtime.CompilerServices;
using System.Text;
using Dibujo.Core.Conditions;
using Dibujo.Core.Listing;
using Dibujo.Core.Records;
using Microsoft.Data.Sqlite;
using Microsoft.EntityFrameworkCore;

namespace Dibujo.Store.Listing;

/// <summary>Finds records in the order of any column, some at a time, each time from where the time before ended: what others save in between moves nothing about.</summary>
public sealed class RecordList(DibujoDb db)
{
    /// <summary>The records from there on.</summary>
    /// <param name="query">Which records.</param>
    /// <param name="after">Where the ones before ended, as they said; null for the first.</param>
    /// <param name="count">How many at most.</param>
    /// <param name="cancellation">Ends it.</param>
    /// <exception cref="FormatException"><paramref name="after"/> comes from elsewhere.</exception>
    public async Task<QueriedRecords> TakeAsync(RecordQuery query, string? after, int count, CancellationToken cancellation)
    {
        var place = ListPlace.Read(after);
        return await TakeAsync(query, await PassingAsync(query, cancellation), place, count, cancellation);
    }

    /// <summary>All of them, some at a time. Which they are is settled at the beginning; nothing is kept open between one and the next.</summary>
    public async IAsyncEnumerable<ImmutableArray<int>> AllAsync(RecordQuery query, int atATime, [EnumeratorCancellation] CancellationToken cancellation)
    {
        var passing = await PassingAsync(query, cancellation);
        for (string? after = null; ;)
        {
            var found = await TakeAsync(query, passing, ListPlace.Read(after), atATime, cancellation);
            yield return found.Ids;
            if (found.Next is null)
            {
                yield break;
            }

            after = found.Next;
        }
    }

    /// <summary>How many there are, and of each column of choices that is kept in the index, how many hold which.</summary>
    /// <param name="query">Which records.</param>
    /// <param name="columns">Keys of the columns.</param>
    /// <param name="cancellation">Ends it.</param>
    public async Task<RecordCounts> CountAsync(RecordQuery query, IEnumerable<string> columns, CancellationToken cancellation)
    {
        var passing = await PassingAsync(query, cancellation);
        await using var command = passing.Sets.Command();
        command.CommandText = $"""SELECT count(*) FROM "Records" AS r WHERE r."RecordType" = {command.Parameter(query.Type.Key)}{passing.Has("r.\"Id\"", command)}{passing.Holds("r.\"Id\"", command)}""";
        var records = Convert.ToInt32(await command.ExecuteScalarAsync(cancellation), CultureInfo.InvariantCulture);
        var tallies = ImmutableDictionary.CreateBuilder<string, ImmutableDictionary<string, int>>();
        foreach (var column in columns)
        {
            tallies[column] = await TallyAsync(passing, column, cancellation);
        }

        return new(records, tallies.ToImmutable());
    }

    private static async Task<QueriedRecords> TakeAsync(RecordQuery query, Passing passing, ListPlace place, int count, CancellationToken cancellation)
    {
        var found = new List<(object? Key, int Id)>();
        if (!passing.IsEmpty && !place.IsBlank && !Asks(query.Filter, query.SortBy, test => test == Test.Blank))
        {
            await ReadAsync(query, passing, place, isBlank: false, count + 1, found, cancellation);
        }

        if (!passing.IsEmpty && found.Count <= count && IsField(query) && !Asks(query.Filter, query.SortBy, test => !RecordSets.IsNegative(test)))
        {
            await ReadAsync(query, passing.Blank, place.IsBlank ? place : new(true, null, null), isBlank: true, count + 1 - found.Count, found, cancellation);
        }

        return new([.. found.Take(count).Select(one => one.Id)], found.Count > count ? ListPlace.Of(found[count - 1]).Written : null);
    }

    private static async Task<ImmutableDictionary<string, int>> TallyAsync(Passing passing, string column, CancellationToken cancellation)
    {
        if (!passing.Sets.Fields.TryGetValue(column, out var field))
        {
            return ImmutableDictionary<string, int>.Empty;
        }

        await using var command = passing.Sets.Command();
        command.CommandText = $"""SELECT s."Key", count(*) FROM "IndexedValues" AS s WHERE s."Field" = {field}{passing.Has("s.\"Record\"", command)}{passing.Holds("s.\"Record\"", command)} GROUP BY s."Key" """;
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
    private static string Sorted(RecordQuery query, SqliteCommand command) => ListColumn.Of(query.Type, query.SortBy) switch
    {
        { Key: ListColumn.Number } => "r.\"Id\"",
        { Key: ListColumn.ChangedAt } => "r.\"ChangedAt\"",
        { Key: ListColumn.ChangedBy } => "r.\"ChangedBy\"",
        { Key: ListColumn.Stage, Type: ChoiceType stages } => Position("r.\"Stage\"", [.. stages.Options.Select(option => command.Parameter(option.Key))]),
        { Key: ListColumn.Workflow, Type: ChoiceType workflows } => Position("r.\"Workflow\"", [.. workflows.Options.Select(option => command.Parameter(option.Key))]),
        { Type: ChoiceType choice } => Position("s.\"Key\"", [.. choice.Options.Select(option => command.Parameter(ListKey.Of(new Core.Values.Choice(option.Key))!))]),
        _ => "s.\"Key\"",
    };

    private static string Position(string what, string[] inOrder) =>
        $"CASE {what} {string.Concat(inOrder.Select((key, place) => string.Create(CultureInfo.InvariantCulture, $"WHEN {key} THEN {place} ")))}ELSE {inOrder.Length.ToString(CultureInfo.InvariantCulture)} END";

    private static async Task ReadAsync(RecordQuery query, Passing passing, ListPlace place, bool isBlank, int count, List<(object? Key, int Id)> found, CancellationToken cancellation)
    {
        var isField = IsField(query);
        if (isField && !isBlank && !passing.Sets.Fields.ContainsKey(query.SortBy))
        {
            return;
        }

        await using var command = passing.Sets.Command();
        var (from, id) = isField && !isBlank
            ? ($"""FROM "IndexedValues" AS s WHERE s."Field" = {passing.Sets.Fields[query.SortBy]}""", "s.\"Record\"")
            : ($"""FROM "Records" AS r WHERE r."RecordType" = {command.Parameter(query.Type.Key)}""", "r.\"Id\"");
        var key = isBlank ? "NULL" : Sorted(query, command);
        var (order, sign) = query.Descending ? ("DESC", "<") : ("ASC", ">");
        if (place.Id is { } last)
        {
            from += isBlank ? $" AND {id} {sign} {command.Parameter(last)}" : $" AND ({key}, {id}) {sign} ({command.Parameter(place.Key!)}, {command.Parameter(last)})";
        }

        // What has to be read to be judged is judged in order, until there is enough: a subquery with a limit is not taken apart.
        var (limit, holds) = (count.ToString(CultureInfo.InvariantCulture), passing.Holds("found.\"Id\"", command));
        command.CommandText = $"""
            SELECT "Key", "Id" FROM (
                SELECT {key} AS "Key", {id} AS "Id" {from}{passing.Has(id, command)}
                ORDER BY {(isBlank ? "" : $"{key} {order}, ")}{id} {order} LIMIT {(holds.Length == 0 ? limit : "-1")}) AS found
            WHERE 1{holds} LIMIT {limit}
            """;
        await using var reader = await command.ExecuteReaderAsync(cancellation);
        while (await reader.ReadAsync(cancellation))
        {
            found.Add((isBlank ? null : reader.GetValue(0), reader.GetInt32(1)));
        }
    }

    /// <summary>What passes filter and search, found once for all that is asked of it.</summary>
    private async Task<Passing> PassingAsync(RecordQuery query, CancellationToken cancellation)
    {
        await db.Database.OpenConnectionAsync(cancellation);
        var connection = (SqliteConnection)db.Database.GetDbConnection();
        await using var command = connection.CreateCommand();
        command.CommandText = $"""SELECT "Field", "Id" FROM "IndexedFields" WHERE "RecordType" = {command.Parameter(query.Type.Key)}""";
        await using var reader = await command.ExecuteReaderAsync(cancellation);
        var fields = new Dictionary<string, long>(StringComparer.Ordinal);
        while (await reader.ReadAsync(cancellation))
        {
            fields[reader.GetString(0)] = reader.GetInt64(1);
        }

        return Passing.Of(query, new(query.Type, fields, connection, query.Zone));
    }
}
