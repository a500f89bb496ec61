using Dibujo.Core.Conditions;
using Dibujo.Core.Records;
using Dibujo.Core.Rules;

namespace Dibujo.Core.Checking;

/// <summary>Whether a decision table is well formed, and whether its rows keep what its hit policy promises.</summary>
internal sealed class TableCheck(
    RecordType type, ComparandCheck comparands, ConditionCheck conditions, EffectCheck effects, ProblemList problems)
{
    /// <summary>Each row is compared with each other, also while somebody types.</summary>
    internal const int MostRows = 1000;

    private const int MostOverlapsTold = 20;

    internal void Check(string place, DecisionTable table)
    {
        if (table.Rows.Length > MostRows)
        {
            problems.Add($"{place}/rows", $"The table has {table.Rows.Length:N0} rows.", $"Divide it into tables of at most {MostRows:N0}.");
            return;
        }

        var before = problems.Count;
        var drivers = CheckDrivers(place, table);
        foreach (var (i, output) in table.Outputs.Index())
        {
            CheckOutput($"{place}/outputs/{i}", output);
        }

        if (table.Outputs.IsEmpty || table.Rows.IsEmpty)
        {
            problems.Add(place, "The table says nothing.", "Give it at least one output and one row.");
        }

        foreach (var (i, row) in table.Rows.Index())
        {
            CheckRow($"{place}/rows/{i}", table, drivers, row);
        }

        if (problems.Count == before && table.Hit != HitPolicy.First)
        {
            CheckOverlaps(place, table);
        }
    }

    private FieldType?[] CheckDrivers(string place, DecisionTable table)
    {
        if (table.Drivers.IsEmpty)
        {
            problems.Add($"{place}/drivers", "The table looks at nothing.", "Name what its rows depend on.");
        }

        var types = new FieldType?[table.Drivers.Length];
        foreach (var (i, driver) in table.Drivers.Index())
        {
            types[i] = comparands.CheckSubject($"{place}/drivers/{i}", driver);
        }

        return types;
    }

    private void CheckOutput(string place, Output output)
    {
        switch (output)
        {
            case StateOutput states:
                effects.CheckTargets($"{place}/targets", states.Targets);
                break;
            case ValueOutput value:
                effects.CheckField($"{place}/field", value.Field);
                break;
            case ChoicesOutput choices:
                effects.CheckOptions(place, choices.Field, []);
                break;
            default:
                break;
        }
    }

    private void CheckRow(string place, DecisionTable table, FieldType?[] drivers, Row row)
    {
        if (row.If.Length != table.Drivers.Length || row.Then.Length != table.Outputs.Length)
        {
            problems.Add(place, "The row has not as many cells as the table has columns.",
                $"Give it {table.Drivers.Length} tests and {table.Outputs.Length} answers.");
            return;
        }

        foreach (var (i, cell) in row.If.Index())
        {
            if (cell.Test is { } test && drivers[i] is { } driver)
            {
                conditions.CheckTest($"{place}/if/{i}", new Clause(table.Drivers[i], test) { Comparands = cell.Comparands }, driver);
            }
        }

        foreach (var (i, answer) in row.Then.Index())
        {
            CheckAnswer($"{place}/then/{i}", table.Outputs[i], answer);
        }
    }

    private void CheckAnswer(string place, Output output, Answer answer)
    {
        switch (output, answer)
        {
            case (_, NoAnswer):
                break;
            case (StateOutput { Targets: { IsEmpty: false } targets }, StateAnswer { States.IsEmpty: false }):
                effects.Check($"{place}/states", [.. output.Effects(answer)]);
                break;
            case (StateOutput, StateAnswer):
                break;
            case (ValueOutput value, ValueAnswer { Value: var given }):
                effects.CheckValue(place, value.Field, $"{place}/value", given);
                break;
            case (ChoicesOutput choices, ChoicesAnswer { Options: var options }):
                effects.CheckOptions(place, choices.Field, options);
                break;
            case (MessageOutput, TextAnswer { Text: var text }):
                effects.CheckText($"{place}/text", text);
                break;
            default:
                problems.Add(place, "The answer is of another kind than its column.", "Give states, a value, choices or text, as the column asks.");
                break;
        }
    }

    private void CheckOverlaps(string place, DecisionTable table)
    {
        var clashes = RowOverlap.Of(table, type)
            .Where(pair => table.Hit == HitPolicy.Unique || !table.Rows[pair.Upper].Then.SequenceEqual(table.Rows[pair.Lower].Then));
        foreach (var (upper, lower, example) in clashes.Take(MostOverlapsTold))
        {
            problems.Add($"{place}/rows/{lower}",
                $"Row {lower + 1} and row {upper + 1} both match, as for {example}{(table.Hit == HitPolicy.Any ? ", and say different things" : "")}.",
                "Make their tests exclude each other, or let the first row win.");
        }
    }
}
