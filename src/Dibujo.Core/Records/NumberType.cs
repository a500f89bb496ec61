using System.Globalization;
using System.Text.Json.Serialization;
using Dibujo.Core.Values;

namespace Dibujo.Core.Records;

/// <summary>A decimal number.</summary>
/// <param name="Scale">How many digits may follow the point.</param>
/// <param name="Min">The least it may be.</param>
/// <param name="Max">The most it may be.</param>
/// <param name="Unit">What it counts, such as kg.</param>
/// <param name="Ungrouped">Whether nothing sets off its thousands: a year is 1460, and no 1,460.</param>
public sealed record NumberType(int Scale = 0, decimal? Min = null, decimal? Max = null, string? Unit = null, bool Ungrouped = false) : FieldType
{
    /// <inheritdoc/>
    [JsonIgnore]
    public override string Noun => "a number";

    /// <inheritdoc/>
    public override string? Violation(Value value, Value? saved = null) => AmountLimits.Violation(value, Scale, Min, Max);

    /// <inheritdoc/>
    public override string Display(Value value) =>
        value is Number n ? $"{(Ungrouped ? n.Plain : AmountLimits.Grouped(n.Amount))}{(Unit is null ? "" : " " + Unit)}" : value.Plain;

    private protected override Value? FitFilled(Value raw) => raw as Number;

    private protected override Value Rounded(Value value) => AmountLimits.Rounded(value, Scale);
}

/// <summary>An amount of money. All amounts of one field are in its one currency.</summary>
/// <param name="Currency">Three letters of ISO 4217.</param>
/// <param name="Min">The least it may be.</param>
/// <param name="Max">The most it may be.</param>
public sealed record MoneyType(string Currency = "EUR", decimal? Min = 0, decimal? Max = null) : FieldType
{
    /// <inheritdoc/>
    [JsonIgnore]
    public override string Noun => "an amount of money";

    /// <inheritdoc/>
    public override string? Violation(Value value, Value? saved = null) => AmountLimits.Violation(value, 2, Min, Max);

    /// <inheritdoc/>
    public override string Display(Value value) =>
        value is Number n ? $"{Currency} {AmountLimits.Grouped(n.Amount)}" : value.Plain;

    private protected override Value? FitFilled(Value raw) => raw as Number;

    private protected override Value Rounded(Value value) => AmountLimits.Rounded(value, 2);
}

internal static class AmountLimits
{
    internal static string Grouped(decimal amount) => amount.ToString("#,##0.############################", CultureInfo.InvariantCulture);

    internal static Value Rounded(Value value, int scale) => value is Number n
        ? new Number(decimal.Round(n.Amount, Math.Clamp(scale, 0, 28), MidpointRounding.AwayFromZero))
        : value;

    internal static string? Violation(Value value, int scale, decimal? min, decimal? max) => value switch
    {
        Number n when n.Amount < min => $"At least {Grouped(min.Value)} is allowed here.",
        Number n when n.Amount > max => $"At most {Grouped(max.Value)} is allowed here.",
        Number n when decimal.Round(n.Amount, Math.Clamp(scale, 0, 28)) != n.Amount => scale == 0
            ? "Only whole numbers are allowed here."
            : $"At most {scale} digits may follow the point.",
        _ => null,
    };
}
