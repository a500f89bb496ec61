using System.Text.Json.Serialization;
using Dibujo.Core.Notations;

namespace Dibujo.Core.Inference;

/// <summary>How a column writes dates and numbers, which a single cell may not tell.</summary>
/// <param name="Dates">Which comes first where a date is all digits and does not begin with the year.</param>
/// <param name="Decimals">What stands before the fraction; the other mark, spaces and apostrophes set off thousands.</param>
public sealed record CellFormat(DateOrder Dates = DateOrder.DayFirst, DecimalMark Decimals = DecimalMark.Point)
{
    /// <summary>All there are, by order and mark: they are asked for at every cell.</summary>
    private static readonly Notation[,] Notations = { { Make("en-GB", 0), Make("en-GB", 1) }, { Make("en-US", 0), Make("en-US", 1) } };

    /// <summary>The same as a notation: what a cell leaves open the column as a whole has told.</summary>
    [JsonIgnore]
    public Notation Notation => Notations[Dates == DateOrder.DayFirst ? 0 : 1, Decimals == DecimalMark.Point ? 0 : 1];

    private static Notation Make(string language, int marks) => Languages.Of(language) with { Marks = NumberMarks.All[marks], IsDecided = true };
}

/// <summary>What comes first in a date such as 03/04/2026.</summary>
[JsonConverter(typeof(CamelCaseEnum<DateOrder>))]
public enum DateOrder
{
    /// <summary>3 April.</summary>
    DayFirst,

    /// <summary>4 March.</summary>
    MonthFirst,
}

/// <summary>What stands before the fraction of a number.</summary>
[JsonConverter(typeof(CamelCaseEnum<DecimalMark>))]
public enum DecimalMark
{
    /// <summary>1,234.5.</summary>
    Point,

    /// <summary>1.234,5.</summary>
    Comma,
}
