using System.Collections.Immutable;

namespace Dibujo.Core.Notations;

/// <summary>How a day is written: <c>d</c> and <c>M</c> in digits, two of them with a zero before where one would do, <c>MMM</c> the month's name, <c>yyyy</c> the year.</summary>
/// <param name="Text">The pattern.</param>
/// <param name="Order">What comes first where it is all digits.</param>
public sealed record DayPattern(string Text, DayOrder Order)
{
    /// <summary>All that there are.</summary>
    public static readonly ImmutableArray<DayPattern> All =
    [
        new("d MMM yyyy", DayOrder.DayFirst),
        new("d. MMM yyyy", DayOrder.DayFirst),
        new("MMM d, yyyy", DayOrder.MonthFirst),
        new("dd.MM.yyyy", DayOrder.DayFirst),
        new("d.M.yyyy", DayOrder.DayFirst),
        new("dd/MM/yyyy", DayOrder.DayFirst),
        new("dd-MM-yyyy", DayOrder.DayFirst),
        new("MM/dd/yyyy", DayOrder.MonthFirst),
        new("yyyy/MM/dd", DayOrder.YearFirst),
        new("yyyy-MM-dd", DayOrder.YearFirst),
    ];

    /// <summary>The pattern of that text; null for one that there is not.</summary>
    public static DayPattern? Find(string? text) => All.FirstOrDefault(pattern => pattern.Text == text);
}

/// <summary>What comes first in a date of digits.</summary>
public enum DayOrder
{
    /// <summary>3/4 is 3 April.</summary>
    DayFirst,

    /// <summary>3/4 is 4 March.</summary>
    MonthFirst,

    /// <summary>The year, then month and day: of a date that ends with the year it says nothing.</summary>
    YearFirst,
}

/// <summary>How a time of day is written.</summary>
public enum Clock
{
    /// <summary>14:30.</summary>
    Hours24,

    /// <summary>2:30 PM.</summary>
    Hours12,
}
