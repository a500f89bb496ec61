using System.Collections.Immutable;

namespace Dibujo.Core.Expressions;

/// <summary>A function that expressions can call. Wrong kinds of values give null.</summary>
/// <param name="Name">As it is written; may have spaces.</param>
/// <param name="Takes">The type of each value; the last one repeats where more are given.</param>
/// <param name="Gives">The type of the result.</param>
/// <param name="Least">The fewest values it takes.</param>
/// <param name="Most">The most values it takes.</param>
/// <param name="Answer">The result for given values.</param>
internal sealed record BuiltIn(
    string Name, ImmutableArray<FeelType> Takes, FeelType Gives, int Least, int Most, Func<ImmutableArray<FeelValue>, FeelValue> Answer)
{
    /// <summary>The longest text that an expression makes; a longer one is null.</summary>
    internal const int MostText = 100_000;

    private const int Any = 50;

    private static readonly ImmutableArray<BuiltIn> All =
    [
        Numeric("floor", decimal.Floor),
        Numeric("ceiling", decimal.Ceiling),
        new("abs", [FeelType.Any], FeelType.Any, 1, 1, a => a[0] switch
        {
            FeelNumber n => new FeelNumber(Math.Abs(n.Amount)),
            FeelDaysDuration d => new FeelDaysDuration(Math.Abs(d.Seconds)),
            FeelMonthsDuration m => new FeelMonthsDuration(Math.Abs(m.Months)),
            _ => FeelValue.Null,
        }),
        new("sqrt", [FeelType.Number], FeelType.Number, 1, 1,
            a => a[0] is FeelNumber { Amount: >= 0 and var n } ? new FeelNumber((decimal)Math.Sqrt((double)n)) : FeelValue.Null),
        new("decimal", [FeelType.Number, FeelType.Number], FeelType.Number, 2, 2, a => Round(a, MidpointRounding.ToEven)),
        new("round half up", [FeelType.Number, FeelType.Number], FeelType.Number, 2, 2, a => Round(a, MidpointRounding.AwayFromZero)),
        new("round up", [FeelType.Number, FeelType.Number], FeelType.Number, 2, 2, a => RoundUp(a)),
        new("round down", [FeelType.Number, FeelType.Number], FeelType.Number, 2, 2, a => Round(a, MidpointRounding.ToZero)),
        new("modulo", [FeelType.Number, FeelType.Number], FeelType.Number, 2, 2, a => a is [FeelNumber n, FeelNumber { Amount: not 0 } by]
            ? Arithmetic.Apply("-", n, Arithmetic.Apply("*", by, Floor(Arithmetic.Apply("/", n, by))))
            : FeelValue.Null),
        new("even", [FeelType.Number], FeelType.Boolean, 1, 1, a => a[0] is FeelNumber n ? FeelValue.Of(n.Amount % 2 == 0) : FeelValue.Null),
        new("odd", [FeelType.Number], FeelType.Boolean, 1, 1, a => a[0] is FeelNumber n ? FeelValue.Of(Math.Abs(n.Amount % 2) == 1) : FeelValue.Null),
        new("not", [FeelType.Boolean], FeelType.Boolean, 1, 1, a => a[0] is FeelBoolean b ? FeelValue.Of(!b.Holds) : FeelValue.Null),

        new("string", [FeelType.Any], FeelType.Text, 1, 1, a => a[0] is FeelNull ? FeelValue.Null : Print(a[0]) is { } text ? new FeelText(text) : FeelValue.Null),
        new("string length", [FeelType.Text], FeelType.Number, 1, 1, a => a[0] is FeelText t ? new FeelNumber(Runes(t).Length) : FeelValue.Null),
        Textual("upper case", t => t.ToUpperInvariant()),
        Textual("lower case", t => t.ToLowerInvariant()),
        new("substring", [FeelType.Text, FeelType.Number], FeelType.Text, 2, 3, Substring),
        new("substring before", [FeelType.Text], FeelType.Text, 2, 2, a => a is [FeelText t, FeelText m]
            ? new FeelText(t.Content.IndexOf(m.Content, StringComparison.Ordinal) is >= 0 and var at ? t.Content[..at] : "") : FeelValue.Null),
        new("substring after", [FeelType.Text], FeelType.Text, 2, 2, a => a is [FeelText t, FeelText m]
            ? new FeelText(t.Content.IndexOf(m.Content, StringComparison.Ordinal) is >= 0 and var at ? t.Content[(at + m.Content.Length)..] : "") : FeelValue.Null),
        Question("contains", (t, m) => t.Contains(m, StringComparison.Ordinal)),
        Question("starts with", (t, m) => t.StartsWith(m, StringComparison.Ordinal)),
        Question("ends with", (t, m) => t.EndsWith(m, StringComparison.Ordinal)),
        new("string join", [FeelType.List, FeelType.Text], FeelType.Text, 1, 2, Join),

        new("min", [FeelType.Any], FeelType.Any, 1, Any, a => Extreme(Listed(a), -1)),
        new("max", [FeelType.Any], FeelType.Any, 1, Any, a => Extreme(Listed(a), 1)),
        new("sum", [FeelType.Any], FeelType.Number, 1, Any, a => Sum(Listed(a))),
        new("mean", [FeelType.Any], FeelType.Number, 1, Any, a => Arithmetic.Apply("/", Sum(Listed(a)), new FeelNumber(Listed(a).Length))),
        new("count", [FeelType.List], FeelType.Number, 1, 1, a => a[0] is FeelList l ? new FeelNumber(l.Items.Length) : FeelValue.Null),
        new("list contains", [FeelType.List, FeelType.Any], FeelType.Boolean, 2, 2, a => a[0] is FeelList l
            ? FeelValue.Of(l.Items.Any(item => Arithmetic.AreEqual(item, a[1]) == true)) : FeelValue.Null),
        new("all", [FeelType.List], FeelType.Boolean, 1, 1, a => Fold(a[0], decisive: false)),
        new("any", [FeelType.List], FeelType.Boolean, 1, 1, a => Fold(a[0], decisive: true)),
        new("append", [FeelType.List, FeelType.Any], FeelType.List, 2, Any, a => a[0] is FeelList l ? new FeelList([.. l.Items, .. a[1..]]) : FeelValue.Null),
        new("concatenate", [FeelType.List], FeelType.List, 1, Any, a => a.All(l => l is FeelList)
            ? new FeelList([.. a.SelectMany(l => ((FeelList)l).Items)]) : FeelValue.Null),
        new("reverse", [FeelType.List], FeelType.List, 1, 1, a => a[0] is FeelList l ? new FeelList([.. l.Items.Reverse()]) : FeelValue.Null),
        new("distinct values", [FeelType.List], FeelType.List, 1, 1, a => a[0] is FeelList l ? new FeelList([.. l.Items.Distinct()]) : FeelValue.Null),

        new("date and time", [FeelType.Any], FeelType.DateTime, 1, 1, a => a[0] switch
        {
            FeelText t => Temporal.ParseMoment(t.Content) ?? Midnight(Temporal.ParseDate(t.Content)),
            FeelDateTime m => m,
            _ => Midnight(a[0] as FeelDate),
        }),
        new("date", [FeelType.Any], FeelType.Date, 1, 3, ADate),
        new("duration", [FeelType.Text], FeelType.Any, 1, 1, a => a[0] is FeelText t ? Temporal.ParseDuration(t.Content) ?? FeelValue.Null : FeelValue.Null),
        new("years and months duration", [FeelType.Any], FeelType.MonthsDuration, 2, 2, a => (At(a[0]), At(a[1])) is ({ } from, { } to)
            ? new FeelMonthsDuration(Temporal.MonthsBetween(from, to)) : FeelValue.Null),
        new("day of year", [FeelType.Any], FeelType.Number, 1, 1, a => At(a[0]) is { } at ? new FeelNumber(at.DayOfYear) : FeelValue.Null),
        new("day of week", [FeelType.Any], FeelType.Text, 1, 1, a => At(a[0]) is { } at ? new FeelText(at.DayOfWeek.ToString()) : FeelValue.Null),
        new("month of year", [FeelType.Any], FeelType.Text, 1, 1, a => At(a[0]) is { } at
            ? new FeelText(at.ToString("MMMM", System.Globalization.CultureInfo.InvariantCulture)) : FeelValue.Null),
    ];

    /// <summary>All names, for a message that offers them.</summary>
    internal static string Names { get; } = string.Join(", ", All.Select(f => f.Name));

    /// <summary>How it is called: its name with as many places as it takes at least.</summary>
    internal string Usage => $"{Name}({string.Join(", ", Enumerable.Range(0, Least).Select(i => Type(i).Noun()))}{(Most > Least ? ", …" : "")})";

    /// <summary>The type of the value at that place.</summary>
    internal FeelType Type(int place) => Takes[Math.Min(place, Takes.Length - 1)];

    /// <summary>The function with the longest name that begins at that token, and how many words it has.</summary>
    internal static (BuiltIn Function, int Words)? Longest(List<Token> tokens, int at)
    {
        (BuiltIn, int)? found = null;
        var name = "";
        for (var words = 1; words <= 4 && at + words <= tokens.Count && tokens[at + words - 1].Kind == TokenKind.Word; words++)
        {
            name = words == 1 ? tokens[at].Content : $"{name} {tokens[at + words - 1].Content}";
            if (All.FirstOrDefault(f => f.Name == name) is { } function)
            {
                found = (function, words);
            }
        }

        return found;
    }

    /// <summary>The value as text, as the function "string" gives it; null for what has none.</summary>
    internal static string? Print(FeelValue value) => value switch
    {
        FeelNumber n => n.Amount.ToString("0.############################", System.Globalization.CultureInfo.InvariantCulture),
        FeelText t => t.Content,
        FeelBoolean b => b.Holds ? "true" : "false",
        FeelDate or FeelDateTime => value.ToValue().Plain,
        FeelDaysDuration d => Temporal.Print(d),
        FeelMonthsDuration m => Temporal.Print(m),
        _ => null,
    };

    private static BuiltIn Numeric(string name, Func<decimal, decimal> of) =>
        new(name, [FeelType.Number], FeelType.Number, 1, 1, a => a[0] is FeelNumber n ? new FeelNumber(of(n.Amount)) : FeelValue.Null);

    private static BuiltIn Textual(string name, Func<string, string> of) =>
        new(name, [FeelType.Text], FeelType.Text, 1, 1, a => a[0] is FeelText t ? new FeelText(of(t.Content)) : FeelValue.Null);

    private static BuiltIn Question(string name, Func<string, string, bool> of) =>
        new(name, [FeelType.Text], FeelType.Boolean, 2, 2, a => a is [FeelText t, FeelText m] ? FeelValue.Of(of(t.Content, m.Content)) : FeelValue.Null);

    private static FeelValue Floor(FeelValue value) => value is FeelNumber n ? new FeelNumber(decimal.Floor(n.Amount)) : FeelValue.Null;

    private static FeelValue Round(ImmutableArray<FeelValue> a, MidpointRounding how) =>
        a is [FeelNumber n, FeelNumber { Amount: >= 0 and <= 28 and var scale }] && decimal.Truncate(scale) == scale
            ? new FeelNumber(decimal.Round(n.Amount, (int)scale, how)) : FeelValue.Null;

    private static FeelValue RoundUp(ImmutableArray<FeelValue> a) => a[0] is FeelNumber { Amount: < 0 }
        ? Round(a, MidpointRounding.ToNegativeInfinity)
        : Round(a, MidpointRounding.ToPositiveInfinity);

    private static int[] Runes(FeelText text) => [.. text.Content.EnumerateRunes().Select(rune => rune.Value)];

    private static FeelValue Substring(ImmutableArray<FeelValue> a)
    {
        if (a[0] is not FeelText text || a[1] is not FeelNumber { Amount: not 0 and var start } || decimal.Truncate(start) != start
            || (a.Length == 3 && a[2] is not FeelNumber { Amount: >= 1 }))
        {
            return FeelValue.Null;
        }

        var runes = Runes(text);
        var from = start > 0 ? start - 1 : runes.Length + start;
        if (from < 0 || from >= runes.Length)
        {
            return new FeelText("");
        }

        var length = a.Length == 3 ? Math.Min(decimal.Truncate(((FeelNumber)a[2]).Amount), runes.Length - from) : runes.Length - from;
        return new FeelText(string.Concat(runes.Skip((int)from).Take((int)length).Select(char.ConvertFromUtf32)));
    }

    private static FeelValue Join(ImmutableArray<FeelValue> a)
    {
        if (a[0] is not FeelList list || (a.Length == 2 && a[1] is not (FeelText or FeelNull)) || list.Items.Any(i => i is not (FeelText or FeelNull)))
        {
            return FeelValue.Null;
        }

        var joined = string.Join(a.Length == 2 && a[1] is FeelText between ? between.Content : "", list.Items.OfType<FeelText>().Select(t => t.Content));
        return joined.Length <= MostText ? new FeelText(joined) : FeelValue.Null;
    }

    private static ImmutableArray<FeelValue> Listed(ImmutableArray<FeelValue> a) => a is [FeelList list] ? list.Items : a;

    private static FeelValue Extreme(ImmutableArray<FeelValue> items, int direction)
    {
        if (items.IsEmpty)
        {
            return FeelValue.Null;
        }

        var extreme = items[0];
        foreach (var item in items)
        {
            if (Arithmetic.Compare(item, extreme) is not { } order)
            {
                return FeelValue.Null;
            }

            extreme = Math.Sign(order) == direction ? item : extreme;
        }

        return extreme;
    }

    private static FeelValue Sum(ImmutableArray<FeelValue> items) =>
        items.IsEmpty || items.Any(i => i is not FeelNumber) ? FeelValue.Null : items.Aggregate((sum, item) => Arithmetic.Apply("+", sum, item))!;

    /// <summary>Three-valued: the decisive answer wins, then null, then the other.</summary>
    private static FeelValue Fold(FeelValue list, bool decisive) => list is not FeelList { Items: var items }
        ? FeelValue.Null
        : items.Any(i => i is FeelBoolean b && b.Holds == decisive) ? FeelValue.Of(decisive)
        : items.Any(i => i is not FeelBoolean) ? FeelValue.Null
        : FeelValue.Of(!decisive);

    private static FeelValue ADate(ImmutableArray<FeelValue> a) => a switch
    {
        [FeelText t] => Temporal.ParseDate(t.Content) ?? (Temporal.ParseMoment(t.Content) is FeelDateTime m ? new FeelDate(DateOnly.FromDateTime(m.At)) : FeelValue.Null),
        [FeelDateTime m] => new FeelDate(DateOnly.FromDateTime(m.At)),
        [FeelDate d] => d,
        [FeelNumber { Amount: >= 1 and <= 9999 and var y }, FeelNumber { Amount: >= 1 and <= 12 and var m }, FeelNumber { Amount: >= 1 and var d }]
            when d <= DateTime.DaysInMonth((int)y, (int)m) => new FeelDate(new((int)y, (int)m, (int)d)),
        _ => FeelValue.Null,
    };

    private static FeelValue Midnight(FeelValue? day) => day is FeelDate d ? new FeelDateTime(d.Day.ToDateTime(TimeOnly.MinValue)) : FeelValue.Null;

    private static DateTime? At(FeelValue value) => value switch
    {
        FeelDate d => d.Day.ToDateTime(TimeOnly.MinValue),
        FeelDateTime m => m.At,
        _ => null,
    };
}
