using System.Collections.Immutable;
using Dibujo.Core.Notations;
using Dibujo.Core.Records;
using Dibujo.Core.Values;

namespace Dibujo.Core.Inference;

/// <summary>Guesses from its cells what a column holds.</summary>
public sealed class ColumnInference(ICellLookup lookup)
{
    private const int MostOptions = 24;
    private const int MostChosen = 200;
    private const int MostExamples = 4;
    private const int MostMisfits = 8;
    private const int LongestChoice = 60;
    private const int LongestLine = 200;

    /// <summary>Nine in ten must fit: a table that was kept by hand has slips, which are shown.</summary>
    private const double Enough = 0.9;

    /// <summary>The guess for a column.</summary>
    /// <param name="header">Its heading.</param>
    /// <param name="key">The key of its field.</param>
    /// <param name="cells">Its cells below the heading, from the top.</param>
    public InferredColumn Of(string header, string key, IReadOnlyList<string> cells)
    {
        List<string> filled = [.. cells.Select(cell => cell.Trim()).Where(cell => cell.Length > 0)];
        var format = FormatOf(filled, out var doubt);
        var type = TypeOf(header, filled, format);
        return With(header, key, type, format, cells) with { Doubt = type is NumberType or MoneyType or DateType or DateTimeType ? doubt : null };
    }

    /// <summary>A column of which somebody says what it is: its choices, digits, unit and currency are still told by the cells.</summary>
    public InferredColumn As(string label, string key, FieldType type, CellFormat format, IReadOnlyList<string> cells)
    {
        List<string> filled = [.. cells.Select(cell => cell.Trim()).Where(cell => cell.Length > 0)];
        return With(label, key, type switch
        {
            NumberType => Amount("", filled, 0, format) as NumberType ?? type,
            MoneyType money => Amount(label, filled, 0, format) as MoneyType ?? new MoneyType(money.Currency, null),
            ChoiceType => new ChoiceType(Options(filled, MostChosen, filled.Count * 3) ?? []),
            ChoicesType => new ChoicesType(Options(filled.SelectMany(Items), MostChosen, filled.Count * 3) ?? []),
            TextType or LongTextType when filled.Count > 0 && Text(filled) is LongTextType longer => longer,
            _ => type,
        }, format, cells);
    }

    private InferredColumn With(string label, string key, FieldType type, CellFormat format, IReadOnlyList<string> cells)
    {
        var reader = new CellReader(type, format, lookup);
        var examples = new List<ReadCell>();
        var misfits = ImmutableArray.CreateBuilder<ReadCell>();
        var (filled, wrong) = (0, 0);
        for (var i = 0; i < cells.Count; i++)
        {
            var value = reader.Read(cells[i]);
            if (value is { IsBlank: true })
            {
                continue;
            }

            filled++;
            if (value is null)
            {
                wrong++;
                if (misfits.Count < MostMisfits)
                {
                    misfits.Add(new(i + 2, Excerpt.Of(cells[i].Trim()), null));
                }
            }
            else if (examples.Count < MostExamples && type.Display(value) is var read && !examples.Exists(example => example.ReadAs == read))
            {
                examples.Add(new(i + 2, Excerpt.Of(cells[i].Trim()), read));
            }
        }

        return new(label, key, type, format, filled, wrong) { Examples = [.. examples], FirstMisfits = misfits.ToImmutable() };
    }

    /// <summary>How the column writes dates and numbers, and what no cell of it tells.</summary>
    private static CellFormat FormatOf(List<string> cells, out string? doubt)
    {
        var dates = Majority(cells, OrderOf);
        var marks = Majority(cells, MarkOf);
        doubt = dates is null && cells.Exists(cell => Day(cell, DateOrder.DayFirst) is { } one && Day(cell, DateOrder.MonthFirst) is { } other && one != other)
            ? "No date tells whether the day or the month comes first: the day is taken to."
            : marks is null && cells.Exists(cell => cell.AsSpan().ContainsAny(',', '.') && AmountIn(cell, DecimalMark.Point) is not null)
                ? "No number tells which mark stands before the fraction: the point is taken to."
                : null;
        return new(dates ?? DateOrder.DayFirst, marks ?? DecimalMark.Point);
    }

    /// <summary>Whether the digits of a date tell which of day and month comes first: null where they do not, or it is no date.</summary>
    private static DateOrder? OrderOf(string text) => (Day(text, DateOrder.DayFirst), Day(text, DateOrder.MonthFirst)) switch
    {
        ({ }, null) => DateOrder.DayFirst,
        (null, { }) => DateOrder.MonthFirst,
        _ => null,
    };

    private static DateOnly? Day(string text, DateOrder order)
    {
        var notation = new CellFormat(order).Notation;
        return DayReader.Read(text, notation, default) is [var day, ..] ? day
            : MomentReader.Read(text, notation, default) is [var at, ..] ? DateOnly.FromDateTime(at) : null;
    }

    /// <summary>Which mark stands before the fraction; null where the text does not tell.</summary>
    private static DecimalMark? MarkOf(string text)
    {
        var (comma, point) = (text.LastIndexOf(','), text.LastIndexOf('.'));
        if (comma >= 0 && point >= 0)
        {
            return comma > point ? DecimalMark.Comma : DecimalMark.Point;
        }

        var at = Math.Max(comma, point);
        if (at < 0 || text.IndexOfAny([',', '.']) != at)
        {
            // Twice the same: those are thousands, so the other one is the mark.
            return at < 0 ? null : comma >= 0 ? DecimalMark.Point : DecimalMark.Comma;
        }

        var digits = 0;
        while (at + 1 + digits < text.Length && char.IsAsciiDigit(text[at + 1 + digits]))
        {
            digits++;
        }

        return digits == 3 && at is > 0 and <= 3 && text[0] != '0' ? null : comma >= 0 ? DecimalMark.Comma : DecimalMark.Point;
    }

