using System.Collections.Immutable;
using Dibujo.Core.Conditions;
using Dibujo.Core.Records;
using Dibujo.Core.Values;

namespace Dibujo.Core.Checking;

/// <summary>
/// Values at which the answer of a test can change: between two of them that are neighbours it is the same for all. So
/// whether some value passes two tests can be told by asking about these.
/// </summary>
internal static class Watersheds
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
            NumberType or MoneyType => Around(comparands.OfType<Number>().Select(n => n.Amount)).Select(n => new Number(n)),
            DateType => Around(comparands.OfType<Date>().Select(d => (decimal)d.Day.DayNumber)).Where(n => n is >= 0 and <= 3_652_058)
                .Select(n => new Date(DateOnly.FromDayNumber((int)n))),
            DateTimeType => Around(comparands.OfType<Moment>().Select(m => (decimal)(m.At.Ticks / TimeSpan.TicksPerSecond)))
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
        ([Choices, ..], [Choices, ..]) => [Union(one, other)],
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

    private static Choices Union(FixedTest one, FixedTest other) => new(
        [.. one.Comparands.Concat(other.Comparands).SelectMany(value => value is Choices several ? several.Keys : [value.Plain]).Distinct(StringComparer.Ordinal)]);

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
}
