using System.Collections.Immutable;
using Dibujo.Core.Conditions;
using Dibujo.Core.Records;
using Dibujo.Core.Values;

namespace Dibujo.Core.Checking;

/// <summary>
/// Values at which the answer of a test can change: between two of them that are neighbours it is the same for all. So
/// whether some value passes two tests can be told by asking about these.
/// </summary>
internal static class BoundaryValues
{
    private static readonly Text Other = new("something else");

    /// <summary>Those that one comparand makes, what lies next to and between them, every choice, and blank where it can be.</summary>
    internal static IEnumerable<Value> Of(Subject subject, FieldType type, ImmutableArray<Value> comparands)
    {
        IEnumerable<Value> usual = type switch
        {
            YesNoType => [new YesNo(true), new YesNo(false)],
            ChoiceType choice => choice.Options.Select(o => new Choice(o.Key)),
            ChoicesType several => several.Options.Select(o => new Choices([o.Key])).Append(new Choices([.. several.Options.Select(o => o.Key)])).Concat(comparands),
            NumberType number => Around(comparands, number.Scale, number.Min, number.Max),
            MoneyType money => Around(comparands, 2, money.Min, money.Max),
            DateType => Around(comparands.OfType<Date>().Select(d => (decimal)d.Day.DayNumber), 1).Where(n => n is >= 0 and <= 3_652_058)
                .Select(n => new Date(DateOnly.FromDayNumber((int)n))),
            DateTimeType => Around(comparands.OfType<Moment>().Select(m => (decimal)(m.At.Ticks / TimeSpan.TicksPerSecond)), 1)
                .Where(n => n is >= 0 and <= 315_537_897_599).Select(n => new Moment(new((long)n * TimeSpan.TicksPerSecond))),
            CompoundType compound => [compound.Parts.Aggregate(Compound.Empty, (c, p) => c.With(p.Key, new Text("x"))), Compound.Empty.With(compound.Parts[^1].Key, new Text("x"))],
            PersonType => comparands.Append(new Person("somebody-else")),
            LinkType => comparands.Append(new Link(int.MaxValue)),
            _ => comparands.Append(Other),
        };
        return (subject is FieldSubject or LinkedSubject or MoveSubject or RoleSubject ? usual.Append(Value.Blank) : usual).Distinct();
    }

    /// <summary>Those that two comparands make together: text in which both stand, sets that hold both.</summary>
    internal static IEnumerable<Value> Between(FixedTest one, FixedTest other) => (one.Comparands, other.Comparands) switch
    {
        _ when IsSearch(one) || IsSearch(other) => Texts([.. Sought(one), .. Sought(other)]),
        ([Choices, ..], [Choices, ..]) => [Union(one, other), Union(one), Union(other)],
        // A person may have several roles.
        ([Choice, ..], [Choice, ..]) when one.Subject is RoleSubject => [Union(one, other)],
        _ => [],
    };

    private static bool IsSearch(FixedTest test) => test.Test is Test.Contains or Test.DoesNotContain or Test.StartsWith or Test.DoesNotStartWith;

    private static ImmutableArray<Value> Sought(FixedTest test) => IsSearch(test) ? test.Comparands : [];

    private static IEnumerable<Value> Texts(ImmutableArray<Value> sought) =>
        from first in sought.Add(Other)
        from second in sought.Add(Other)
        where first != second
        select (Value)new Text($"{first.Plain} {second.Plain}");

    private static Choices Union(params FixedTest[] tests) => new(
        [.. tests.SelectMany(test => test.Comparands).SelectMany(value => value is Choices several ? several.Keys : [value.Plain]).Distinct(StringComparer.Ordinal)]);

    /// <summary>Amounts that the field can hold: with so many digits after the point, and within its limits.</summary>
    private static IEnumerable<Number> Around(ImmutableArray<Value> comparands, int scale, decimal? min, decimal? max)
    {
        var step = new decimal(1, 0, 0, isNegative: false, (byte)Math.Clamp(scale, 0, 12));
        return Around(comparands.OfType<Number>().Select(n => n.Amount).Append(min ?? 0), step)
            .Where(n => !(n < min) && !(n > max)).Select(n => new Number(n));
    }

    /// <summary>What can be held at the numbers and next to them: between those of one number and the next, every answer is the same.</summary>
    private static IEnumerable<decimal> Around(IEnumerable<decimal> numbers, decimal step)
    {
        const decimal Far = 1_000_000_000_000_000;
        var sorted = numbers.DefaultIfEmpty().Select(n => Math.Clamp(n, -Far, Far)).Distinct().Order().ToList();
        yield return (decimal.Floor(sorted[0] / step) * step) - step;
        foreach (var number in sorted)
        {
            var above = decimal.Ceiling(number / step) * step;
            yield return decimal.Floor(number / step) * step;
            yield return above;
            yield return above + step;
        }
    }
}
