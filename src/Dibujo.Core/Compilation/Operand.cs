using Dibujo.Core.Values;

namespace Dibujo.Core.Compilation;

internal enum OperandKind : byte
{
    Blank,
    Number,
    Text,
}

/// <summary>A value in the flat form in which it is compared: numbers, days, answers and positions as a decimal, all else as text.</summary>
internal readonly struct Operand
{
    private Operand(OperandKind kind, decimal number, string text)
    {
        Kind = kind;
        Number = number;
        Text = text;
    }

    internal OperandKind Kind { get; }

    internal decimal Number { get; }

    /// <summary>Folded text or a choice's key; empty for other kinds.</summary>
    internal string Text { get; }

    internal static Operand Of(Value value) => value switch
    {
        _ when value.IsBlank => default,
        Number n => new(OperandKind.Number, n.Amount, ""),
        YesNo answer => new(OperandKind.Number, answer.IsYes ? 1 : 0, ""),
        Date date => new(OperandKind.Number, date.Day.DayNumber, ""),
        Choice choice => new(OperandKind.Text, 0, choice.Key),
        Text text => new(OperandKind.Text, 0, FoldedText.Of(text.Content)),
        _ => throw new ArgumentOutOfRangeException(nameof(value)),
    };

    internal static Operand Of(int position) => new(OperandKind.Number, position, "");
}
