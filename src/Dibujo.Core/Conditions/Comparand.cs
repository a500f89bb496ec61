using System.Text.Json.Serialization;
using Dibujo.Core.Values;

namespace Dibujo.Core.Conditions;

/// <summary>What a subject is compared with, or what a value effect gives to a field.</summary>
[JsonPolymorphic(TypeDiscriminatorPropertyName = "kind")]
[JsonDerivedType(typeof(Literal), "literal")]
[JsonDerivedType(typeof(SubjectComparand), "subject")]
[JsonDerivedType(typeof(RelativeDay), "day")]
[JsonDerivedType(typeof(ExpressionComparand), "expression")]
public abstract record Comparand;

/// <summary>A fixed value; the key of a choice, stage, move, form, channel or role.</summary>
public sealed record Literal(Value Value) : Comparand;

/// <summary>What another subject is at the same moment.</summary>
public sealed record SubjectComparand(Subject Subject) : Comparand;

/// <summary>A day counted from today.</summary>
/// <param name="Amount">How many units after today; negative for before, 0 for today itself.</param>
/// <param name="Unit">What is counted. Months and years end on the last day of a shorter month.</param>
public sealed record RelativeDay(int Amount, DayUnit Unit = DayUnit.Days) : Comparand
{
    /// <summary>The day, counted from that one; as close as the calendar goes where it ends.</summary>
    public DateOnly From(DateOnly today) => Unit switch
    {
        DayUnit.Days => DateOnly.FromDayNumber((int)Math.Clamp(today.DayNumber + (long)Amount, 0, DateOnly.MaxValue.DayNumber)),
        DayUnit.Months => today.AddMonths(Months(today, Amount)),
        _ => today.AddMonths(Months(today, 12L * Amount)),
    };

    private static int Months(DateOnly today, long months)
    {
        var at = (today.Year * 12L) + today.Month - 1;
        return (int)(Math.Clamp(at + months, 12, (9999 * 12) + 11) - at);
    }
}

/// <summary>What is counted in a <see cref="RelativeDay"/>.</summary>
[JsonConverter(typeof(CamelCaseEnum<DayUnit>))]
public enum DayUnit
{
    /// <summary>Calendar days.</summary>
    Days,

    /// <summary>Calendar months.</summary>
    Months,

    /// <summary>Calendar years.</summary>
    Years,
}

/// <summary>The result of an expression; see <see cref="Expressions.Expression"/> for what can be written.</summary>
public sealed record ExpressionComparand(string Expression) : Comparand;
