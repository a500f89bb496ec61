using Dibujo.Core.Values;

namespace Dibujo.Core.Operands;

internal enum OperandKind : byte
{
    Blank,
    Number,
    Text,
    Set,
    Compound,
}

/// <summary>
/// A value in the flat form in which it is compared: numbers, answers and positions as a decimal; days and moments in
/// seconds, so that they compare with each other; keys and folded text as text; several choices as a set of keys.
/// </summary>
internal readonly struct Operand
{
    private const int DaySeconds = 86_400;

    private Operand(OperandKind kind, decimal number, string text, string[]? keys = null, bool isDay = false)
    {
        Kind = kind;
        IsDay = isDay;
        Number = number;
        Text = text;
        Keys = keys;
        Near = (double)number;
        foreach (var letter in text)
        {
            Letters |= 1UL << (letter & 63);
        }
    }

    internal OperandKind Kind { get; }

    /// <summary>Whether it is a day as a whole, beside which a moment counts as its day.</summary>
    internal bool IsDay { get; }

    internal decimal Number { get; }

    /// <summary>About <see cref="Number"/>, for a quick search to begin with.</summary>
    internal double Near { get; }

    /// <summary>Folded text or a choice's key; empty for other kinds.</summary>
    internal string Text { get; }

    /// <summary>Which letters occur in <see cref="Text"/>, many to a bit: text with a bit that other text lacks is not found in it.</summary>
    internal ulong Letters { get; }

    /// <summary>The keys of a set; null for other kinds.</summary>
    internal string[]? Keys { get; }

    internal static Operand Of(Value value) => value switch
    {
        _ when value.IsBlank => default,
        Number n => new(OperandKind.Number, n.Amount, ""),
        YesNo answer => new(OperandKind.Number, answer.IsYes ? 1 : 0, ""),
        Date date => new(OperandKind.Number, (decimal)date.Day.DayNumber * DaySeconds, "", isDay: true),
        Moment moment => new(OperandKind.Number, moment.At.Ticks / TimeSpan.TicksPerSecond, ""),
        Link link => new(OperandKind.Number, link.Record, ""),
        Choice choice => new(OperandKind.Text, 0, choice.Key),
        Choices choices => new(OperandKind.Set, 0, "", [.. choices.Keys]),
        Compound => new(OperandKind.Compound, 0, ""),
        Text text => new(OperandKind.Text, 0, FoldedText.Of(text.Content)),
        Person person => new(OperandKind.Text, 0, FoldedText.Of(person.UserName)),
        _ => throw new ArgumentOutOfRangeException(nameof(value)),
    };

    /// <summary>The day of a moment, as a number as of a day.</summary>
    internal static decimal DayOf(decimal seconds) => decimal.Floor(seconds / DaySeconds) * DaySeconds;

    internal static Operand Of(int position) => new(OperandKind.Number, position, "");
}
