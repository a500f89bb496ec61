using System.Collections.Immutable;
using System.Globalization;
using Dibujo.Core.Conditions;
using Dibujo.Core.Evaluation;
using Dibujo.Core.Records;
using Dibujo.Core.Rules;
using Dibujo.Core.Sentences;
using Dibujo.Core.Values;

namespace Dibujo.Core.Checking;

/// <summary>Finds rows of a decision table that can match the same record, with values for which they do.</summary>
/// <remarks>
/// Two rows overlap if on every driver some value passes both cells. Whether one does is decided on the values at which
/// a cell's answer can change: its comparands, what lies next to and between them, blank, and every choice. A comparand that
/// is not fixed could be any value: such cells are taken to overlap with nothing that they name differently.
/// </remarks>
internal static class RowOverlap
{
    internal static IEnumerable<(int Upper, int Lower, string Example)> Of(DecisionTable table, RecordType type)
    {
        var subjects = new SubjectTypes(type);
        var labels = new Labels(type);
        var columns = table.Drivers.Select((driver, i) => new Column(driver, subjects.Of(driver)!, [.. table.Rows.Select(r => r.If[i])], type)).ToArray();
        for (var lower = 1; lower < table.Rows.Length; lower++)
        {
            for (var upper = 0; upper < lower; upper++)
            {
                var witnesses = columns.Select(column => column.Witness(upper, lower)).ToArray();
                if (Array.TrueForAll(witnesses, w => w is not null))
                {
                    yield return (upper, lower, string.Join(", ", witnesses.Select((w, i) =>
                        $"{labels.Of(table.Drivers[i])} {(w!.IsBlank ? "blank" : columns[i].Type.Display(w))}")));
                }
            }
        }
    }

    /// <summary>One driver with its cells and, for each of them, the values that pass.</summary>
    private sealed class Column
    {
        private readonly Value[] candidates;
        private readonly bool[][] passes;
        private readonly ImmutableArray<Cell> cells;

        internal Column(Subject driver, FieldType type, ImmutableArray<Cell> cells, RecordType recordType)
        {
            Type = type;
            this.cells = cells;
            candidates = [.. Candidates(driver, type, cells).Distinct()];
            passes = [.. cells.Select(cell => IsFixed(cell) ? Passing(driver, cell, recordType) : [])];
        }

        internal FieldType Type { get; }

        /// <summary>A value that passes the cells of both rows; null if there is none.</summary>
        internal Value? Witness(int upper, int lower)
        {
            if (!IsFixed(cells[upper]) || !IsFixed(cells[lower]))
            {
                // Not decidable here: the same test on the same comparand surely overlaps, others are given the benefit.
                return cells[upper].Test is null || cells[lower].Test is null || cells[upper].Equals(cells[lower]) ? candidates[0] : null;
            }

            for (var i = 0; i < candidates.Length; i++)
            {
                if (passes[upper][i] && passes[lower][i])
                {
                    return candidates[i];
                }
            }

            return null;
        }

        private static bool IsFixed(Cell cell) => cell.Comparands.All(c => c is Literal);

        private bool[] Passing(Subject driver, Cell cell, RecordType recordType) => cell.Test is { } test
            ? [.. candidates.Select(value => ClauseOnValue.Holds(driver, test, cell.Comparands, value, recordType))]
            : [.. candidates.Select(_ => true)];

        private static IEnumerable<Value> Candidates(Subject driver, FieldType type, ImmutableArray<Cell> cells)
        {
            var literals = cells.SelectMany(c => c.Comparands).OfType<Literal>().Select(l => type.Fit(l.Value)).OfType<Value>().ToList();
            var usual = type switch
            {
                YesNoType => [new YesNo(true), new YesNo(false)],
                ChoiceType choice => choice.Options.Select(o => (Value)new Choice(o.Key)),
                ChoicesType several => Sets(several, [.. cells.Select(c => c.Comparands.OfType<Literal>().Select(l => l.Value.Plain).ToHashSet(StringComparer.Ordinal))]),
                NumberType or MoneyType => Around(literals.OfType<Number>().Select(n => n.Amount)).Select(n => (Value)new Number(n)),
                DateType => Around(literals.OfType<Date>().Select(d => (decimal)d.Day.DayNumber)).Where(n => n is >= 0 and <= 3_652_058)
                    .Select(n => (Value)new Date(DateOnly.FromDayNumber((int)n))),
                DateTimeType => Around(literals.OfType<Moment>().Select(m => (decimal)(m.At.Ticks / TimeSpan.TicksPerSecond)))
                    .Where(n => n is >= 0 and <= 315_537_897_599).Select(n => (Value)new Moment(new((long)n * TimeSpan.TicksPerSecond))),
                CompoundType compound => [compound.Parts.Aggregate(Compound.Empty, (c, p) => c.With(p.Key, new Text("x"))), Compound.Empty.With(compound.Parts[^1].Key, new Text("x"))],
                PersonType => literals.Append(new Person("somebody-else")),
                LinkType => literals.Append(new Link(int.MaxValue)),
                _ => Texts([.. literals.Select(l => l.Plain)]),
            };
            return driver is FieldSubject or LinkedSubject or MoveSubject ? usual.Append(Value.Blank) : usual;
        }

        /// <summary>The numbers, what lies between neighbours, and what lies beyond the outermost.</summary>
        private static IEnumerable<decimal> Around(IEnumerable<decimal> numbers)
        {
            var sorted = numbers.Distinct().Order().ToList();
            if (sorted.Count == 0)
            {
                return [0];
            }

            const decimal Far = 1_000_000_000_000_000;
            var between = sorted.Zip(sorted.Skip(1)).Select(pair => (pair.First / 2) + (pair.Second / 2));
            return sorted.Concat(between).Append(Math.Max(sorted[0], -Far) - 1).Append(Math.Min(sorted[^1], Far) + 1);
        }

        /// <summary>What each two cells name: together, and the one without the other; and every choice alone and all together.</summary>
        private static IEnumerable<Value> Sets(ChoicesType several, List<HashSet<string>> named) =>
            several.Options.Select(o => (IEnumerable<string>)[o.Key]).Append(several.Options.Select(o => o.Key))
                .Concat(named.SelectMany(one => named.SelectMany(other => new[] { one.Union(other, StringComparer.Ordinal), one.Except(other, StringComparer.Ordinal) })))
                .Select(keys => keys.ToImmutableArray()).Where(keys => !keys.IsEmpty).Select(keys => (Value)new Choices(keys));

        private static IEnumerable<Value> Texts(List<string> texts) =>
            texts.Concat(texts.SelectMany(one => texts.Select(other => one + " " + other)))
                .Append("something else " + texts.Count.ToString(CultureInfo.InvariantCulture)).Select(text => (Value)new Text(text));
    }
}
