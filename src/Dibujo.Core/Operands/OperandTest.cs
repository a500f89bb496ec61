namespace Dibujo.Core.Operands;

/// <summary>Tests on operands. Every one is positive: false on a blank subject or with a blank comparand.</summary>
internal static class OperandTest
{
    /// <summary>A test that only needs its subject and its comparands, as many as it takes.</summary>
    internal static bool Holds(ClauseOp op, Operand subject, Operand[] comparands) => op switch
    {
        ClauseOp.FilledIn => subject.Kind != OperandKind.Blank,
        ClauseOp.Between => Holds(ClauseOp.AtLeast, in subject, in comparands[0]) && Holds(ClauseOp.AtMost, in subject, in comparands[1]),
        ClauseOp.IncludesAll => Array.TrueForAll(comparands, comparand => Holds(op, in subject, in comparand)),
        _ => Array.Exists(comparands, comparand => Holds(op, in subject, in comparand)),
    };

    /// <summary>A test with one comparand.</summary>
    internal static bool Holds(ClauseOp op, in Operand subject, in Operand comparand)
    {
        if (subject.Kind == OperandKind.Blank || comparand.Kind == OperandKind.Blank)
        {
            return false;
        }

        return op switch
        {
            ClauseOp.Equal or ClauseOp.OneOf => AreEqual(in subject, in comparand),
            ClauseOp.Contains => (comparand.Letters & ~subject.Letters) == 0 && subject.Text.AsSpan().IndexOf(comparand.Text) >= 0,
            ClauseOp.StartsWith => subject.Text.StartsWith(comparand.Text, StringComparison.Ordinal),
            ClauseOp.IncludesAny => Includes(in subject, in comparand, all: false),
            ClauseOp.IncludesAll => Includes(in subject, in comparand, all: true),
            ClauseOp.Less => Order(in subject, in comparand) < 0,
            ClauseOp.AtMost => Order(in subject, in comparand) <= 0,
            ClauseOp.AtLeast => Order(in subject, in comparand) >= 0,
            ClauseOp.More => Order(in subject, in comparand) > 0,
            _ => throw new ArgumentOutOfRangeException(nameof(op)),
        };
    }

    private static bool AreEqual(in Operand one, in Operand other) =>
        one.Kind == other.Kind && one.Kind switch
        {
            OperandKind.Number => Order(in one, in other) == 0,
            OperandKind.Text => string.Equals(one.Text, other.Text, StringComparison.Ordinal),
            _ => false,
        };

    /// <summary>Which is less; of a day and a moment, each counts as its day.</summary>
    private static int Order(in Operand one, in Operand other) =>
        one.IsDay == other.IsDay ? decimal.Compare(one.Number, other.Number) : decimal.Compare(Operand.DayOf(one.Number), Operand.DayOf(other.Number));

    private static bool Includes(in Operand set, in Operand keys, bool all)
    {
        var found = set.Keys ?? [set.Text];
        foreach (var key in keys.Keys ?? [keys.Text])
        {
            if (Array.IndexOf(found, key) >= 0 != all)
            {
                return !all;
            }
        }

        return all;
    }
}
