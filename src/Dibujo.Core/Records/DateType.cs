using System.Globalization;
using System.Text.Json.Serialization;
using Dibujo.Core.Values;

namespace Dibujo.Core.Records;

/// <summary>A calendar day. In JSON it is text of the form 2026-11-24 (ISO 8601).</summary>
public sealed record DateType : FieldType
{
    /// <inheritdoc/>
    [JsonIgnore]
    public override string Noun => "a date such as 2026-11-24";

    /// <inheritdoc/>
    public override string Display(Value value) =>
        value is Date d ? d.Day.ToString("d MMM yyyy", CultureInfo.InvariantCulture) : value.Plain;

    private protected override Value? FitFilled(Value raw) => raw switch
    {
        Date date => date,
        Moment moment => new Date(DateOnly.FromDateTime(moment.At)),
        Text text when DateOnly.TryParseExact(
            text.Content.Trim(), "yyyy-MM-dd", CultureInfo.InvariantCulture, DateTimeStyles.None, out var day) => new Date(day),
        _ => null,
    };
}
