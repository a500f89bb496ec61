using System.Collections.Immutable;
using Dibujo.Core.Values;

namespace Dibujo.Core.Expressions;

/// <summary>What an expression works with. Null stands for blank and for whatever has no result.</summary>
internal abstract record FeelValue
{
    internal static readonly FeelValue Null = new FeelNull();
    internal static readonly FeelValue True = new FeelBoolean(true);
    internal static readonly FeelValue False = new FeelBoolean(false);

    internal static FeelValue Of(bool? truth) => truth is { } known ? (known ? True : False) : Null;

    /// <summary>Null where the two could not be compared.</summary>
    internal static FeelValue Of(bool holds, FeelValue left, FeelValue right) =>
        Arithmetic.Compare(left, right) is null ? Null : Of(holds);

    /// <summary>A field's value as expressions see it: choices as their keys, links as numbers, compound values as contexts.</summary>
    internal static FeelValue Of(Value value) => value switch
    {
        _ when value.IsBlank => Null,
        Number number => new FeelNumber(number.Amount),
        YesNo answer => Of(answer.IsYes),
        Date date => new FeelDate(date.Day),
        Moment moment => new FeelDateTime(moment.At),
        Choices choices => new FeelList([.. choices.Keys.Select(key => (FeelValue)new FeelText(key))]),
        Link link => new FeelNumber(link.Record),
        _ => new FeelText(value.Plain),
    };

    /// <summary>The bare value to store or compare; blank where a field cannot hold it, as with durations.</summary>
    internal Value ToValue() => this switch
    {
        FeelNumber number => new Number(number.Amount),
        FeelText text => new Text(text.Content),
        FeelBoolean truth => new YesNo(truth.Holds),
        FeelDate date => new Date(date.Day),
        FeelDateTime moment => new Moment(moment.At),
        FeelList list when list.Items.All(i => i is FeelText) =>
            new Choices([.. list.Items.Select(i => ((FeelText)i).Content).Distinct(StringComparer.Ordinal)]),
        _ => Value.Blank,
    };
}

internal sealed record FeelNull : FeelValue;

internal sealed record FeelNumber(decimal Amount) : FeelValue;

internal sealed record FeelText(string Content) : FeelValue;

internal sealed record FeelBoolean(bool Holds) : FeelValue;

internal sealed record FeelDate(DateOnly Day) : FeelValue;

internal sealed record FeelDateTime(DateTime At) : FeelValue;

/// <summary>Days and time, in seconds.</summary>
internal sealed record FeelDaysDuration(decimal Seconds) : FeelValue;

/// <summary>Years and months, in months.</summary>
internal sealed record FeelMonthsDuration(int Months) : FeelValue;

internal sealed record FeelList(ImmutableArray<FeelValue> Items) : FeelValue
{
    public bool Equals(FeelList? other) => other is not null && Items.SequenceEqual(other.Items);

    public override int GetHashCode() => Items.Length;
}

/// <summary>Everything between two ends, each of which may belong to it or not; an end that is null is open to infinity.</summary>
internal sealed record FeelRange(FeelValue Low, bool IncludesLow, FeelValue High, bool IncludesHigh) : FeelValue;