    /// <summary>A number; null for what is none, and for a name that zeros lead.</summary>
    private static WrittenAmount? AmountIn(string text, DecimalMark mark) => text is ['0', >= '0' and <= '9', ..] ? null
        : AmountReader.Read(text, new CellFormat(Decimals: mark).Notation, 28) is [var amount, ..] && (!amount.IsBefore || Currency.Of(amount.Around) is not null) ? amount : null;

    private static T? Majority<T>(List<string> cells, Func<string, T?> tell)
        where T : struct, Enum
    {
        var told = cells.Select(tell).OfType<T>().CountBy(one => one).ToList();
        return told.Count == 0 ? null : told.MaxBy(one => one.Value).Key;
    }

    private FieldType TypeOf(string header, List<string> cells, CellFormat format)
    {
        if (cells.Count == 0)
        {
            return new TextType();
        }

        var enough = (int)Math.Ceiling(cells.Count * Enough);
        return Fits(cells, enough, new YesNoType(), format) ?? Fits(cells, enough, new DateType(), format) ?? Fits(cells, enough, new DateTimeType(), format)
            ?? (lookup.RecordTypeCalled(header) is { } called ? Fits(cells, enough, new LinkType(called), format) : null) ?? Amount(header, cells, enough, format) ?? Link(cells, enough, format) ?? Fits(cells, enough, new PersonType(), format)
            ?? Choice(cells) ?? Text(cells);
    }

    private FieldType? Fits(List<string> cells, int enough, FieldType type, CellFormat format)
    {
        var reader = new CellReader(type, format, lookup);
        var left = cells.Count - enough;
        return cells.TrueForAll(cell => reader.Read(cell) is not null || --left >= 0) ? type : null;
    }

    /// <summary>A number or money: by what stands around most of them.</summary>
    private static FieldType? Amount(string header, List<string> cells, int enough, CellFormat format)
    {
        var read = new List<WrittenAmount>(cells.Count);
        foreach (var cell in cells)
        {
            if (AmountIn(cell, format.Decimals) is { } amount)
            {
                read.Add(amount);
            }
        }

        var around = read.CountBy(amount => amount.Around).Where(one => one.Key.Length > 0).OrderByDescending(one => one.Value)
            .Where(one => one.Value * 2 >= read.Count || Currency.Of(one.Key) is not null).Select(one => one.Key).FirstOrDefault();
        var fitting = read.Where(amount => amount.Around.Length == 0 || amount.Around == around || (Currency.Of(amount.Around) is { } code && code == Currency.Of(around ?? ""))).ToList();
        if (fitting.Count < Math.Max(1, enough))
        {
            return null;
        }

        return (Currency.Of(around ?? "") ?? (around is null ? Currency.In(header) : null)) is { } currency
            ? new MoneyType(currency, fitting.Exists(amount => amount.Amount < 0) ? null : 0)
            : new NumberType(Math.Min(12, fitting.Max(amount => (int)amount.Amount.Scale)), Unit: around);
    }

    /// <summary>A link where the cells are titles of records of one type. Numbers alone say nothing of what they count.</summary>
    private FieldType? Link(List<string> cells, int enough, CellFormat format) => cells.Distinct(StringComparer.Ordinal).Skip(1).Any()
        ? lookup.RecordTypes.Select(type => Fits(cells, enough, new LinkType(type), format)).FirstOrDefault(type => type is not null)
        : null;

    /// <summary>One or several choices, where few values repeat.</summary>
    private static FieldType? Choice(List<string> cells)
    {
        if (cells.Exists(cell => cell.Contains(';', StringComparison.Ordinal))
            && Options(cells.SelectMany(Items), MostOptions, cells.Count) is { } several)
        {
            return new ChoicesType(several);
        }

        return Options(cells, MostOptions, cells.Count) is { } options ? new ChoiceType(options) : null;
    }

    private static string[] Items(string cell) =>
        cell.Split(cell.Contains(';', StringComparison.Ordinal) ? ';' : ',', StringSplitOptions.TrimEntries | StringSplitOptions.RemoveEmptyEntries);

    /// <summary>The values in the order in which they come, those alike but for case and composition as one; null where they are too many, too long or hardly repeat.</summary>
    private static ImmutableArray<Option>? Options(IEnumerable<string> values, int most, int cells)
    {
        var labels = new Dictionary<string, string>(StringComparer.Ordinal);
        foreach (var value in values)
        {
            if (value.Length > LongestChoice || value.AsSpan().ContainsAny('\r', '\n', '\t') || labels.Count > most)
            {
                return null;
            }

            labels.TryAdd(FoldedText.Of(value), value);
        }

        var keys = new HashSet<string>(StringComparer.Ordinal);
        return labels.Count == 0 || labels.Count > most || labels.Count * 3 > cells ? null : [.. labels.Values.Select(label => new Option(PlainKey.For(label, keys), label))];
    }

    private static FieldType Text(List<string> cells)
    {
        var longest = cells.Max(cell => cell.Length);
        return longest <= LongestLine && !cells.Exists(cell => cell.AsSpan().ContainsAny('\r', '\n'))
            ? new TextType()
            : new LongTextType(Math.Max(4000, ((longest / 1000) + 1) * 1000));
    }
}
