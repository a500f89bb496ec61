using Dibujo.Core.Records;

namespace Dibujo.Core.Expressions;

/// <summary>What is known of an expression's result before it is evaluated.</summary>
internal enum FeelType
{
    /// <summary>Nothing is known, or it is always null.</summary>
    Any,
    Number,
    Text,
    Boolean,
    Date,
    DateTime,
    DaysDuration,
    MonthsDuration,
    List,
    Range,
}

internal static class FeelTypes
{
    internal static FeelType Of(FieldType type) => type switch
    {
        NumberType or MoneyType or LinkType => FeelType.Number,
        YesNoType => FeelType.Boolean,
        DateType => FeelType.Date,
        DateTimeType => FeelType.DateTime,
        ChoicesType => FeelType.List,
        CompoundType => FeelType.Any,
        _ => FeelType.Text,
    };

    /// <summary>Whether a field of that type can take a result of this one.</summary>
    internal static bool Fits(FeelType result, FieldType type) => result == FeelType.Any || type switch
    {
        DateType or DateTimeType => result is FeelType.Date or FeelType.DateTime,
        ChoicesType => result is FeelType.List or FeelType.Text,
        CompoundType => false,
        _ => result == Of(type),
    };

    internal static string Noun(this FeelType type) => type switch
    {
        FeelType.Number => "a number",
        FeelType.Text => "text",
        FeelType.Boolean => "true or false",
        FeelType.Date => "a date",
        FeelType.DateTime => "a date and time",
        FeelType.DaysDuration => "a duration of days and time",
        FeelType.MonthsDuration => "a duration of years and months",
        FeelType.List => "a list",
        FeelType.Range => "a range",
        _ => "a value",
    };
}
