using System.Globalization;
using System.Text.Json.Serialization;
using Dibujo.Core.Exchange;

namespace Dibujo.Core.Values;

/// <summary>What a field of one record holds.</summary>
/// <remarks>
/// A value by itself does not know its field. Read from JSON it is a bare <see cref="Text"/>, <see cref="Number"/>,
/// <see cref="YesNo"/> or <see cref="Blank"/>; a <see cref="Records.FieldType"/> fits it to what the field holds.
/// </remarks>
[JsonConverter(typeof(ValueConverter))]
public abstract record Value
{
    /// <summary>No value at all.</summary>
    public static readonly Value Blank = new Blank();

    /// <summary>Whether this counts as no value: <see cref="Values.Blank"/> itself, or text of white space only.</summary>
    public virtual bool IsBlank => false;

    /// <summary>Invariant plain text, as it stands in a file; labels of choices are the field type's affair.</summary>
    public abstract string Plain { get; }
}

/// <summary>The value of a field that nobody filled in. Use <see cref="Value.Blank"/>.</summary>
public sealed record Blank : Value
{
    /// <inheritdoc/>
    public override bool IsBlank => true;

    /// <inheritdoc/>
    public override string Plain => "";
}

/// <summary>Text as it was typed; comparisons fold it, storage does not.</summary>
public sealed record Text(string Content) : Value
{
    /// <inheritdoc/>
    public override bool IsBlank => string.IsNullOrWhiteSpace(Content);

    /// <inheritdoc/>
    public override string Plain => Content;
}

/// <summary>A decimal number, or an amount of money in its field's currency.</summary>
public sealed record Number(decimal Amount) : Value
{
    /// <inheritdoc/>
    public override string Plain => Amount.ToString(CultureInfo.InvariantCulture);
}

/// <summary>An answered yes/no question; an unanswered one is <see cref="Value.Blank"/>.</summary>
public sealed record YesNo(bool IsYes) : Value
{
    /// <inheritdoc/>
    public override string Plain => IsYes ? "yes" : "no";
}

/// <summary>A calendar day, without time or zone.</summary>
public sealed record Date(DateOnly Day) : Value
{
    /// <inheritdoc/>
    public override string Plain => Day.ToString("yyyy-MM-dd", CultureInfo.InvariantCulture);
}

/// <summary>A choice by its key; its label is found in the field's <see cref="Records.ChoiceType"/>.</summary>
public sealed record Choice(string Key) : Value
{
    /// <inheritdoc/>
    public override string Plain => Key;
}
