using Dibujo.Core.Conditions;
using Dibujo.Core.Listing;
using Dibujo.Core.Records;
using Dibujo.Core.Values;
using Microsoft.Data.Sqlite;

namespace Dibujo.Store.Listing;

/// <summary>Writes a positive test on a column as a query for the numbers of the records that pass it.</summary>
/// <param name="type">The record type.</param>
/// <param name="fields">The numbers by which the index calls its fields.</param>
/// <param name="command">Takes the values that are compared.</param>
/// <param name="zone">The site's time, in which days and moments are meant.</param>
internal sealed class TestSql(RecordType type, IReadOnlyDictionary<string, long> fields, SqliteCommand command, TimeZoneInfo zone)
{
    /// <summary>The query; its values have been fitted to the column.</summary>
    internal string Of(ListColumn column, Test test, Value[] values)
    {
        var records = $"""SELECT "Id" FROM "Records" WHERE "RecordType" = {command.Parameter(type.Key)} AND """;
        return column.Key switch
        {
            ListColumn.Number => records + Compared("\"Id\"", test, [.. values.Select(value => (object)(value is Number number ? (double)number.Amount : -1))]),
            ListColumn.Workflow => records + Compared("\"Workflow\"", test, Plain(values)),
            ListColumn.ChangedBy => records + Compared("\"ChangedBy\"", test, Plain(values)),
            ListColumn.ChangedAt => records + Lasting("\"ChangedAt\"", test, [.. values.Select(Stored)]),
            ListColumn.Stage => records + Stages(test, values),
            _ when test == Test.Complete => Indexed(Standing.CompleteKeyOf(column.Key), "1"),
            _ when column.Type is DateTimeType && values.Any(value => value is Date) => Indexed(column.Key, Lasting("\"Key\"", test, [.. values.Select(Keys)])),
            _ => Indexed(column.Key, Keyed(test, values)),
        };
    }

    /// <summary>The records that the index has under a column, those whose key is like that; none where no record has a value there.</summary>
    private string Indexed(string column, string keyed) =>
        fields.TryGetValue(column, out var field) ? $"""SELECT "Record" FROM "IndexedValues" WHERE "Field" = {field} AND {keyed}""" : "SELECT 0 WHERE 0";

    /// <summary>A test on the keys of the index, in which there is nothing that is blank.</summary>
    private string Keyed(Test test, Value[] values)
    {
        if (test != Test.FilledIn && values.Any(value => value.IsBlank))
        {
            return "0";
        }

        return test switch
        {
            Test.FilledIn => "1",
            // Behind the first byte, which says of what kind the key is.
            Test.Contains => $"instr(substr(\"Key\", 2), {command.Parameter(ListKey.Within(values[0].Plain))}) > 0",
            Test.StartsWith => $"substr(\"Key\", 1, {ListKey.Beginning(values[0].Plain).Length}) = {command.Parameter(ListKey.Beginning(values[0].Plain))}",
            Test.IncludesAny => "(" + string.Join(" OR ", Chosen(values).Select(Includes)) + ")",
            Test.IncludesAll => "(" + string.Join(" AND ", Chosen(values).Select(Includes)) + ")",
            _ => Compared("\"Key\"", test, [.. values.Select(value => (object)ListKey.Of(value)!)]),
        };

        string Includes(string choice) => $"instr(\"Key\", {command.Parameter(ListKey.Among(choice))}) > 0";
    }

    private static IEnumerable<string> Chosen(Value[] values) => values.SelectMany(value => value is Choices several ? [.. several.Keys] : new[] { value.Plain });

    private string Compared(string what, Test test, object[] values) => test switch
    {
        Test.Is => $"{what} = {command.Parameter(values[0])}",
        Test.OneOf => $"{what} IN ({string.Join(", ", values.Select(command.Parameter))})",
        Test.LessThan or Test.Before => $"{what} < {command.Parameter(values[0])}",
        Test.AtMost or Test.OnOrBefore => $"{what} <= {command.Parameter(values[0])}",
        Test.AtLeast or Test.FromOn => $"{what} >= {command.Parameter(values[0])}",
        Test.MoreThan or Test.After => $"{what} > {command.Parameter(values[0])}",
        Test.Between => $"{what} BETWEEN {command.Parameter(values[0])} AND {command.Parameter(values[1])}",
        _ => throw new ArgumentOutOfRangeException(nameof(test)),
    };

    /// <summary>Stages are compared by their places in the workflow that the record is in; one that it lacks makes the test false.</summary>
    private string Stages(Test test, Value[] values) => "(" + string.Join(" OR ", type.Workflows.Select(workflow =>
    {
        int[] places = [.. values.Select(value => workflow.Position(value.Plain)).Where(place => place >= 0)];
        var found = workflow.Stages.Where((_, place) => places.Any(compared => test switch
        {
            Test.Before => place < compared,
            Test.After => place > compared,
            Test.FromOn => place >= compared,
            _ => place == compared,
        })).Select(stage => command.Parameter(stage.Key)).ToList();
        return found.Count == 0 ? "0" : $"\"Workflow\" = {command.Parameter(workflow.Key)} AND \"Stage\" IN ({string.Join(", ", found)})";
    })) + ")";

    private static object[] Plain(Value[] values) => [.. values.Select(value => (object)value.Plain)];

    /// <summary>Something beside days and moments: either lasts from its beginning to before its end.</summary>
    private string Lasting(string what, Test test, (object From, object To)[] values) => test switch
    {
        Test.OneOf => "(" + string.Join(" OR ", values.Select(value => $"({Lasting(what, Test.Is, [value])})")) + ")",
        Test.Before => $"{what} < {command.Parameter(values[0].From)}",
        Test.OnOrBefore => $"{what} < {command.Parameter(values[0].To)}",
        Test.FromOn => $"{what} >= {command.Parameter(values[0].From)}",
        Test.After => $"{what} >= {command.Parameter(values[0].To)}",
        Test.FilledIn => "1",
        _ => $"{what} >= {command.Parameter(values[0].From)} AND {what} < {command.Parameter(values[^1].To)}",
    };

    /// <summary>Of a value in the index: a moment's key begins with its day.</summary>
    private static (object From, object To) Keys(Value value) => value is Date { Day: var day } && day < DateOnly.MaxValue
        ? (ListKey.Of(value)!, ListKey.Of(new Date(day.AddDays(1)))!)
        : (ListKey.Of(value)!, (byte[])[.. ListKey.Of(value)!, 0]);

    private (object From, object To) Stored(Value value) => value switch
    {
        Moment moment => (zone.ToUtc(moment.At), zone.ToUtc(moment.At < DateTime.MaxValue.AddSeconds(-1) ? moment.At.AddSeconds(1) : DateTime.MaxValue)),
        Date date => (zone.ToUtc(date.Day), zone.ToUtc(date.Day.AddDays(date.Day == DateOnly.MaxValue ? 0 : 1))),
        _ => (DateTime.MinValue, DateTime.MinValue),
    };
}
