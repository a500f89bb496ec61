namespace Dibujo.Core.Expressions;

/// <summary>What operators answer. Whatever cannot be calculated, too large a number included, is null and never an error.</summary>
internal static class Arithmetic
{
    internal static FeelValue Negate(FeelValue value) => value switch
    {
        FeelNumber number => new FeelNumber(-number.Amount),
        FeelDaysDuration days => new FeelDaysDuration(-days.Seconds),
        FeelMonthsDuration months => new FeelMonthsDuration(-months.Months),
        _ => FeelValue.Null,
    };

    internal static FeelValue Apply(string op, FeelValue left, FeelValue right)
    {
        try
        {
            return op switch
            {
                "+" => Add(left, right),
                "-" => Subtract(left, right),
                "*" => Multiply(left, right),
                "/" => Divide(left, right),
                _ => Raise(left, right),
            };
        }
        catch (OverflowException)
        {
            return FeelValue.Null;
        }
    }

    /// <summary>Less than 0, 0 or more than 0; null where the two have no order.</summary>
    internal static int? Compare(FeelValue left, FeelValue right) => (left, right) switch
    {
        (FeelNumber a, FeelNumber b) => a.Amount.CompareTo(b.Amount),
        (FeelText a, FeelText b) => string.CompareOrdinal(a.Content, b.Content),
        (FeelDate a, FeelDate b) => a.Day.CompareTo(b.Day),
        (FeelDateTime a, FeelDateTime b) => a.At.CompareTo(b.At),
        (FeelDaysDuration a, FeelDaysDuration b) => a.Seconds.CompareTo(b.Seconds),
        (FeelMonthsDuration a, FeelMonthsDuration b) => a.Months.CompareTo(b.Months),
        _ => null,
    };

    /// <summary>Null where values of different kinds are compared; null itself equals null.</summary>
    internal static bool? AreEqual(FeelValue left, FeelValue right) =>
        left is FeelNull || right is FeelNull ? left is FeelNull && right is FeelNull
        : left is FeelBoolean or FeelList or FeelRange && left.GetType() == right.GetType() ? left.Equals(right)
        : Compare(left, right) is { } order ? order == 0
        : null;

    private static FeelValue Add(FeelValue left, FeelValue right) => (left, right) switch
    {
        (FeelNumber a, FeelNumber b) => new FeelNumber(a.Amount + b.Amount),
        (FeelText a, FeelText b) => a.Content.Length + b.Content.Length <= BuiltIn.MostText ? new FeelText(a.Content + b.Content) : FeelValue.Null,
        (FeelDate a, FeelDaysDuration b) => Temporal.Add(a.Day, b.Seconds),
        (FeelDate a, FeelMonthsDuration b) => Temporal.AddMonths(a.Day, b.Months),
        (FeelDateTime a, FeelDaysDuration b) => Temporal.Add(a.At, b.Seconds),
        (FeelDateTime a, FeelMonthsDuration b) => Temporal.AddMonths(a.At, b.Months),
        (FeelDaysDuration, FeelDate or FeelDateTime) or (FeelMonthsDuration, FeelDate or FeelDateTime) => Add(right, left),
        (FeelDaysDuration a, FeelDaysDuration b) => new FeelDaysDuration(a.Seconds + b.Seconds),
        (FeelMonthsDuration a, FeelMonthsDuration b) => new FeelMonthsDuration(checked(a.Months + b.Months)),
        _ => FeelValue.Null,
    };

    private static FeelValue Subtract(FeelValue left, FeelValue right) => (left, right) switch
    {
        (FeelNumber a, FeelNumber b) => new FeelNumber(a.Amount - b.Amount),
        (FeelDate or FeelDateTime, FeelDate or FeelDateTime) => new FeelDaysDuration((At(left) - At(right)).Ticks / TimeSpan.TicksPerSecond),
        (_, FeelDaysDuration or FeelMonthsDuration) => Add(left, Negate(right)),
        _ => FeelValue.Null,
    };

    private static FeelValue Multiply(FeelValue left, FeelValue right) => (left, right) switch
    {
        (FeelNumber a, FeelNumber b) => new FeelNumber(a.Amount * b.Amount),
        (FeelDaysDuration a, FeelNumber b) => new FeelDaysDuration(decimal.Truncate(a.Seconds * b.Amount)),
        (FeelMonthsDuration a, FeelNumber b) => new FeelMonthsDuration(checked((int)decimal.Truncate(a.Months * b.Amount))),
        (FeelNumber, FeelDaysDuration or FeelMonthsDuration) => Multiply(right, left),
        _ => FeelValue.Null,
    };

    private static FeelValue Divide(FeelValue left, FeelValue right) => (left, right) switch
    {
        (_, FeelNumber { Amount: 0 }) or (_, FeelDaysDuration { Seconds: 0 }) or (_, FeelMonthsDuration { Months: 0 }) => FeelValue.Null,
        (FeelNumber a, FeelNumber b) => new FeelNumber(a.Amount / b.Amount),
        (FeelDaysDuration a, FeelNumber b) => new FeelDaysDuration(decimal.Truncate(a.Seconds / b.Amount)),
        (FeelMonthsDuration a, FeelNumber b) => new FeelMonthsDuration(checked((int)decimal.Truncate(a.Months / b.Amount))),
        (FeelDaysDuration a, FeelDaysDuration b) => new FeelNumber(a.Seconds / b.Seconds),
        (FeelMonthsDuration a, FeelMonthsDuration b) => new FeelNumber((decimal)a.Months / b.Months),
        _ => FeelValue.Null,
    };

    /// <summary>A whole exponent is multiplied out, so that the result is decimal; any other is as exact as the hardware.</summary>
    private static FeelValue Raise(FeelValue left, FeelValue right)
    {
        if (left is not FeelNumber { Amount: var basis } || right is not FeelNumber { Amount: var exponent })
        {
            return FeelValue.Null;
        }

        if (decimal.Truncate(exponent) != exponent || Math.Abs(exponent) > 1000)
        {
            var approximate = Math.Pow((double)basis, (double)exponent);
            return double.IsFinite(approximate) ? new FeelNumber((decimal)approximate) : FeelValue.Null;
        }

        var result = 1m;
        for (var factor = 0; factor < Math.Abs(exponent); factor++)
        {
            result *= basis;
        }

        return exponent >= 0 ? new FeelNumber(result) : result == 0 ? FeelValue.Null : new FeelNumber(1 / result);
    }

    private static DateTime At(FeelValue value) => value is FeelDate date ? date.Day.ToDateTime(TimeOnly.MinValue) : ((FeelDateTime)value).At;
}
