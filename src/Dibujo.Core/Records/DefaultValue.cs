using System.Text.Json.Serialization;
using Dibujo.Core.Values;

namespace Dibujo.Core.Records;

/// <summary>What a field holds on a new record before anyone has filled it in.</summary>
[JsonPolymorphic(TypeDiscriminatorPropertyName = "kind")]
[JsonDerivedType(typeof(FixedDefault), "value")]
[JsonDerivedType(typeof(TodayDefault), "today")]
[JsonDerivedType(typeof(CreatorDefault), "creator")]
public abstract record DefaultValue
{
    /// <summary>The value in that setting, as it fits the type; rounded to its digits; blank where it does not fit.</summary>
    public Value In(Setting setting, FieldType type) => type.FitGiven(Raw(setting));

    private protected abstract Value Raw(Setting setting);
}

/// <summary>Always the same value.</summary>
public sealed record FixedDefault(Value Value) : DefaultValue
{
    private protected override Value Raw(Setting setting) => Value;
}

/// <summary>The day, or the moment, at which the record is begun.</summary>
public sealed record TodayDefault : DefaultValue
{
    private protected override Value Raw(Setting setting) => new Moment(setting.Now);
}

/// <summary>The person who begins the record.</summary>
public sealed record CreatorDefault : DefaultValue
{
    private protected override Value Raw(Setting setting) => setting.Person is { Length: > 0 } name ? new Text(name) : Value.Blank;
}
