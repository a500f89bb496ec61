using Dibujo.Core.Notations;
using Dibujo.Core.Records;
using Dibujo.Core.Values;

namespace Dibujo.Core.Inference;

/// <summary>Reads the cells of a column, each distinct one once. What does not say exactly what it is, such as a day without a time for a moment, is taken as tables have it.</summary>
/// <param name="type">What is read.</param>
/// <param name="format">How the column writes dates and numbers.</param>
/// <param name="lookup">Finds records and people.</param>
public sealed class CellReader(FieldType type, CellFormat format, ICellLookup lookup)
{
    private static readonly DateOnly NoToday = new(2000, 1, 1);

    private readonly Notation notation = format.Notation;
    private readonly Dictionary<string, Value?> known = new(StringComparer.Ordinal);

    /// <summary>The value; blank for an empty cell, null for one that does not fit, or breaks a limit.</summary>
    public Value? Read(string cell)
    {
        var text = cell.Trim();
        if (text.Length == 0)
        {
            return Value.Blank;
        }

        // Where few values repeat, each is read once.
        if (!known.TryGetValue(text, out var value))
        {
            value = ReadAnew(text) is { IsBlank: false } read && type.Violation(read) is null ? read : null;
            if (known.Count < 1000)
            {
                known[text] = value;
            }
        }

        return value;
    }

    private Value? ReadAnew(string text) => (type, notation.Read(text, type, lookup, NoToday).Certain) switch
    {
        (DateType, null) => notation.Read(text, new DateTimeType(), lookup, NoToday).Certain is Moment { At: { TimeOfDay.Ticks: 0 } at } ? new Date(DateOnly.FromDateTime(at)) : null,
        (DateTimeType, null) => notation.Read(text, new DateType(), lookup, NoToday).Certain is Date date ? type.Fit(date) : null,
        // The number alone says nothing of whether there is such a record.
        (LinkType link, Link { Record: var number }) when lookup.TitleOf(link.RecordType, number) is null => lookup.RecordsCalled(link.RecordType, text) is [var called] ? new Link(called) : null,
        // One that zeros lead is a name.
        (NumberType or MoneyType, Number) when IsName(text) => null,
        // They may be counted.
        (YesNoType, _) when text is "1" or "0" => null,
        (_, var value) => value,
    };

    private static bool IsName(string text) => text is ['0', >= '0' and <= '9', ..];
}
