using System.Globalization;
using System.Text.Json.Serialization;
using Dibujo.Core.Values;

namespace Dibujo.Core.Records;

/// <summary>A calendar day with a time. In JSON it is text of the form 2026-11-24T09:30 (ISO 8601, no zone).</summary>
public sealed record DateTimeType : FieldType
{
    private static readonly string[] Patterns = ["yyyy-MM-dd'T'HH:mm:ss", "yyyy-MM-dd'T'HH:mm"];

    /// <inheritdoc/>
    [JsonIgnore]
    public override string Noun => "a date and time such as 2026-11-24T09:30";

    /// <inheritdoc/>
    public override string Display(Value value) =>
        value is Moment m ? m.At.ToString(m.At.Second == 0 ? "d MMM yyyy HH:mm" : "d MMM yyyy HH:mm:ss", CultureInfo.InvariantCulture) : value.Plain;

    private protected override Value? FitFilled(Value raw) => raw switch
    {
        Moment moment => moment,
        Date date => new Moment(date.Day.ToDateTime(TimeOnly.MinValue)),
        Text text when DateTime.TryParseExact(
            text.Content.Trim(), Patterns, CultureInfo.InvariantCulture, DateTimeStyles.None, out var at) => new Moment(at),
        _ => null,
    };
}
