using Dibujo.Core.Records;
using Dibujo.Core.Reshaping;
using Dibujo.Core.Values;

namespace Dibujo.Core.Inference;

/// <summary>Reads cells as people write them into values of one type. More forgiving than the files of <see cref="Csv.RecordTable"/>, which say what they mean.</summary>
/// <param name="type">What is read.</param>
/// <param name="format">How the column writes dates and numbers.</param>
/// <param name="lookup">Finds records and people.</param>
public sealed class CellReader(FieldType type, CellFormat format, ICellLookup lookup)
{
    private static readonly FieldType Line = new LongTextType();

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

    private Value? ReadAnew(string text) => type switch
    {
        YesNoType => Answer.Of(text) is { } isYes ? new YesNo(isYes) : null,
        DateType => WrittenDate.TryReadDay(text, format.Dates, out var day) ? new Date(day)
            : WrittenDate.TryReadMoment(text, format.Dates, out var at) && at.TimeOfDay == TimeSpan.Zero ? new Date(DateOnly.FromDateTime(at)) : null,
        DateTimeType => WrittenDate.TryReadMoment(text, format.Dates, out var moment) ? new Moment(moment)
            : WrittenDate.TryReadDay(text, format.Dates, out var only) ? new Moment(only.ToDateTime(TimeOnly.MinValue)) : null,
        NumberType number => WrittenAmount.TryRead(text, format.Decimals, out var written) && (written.Around.Length == 0 || written.Around == number.Unit) ? new Number(written.Amount) : null,
        MoneyType money => WrittenAmount.TryRead(text, format.Decimals, out var amount) && (amount.Around.Length == 0 || Currency.Of(amount.Around) == money.Currency) ? new Number(amount.Amount) : null,
        LinkType link => lookup.FindRecord(link.RecordType, text) is { } record ? new Link(record) : null,
        PersonType => lookup.FindPerson(text) is { } person ? new Person(person) : null,
        FullNameType when text.Split(',', StringSplitOptions.TrimEntries | StringSplitOptions.RemoveEmptyEntries) is [var family, var given] =>
            Compound.Empty.With("given", new Text(given)).With("family", new Text(family)),
        ChoicesType when text.Contains(',', StringComparison.Ordinal) && !text.Contains(';', StringComparison.Ordinal) => Conversion.Of(new Text(text.Replace(',', ';')), Line, type),
        _ => Conversion.Of(new Text(text), Line, type),
    };
}
