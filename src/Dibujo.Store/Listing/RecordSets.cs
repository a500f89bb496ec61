using System.Collections;
using System.Globalization;
using Dibujo.Core.Conditions;
using Dibujo.Core.Listing;
using Dibujo.Core.Records;
using Microsoft.Data.Sqlite;

namespace Dibujo.Store.Listing;

/// <summary>
/// Sets of records of a type by their numbers: those that pass a filter, and those that a query finds. Each test is a set that the
/// index gives, and a negative one is everything but that set, so a record in which the column is blank passes it. Sets of bits
/// are taken together in no time, where the database would sort each of them first.
/// </summary>
/// <param name="type">The record type. Records of other types are in some sets: whoever asks looks among those of the type.</param>
/// <param name="fields">The numbers by which the index calls its fields.</param>
/// <param name="connection">Where the records are; open.</param>
/// <param name="zone">The site's time.</param>
internal sealed class RecordSets(RecordType type, IReadOnlyDictionary<string, long> fields, SqliteConnection connection, TimeZoneInfo zone)
{
    /// <summary>How many bits a set has: one more than the highest number.</summary>
    private readonly int count = CountOf(connection);

    /// <summary>The numbers by which the index calls its fields.</summary>
    internal IReadOnlyDictionary<string, long> Fields => fields;

    /// <summary>A command to be written for the database in which they are.</summary>
    internal SqliteCommand Command() => connection.CreateCommand();

    /// <summary>The records that pass.</summary>
    internal BitArray Of(Filter filter)
    {
        if (filter is FilterClause clause)
        {
            return Of(clause);
        }

        var group = (FilterGroup)filter;
        var isAll = group.Quantifier == Quantifier.AllOf;
        var passing = new BitArray(count, isAll);
        foreach (var member in group.Members)
        {
            passing = isAll ? passing.And(Of(member)) : passing.Or(Of(member));
            if (isAll ? !passing.HasAnySet() : passing.HasAllSet())
            {
                break;
            }
        }

        return group.Quantifier == Quantifier.NoneOf ? passing.Not() : passing;
    }

    /// <summary>The records whose numbers a query gives.</summary>
    internal BitArray Found(SqliteCommand query)
    {
        var found = new BitArray(count);
        using var reader = query.ExecuteReader();
        while (reader.Read())
        {
            // One that was begun since is not looked for.
            if (reader.GetInt32(0) is var record && record < count)
            {
                found[record] = true;
            }
        }

        return found;
    }

    /// <summary>Whether a record passes the test in which the column is blank.</summary>
    internal static bool IsNegative(Test test) => Positive(test).IsNegated;

    private static int CountOf(SqliteConnection connection)
    {
        using var highest = connection.CreateCommand();
        highest.CommandText = """SELECT ifnull(max("Id"), 0) + 1 FROM "Records" """;
        return Convert.ToInt32(highest.ExecuteScalar(), CultureInfo.InvariantCulture);
    }

    private BitArray Of(FilterClause clause)
    {
        var column = ListColumn.Of(type, clause.Of)!;
        var (positive, isNegated) = Positive(clause.Test);
        using var command = Command();
        command.CommandText = new TestSql(type, fields, command, zone).Of(column, positive, [.. clause.Values.Select(value => column.Fit(value)!)]);
        var passing = Found(command);
        return isNegated ? passing.Not() : passing;
    }

    private static (Test Positive, bool IsNegated) Positive(Test test) => test switch
    {
        Test.IsNot => (Test.Is, true),
        Test.NoneOf => (Test.OneOf, true),
        Test.DoesNotContain => (Test.Contains, true),
        Test.DoesNotStartWith => (Test.StartsWith, true),
        Test.IncludesNone => (Test.IncludesAny, true),
        Test.DoesNotIncludeAll => (Test.IncludesAll, true),
        Test.NotBetween => (Test.Between, true),
        Test.Blank => (Test.FilledIn, true),
        Test.Incomplete => (Test.Complete, true),
        _ => (test, false),
    };
}
