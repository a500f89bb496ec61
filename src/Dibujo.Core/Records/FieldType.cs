using System.Text.Json.Serialization;
using Dibujo.Core.Values;

namespace Dibujo.Core.Records;

/// <summary>What a field may hold. A closed set: one record for each type, each with its own limits.</summary>
[JsonPolymorphic(TypeDiscriminatorPropertyName = "kind")]
[JsonDerivedType(typeof(TextType), "text")]
[JsonDerivedType(typeof(LongTextType), "longText")]
[JsonDerivedType(typeof(NumberType), "number")]
[JsonDerivedType(typeof(MoneyType), "money")]
[JsonDerivedType(typeof(YesNoType), "yesNo")]
[JsonDerivedType(typeof(DateType), "date")]
[JsonDerivedType(typeof(DateTimeType), "dateTime")]
[JsonDerivedType(typeof(ChoiceType), "choice")]
[JsonDerivedType(typeof(ChoicesType), "choices")]
[JsonDerivedType(typeof(FullNameType), "fullName")]
[JsonDerivedType(typeof(AddressType), "address")]
[JsonDerivedType(typeof(LinkType), "link")]
[JsonDerivedType(typeof(PersonType), "person")]
public abstract record FieldType
{
    /// <summary>What a value of this type is called in a message: "a number".</summary>
    [JsonIgnore]
    public abstract string Noun { get; }

    /// <summary>
    /// Turns a bare value, as read from JSON, into one that this type holds; null if it cannot. A blank fits every
    /// type. Limits are not looked at: see <see cref="Violation"/>.
    /// </summary>
    public Value? Fit(Value raw) => raw.IsBlank ? Value.Blank : FitFilled(raw);

    /// <summary>
    /// Fits a value that a rule gives, or a default: as <see cref="Fit"/>, and a number is rounded to the digits that the
    /// field keeps, halves away from zero. Blank where the value does not fit.
    /// </summary>
    public Value FitGiven(Value raw) => Fit(raw) is { } fitted ? Rounded(fitted) : Value.Blank;

    /// <summary>Which limit a fitted value breaks, as a sentence that says how to mend it; null when it keeps them all.</summary>
    /// <param name="value">The value.</param>
    /// <param name="saved">What the field holds already, which may stay though nobody could choose it now; null for nothing.</param>
    public virtual string? Violation(Value value, Value? saved = null) => null;

    /// <summary>Whether nothing more needs to be filled in; only a compound value can be filled in and yet not complete.</summary>
    public virtual bool IsComplete(Value value) => !value.IsBlank;

    /// <summary>The value as people read it: labels for choices, "yes" and "no", units and currencies.</summary>
    public virtual string Display(Value value) => value.Plain;

    private protected abstract Value? FitFilled(Value raw);

    private protected virtual Value Rounded(Value value) => value;
}
