using System.Collections.Immutable;
using System.Globalization;
using System.Text.Json.Serialization;

namespace Dibujo.Core.Values;

/// <summary>What a field of one record holds.</summary>
/// <remarks>
/// A value by itself does not know its field. Read from JSON it is a bare <see cref="Text"/>, <see cref="Number"/>,
/// <see cref="YesNo"/>, <see cref="Choices"/>, <see cref="Compound"/> or <see cref="Blank"/>; a
/// <see cref="Records.FieldType"/> fits it to what the field holds.
/// </remarks>
[JsonConverter(typeof(ValueConverter))]
public abstract record Value
{
    /// <summary>No value at all.</summary>
    public static readonly Value Blank = new Blank();

    /// <summary>
    /// Whether this counts as no value: <see cref="Values.Blank"/> itself, text in which nothing is seen, no choice at all, or
    /// a compound value whose parts are all blank.
    /// </summary>
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
    public override bool IsBlank => BlankText.IsBlank(Content);

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

/// <summary>A day with a time, to the second, by the site's clock; without zone.</summary>
public sealed record Moment(DateTime At) : Value
{
    /// <inheritdoc/>
    public override string Plain => At.ToString("yyyy-MM-dd'T'HH:mm:ss", CultureInfo.InvariantCulture);
}

/// <summary>A choice by its key; its label is found in the field's <see cref="Records.ChoiceType"/>.</summary>
public sealed record Choice(string Key) : Value
{
    /// <inheritdoc/>
    public override string Plain => Key;
}

/// <summary>Several choices by their keys; a set, so equal whatever the order.</summary>
public sealed record Choices(ImmutableArray<string> Keys) : Value
{
    /// <inheritdoc/>
    public override bool IsBlank => Keys.IsEmpty;

    /// <inheritdoc/>
    public override string Plain => string.Join("; ", Keys);

    /// <inheritdoc/>
    public bool Equals(Choices? other) =>
        other is not null && Keys.Length == other.Keys.Length
        && (Keys.SequenceEqual(other.Keys, StringComparer.Ordinal) || Keys.ToHashSet(StringComparer.Ordinal).SetEquals(other.Keys));

    /// <inheritdoc/>
    public override int GetHashCode() => Keys.Aggregate(0, (hash, key) => hash ^ StringComparer.Ordinal.GetHashCode(key));
}

/// <summary>A value of several parts, such as an address, by the keys of the parts; a part that is missing is blank.</summary>
public sealed record Compound(ImmutableSortedDictionary<string, string> Parts) : Value
{
    /// <summary>No part filled in.</summary>
    public static readonly Compound Empty = new(ImmutableSortedDictionary.Create<string, string>(StringComparer.Ordinal));

    /// <inheritdoc/>
    public override bool IsBlank => Parts.Values.All(BlankText.IsBlank);

    /// <inheritdoc/>
    public override string Plain => string.Join(", ", Parts.Values.Where(part => !BlankText.IsBlank(part)));

    /// <summary>The part's text; blank where it is not filled in.</summary>
    public Value this[string part] => Parts.TryGetValue(part, out var text) && !BlankText.IsBlank(text) ? new Text(text) : Blank;

    /// <summary>The same value with another part; a blank one takes the part out.</summary>
    public Compound With(string part, Value text) => new(text.IsBlank ? Parts.Remove(part) : Parts.SetItem(part, text.Plain));

    /// <inheritdoc/>
    public bool Equals(Compound? other) => other is not null && Parts.SequenceEqual(other.Parts);

    /// <inheritdoc/>
    public override int GetHashCode() => Parts.Aggregate(0, (hash, part) => HashCode.Combine(hash, part.Key, part.Value));
}

/// <summary>A record of another type, by its number.</summary>
public sealed record Link(int Record) : Value
{
    /// <inheritdoc/>
    public override string Plain => Record.ToString(CultureInfo.InvariantCulture);
}

/// <summary>A person, by the name with which the person signs in.</summary>
public sealed record Person(string UserName) : Value
{
    /// <inheritdoc/>
    public override string Plain => UserName;
}
