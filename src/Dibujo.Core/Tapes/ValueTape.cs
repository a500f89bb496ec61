using Dibujo.Core.Values;

namespace Dibujo.Core.Tapes;

/// <summary>Values from a tape: bare, as <see cref="ValueConverter"/> reads them from JSON.</summary>
public static class ValueTape
{
    /// <summary>The value.</summary>
    public static Value Value(TapeNode node) => node.Kind switch
    {
        TapeKind.Null => Values.Value.Blank,
        TapeKind.True => new YesNo(true),
        TapeKind.False => new YesNo(false),
        TapeKind.Text => new Text(node.Text),
        TapeKind.Integer => new Number(node.Integer),
        TapeKind.Number => new Number(Amount(node)),
        TapeKind.List => new Choices([.. node.Texts().Distinct(StringComparer.Ordinal)]),
        _ => Parts(node),
    };

    /// <summary>The values of a record by field key.</summary>
    public static RecordValues Record(TapeNode node)
    {
        var values = new KeyValuePair<string, Value>[node.Count];
        for (var i = 0; i < values.Length; i++)
        {
            values[i] = new(node.NameOf(i), Value(node.ValueOf(i)));
        }

        return new(values);
    }

    /// <summary>The number; throws where it has more digits than fit.</summary>
    internal static decimal Amount(TapeNode node) =>
        ExactDecimal.TryParse(node.Digits, out var amount) ? amount : throw new FormatException($"The number {node.Digits} is too large or too exact.");

    private static Compound Parts(TapeNode node)
    {
        var compound = Compound.Empty;
        for (var i = 0; i < node.Count; i++)
        {
            if (node.ValueOf(i) is { IsNull: false, Text: var text })
            {
                compound = compound.With(node.NameOf(i), new Text(text));
            }
        }

        return compound;
    }
}
