using System.Collections.Immutable;
using System.Globalization;
using Dibujo.Core.Conditions;
using Dibujo.Core.Notations;
using Dibujo.Core.Records;
using Dibujo.Core.Sentences;
using Dibujo.Core.Values;

namespace Dibujo.Core.Speech;

/// <summary>Hears what a subject is compared with, or what a field is given.</summary>
internal sealed class ValueListener(Listener listener, Lexicon lexicon, NameListener names)
{
    private static readonly string[] Currencies = ["€", "$", "£", "eur", "euro", "euros", "usd", "dollars", "gbp", "pounds"];

    /// <summary>A value of that type; null where none comes next.</summary>
    internal Comparand? Comparand(FieldType type) => listener.First(() => Expression(type), () => Fixed(type), () => Day(type), () => OtherField(type));

    /// <summary>Choices, with commas, "and" or "or" between them.</summary>
    internal ImmutableArray<Comparand>? Choices(FieldType type)
    {
        var index = lexicon.Options(type);
        return names.List(() => names.Name(index, "one of its choices")) is { } found
            ? [.. found.Select(option => (Comparand)new Literal(new Text(option.Thing)))]
            : null;
    }

    /// <summary>A whole number with days, weeks, months or years after it, such as in "15 years ago".</summary>
    internal RelativeDay? Span(int sign) => listener.Try<RelativeDay>(() =>
    {
        if (listener.Next is not { Kind: WordKind.Number, Text: var digits } || !int.TryParse(digits, NumberStyles.None, CultureInfo.InvariantCulture, out var count))
        {
            return null;
        }

        listener.At++;
        return listener.TakeAny("days", "day", "weeks", "week", "months", "month", "years", "year") switch
        {
            "days" or "day" => new(sign * count),
            "weeks" or "week" => new(sign * count * 7),
            "months" or "month" => new(sign * count, DayUnit.Months),
            "years" or "year" => new(sign * count, DayUnit.Years),
            _ => null,
        };
    });

    private Literal? Fixed(FieldType type) => type switch
    {
        YesNoType => listener.TakeAny("yes", "true", "ticked", "checked", "on", "no", "false", "unticked", "unchecked", "off", "not ticked", "not checked") switch
        {
            null => null,
            "yes" or "true" or "ticked" or "checked" or "on" => new(new YesNo(true)),
            _ => new(new YesNo(false)),
        },
        IOffersOptions => names.Name(lexicon.Options(type), "one of its choices") is { } option ? new(new Text(option.Thing)) : null,
        NumberType number => Amount("a number", number.Unit),
        MoneyType => Amount("an amount", null),
        LinkType => Record(),
        DateType => Date(),
        DateTimeType => null,
        // A person is one of those that there are, never a text.
        CompoundType or PersonType => null,
        _ => Text(),
    };

    private Literal? Amount(string hint, string? unit)
    {
        listener.Expect(hint, isHint: true);
        listener.TookAny(Currencies);
        if (listener.Next is not { Kind: WordKind.Number, Text: var digits } || AmountReader.Read(digits, listener.Notation, 28) is not [var read, .. var others])
        {
            return null;
        }

        var from = listener.At++;
        var amount = read.Amount;
        if (others.Count > 0)
        {
            Ask(from, others.Prepend(read).Select(one => listener.Notation.Amount(one.Amount)));
        }

        if (listener.TookAny("thousand"))
        {
            amount *= 1000;
        }
        else if (listener.TookAny("million"))
        {
            amount *= 1_000_000;
        }

        listener.TookAny(Currencies);
        if (unit is { Length: > 0 })
        {
            listener.TookAny(unit.ToLowerInvariant());
        }

        return new(new Number(amount));
    }

    private Literal? Record()
    {
        listener.Expect("the number of a record", isHint: true);
        listener.TookAny("no .", "no", "number");
        return listener.Next is { Kind: WordKind.Number, Text: var digits } && ExactDecimal.TryParseGrouped(digits, out var number) && listener.At++ >= 0
            ? new(new Number(number))
            : null;
    }

    private Literal? Date()
    {
        listener.Expect("a date such as 24 Nov 2026", isHint: true);
        if (listener.Next is not { Kind: WordKind.Day, Text: var day, Others: var others })
        {
            return null;
        }

        var from = listener.At++;
        if (!others.IsDefaultOrEmpty)
        {
            Ask(from, others.Prepend(day));
        }

        return new(new Text(day));
    }

    /// <summary>Nobody knows which of these was meant: they are offered, each as it cannot be mistaken.</summary>
    private void Ask(int from, IEnumerable<string> meant) => listener.Ask(from, meant.Select(one => new Wordage(one, one)));

    private Literal? Text()
    {
        listener.Expect("text in quotation marks", isHint: true);
        if (listener.Next is not { Kind: WordKind.Quoted or WordKind.Plain, Text: var text } word)
        {
            return null;
        }

        var from = listener.At;
        if (word.Kind == WordKind.Plain)
        {
            // A name or a number of its own needs no quotation marks; "if the group is loud" asks something else.
            text = listener.Said[word.Start..word.End];
            if (!text.Any(letter => char.IsUpper(letter) || char.IsDigit(letter)))
            {
                return null;
            }
            listener.At++;
            listener.Guess(from, NameList.Quote(text), []);
            return new(new Text(text));
        }

        listener.At++;
        return new(new Text(text));
    }

    private RelativeDay? Day(FieldType type)
    {
        if (type is not (DateType or DateTimeType))
        {
            return null;
        }

        switch (listener.TakeAny("today", "tomorrow", "yesterday", "in"))
        {
            case "today":
                return listener.Try(() => listener.Take("plus") ? Span(1) : listener.Take("minus") ? Span(-1) : null) ?? new RelativeDay(0);
            case "tomorrow":
                return new(1);
            case "yesterday":
                return new(-1);
            case "in":
                return Span(1);
            default:
                return listener.Try(() => Span(-1) is { } ago && listener.TookAny("ago", "back") ? ago : null)
                    ?? listener.Try(() => Span(1) is { } ahead && listener.TookAny("from now", "ahead", "from today") ? ahead : null);
        }
    }

    private SubjectComparand? OtherField(FieldType type)
    {
        listener.TookAny("value of");
        var index = lexicon.Subjects;
        ImmutableArray<NameMatch<Subject>> comparable = [.. index.Best(listener)
            .Where(match => lexicon.Names.Subjects.Of(match.Name.Thing) is { } other && FittingTests.AreComparable(type, other))];
        return names.Pick(index, comparable) is { } found ? new(found.Thing) : null;
    }

    /// <summary>An expression is written as in a canonical sentence.</summary>
    private Comparand? Expression(FieldType type)
    {
        if (listener.Next is not { Kind: WordKind.Braced, Text: var braced })
        {
            return null;
        }

        try
        {
            var read = new ValueReader(new SentenceReader(braced), lexicon.Names).DemandComparand(type);
            listener.At++;
            return read;
        }
        catch (SentenceException)
        {
            return null;
        }
    }
}
