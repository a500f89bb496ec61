using System.Collections.Immutable;
using Dibujo.Core.Records;
using Dibujo.Core.Values;

namespace Dibujo.Core.Reshaping;

/// <summary>What a field's value becomes when the field gets another type.</summary>
public static class Conversion
{
    /// <summary>The value as the other type holds it; blank where nothing can be made of it.</summary>
    /// <param name="held">A value that fits <paramref name="from"/>.</param>
    /// <param name="from">The field's former type.</param>
    /// <param name="to">Its type from now on. Limits other than digits after the point are not looked at: a value that breaks one stays, to be mended by whoever edits it next.</param>
    public static Value Of(Value held, FieldType from, FieldType to) => held.IsBlank ? Value.Blank : (from, to) switch
    {
        (LinkType one, LinkType other) => one.RecordType == other.RecordType ? held : Value.Blank,
        (NumberType or MoneyType, NumberType or MoneyType) => to.FitGiven(held),
        (YesNoType, NumberType) => new Number(held is YesNo { IsYes: true } ? 1 : 0),
        (IOffersOptions one, IOffersOptions) => to.Fit(Chosen(one, held, (IOffersOptions)to)) ?? Value.Blank,
        (_, TextType) => Text(OneLine(Written(held, from))),
        (_, LongTextType) => Text(Written(held, from)),
        _ => to.Fit(held) is { } same ? to.FitGiven(same) : Read(Written(held, from), to),
    };

    /// <summary>What happens to the value.</summary>
    public static Fate FateOf(Value held, FieldType from, FieldType to)
    {
        var then = Of(held, from, to);
        return then.IsBlank ? Fate.Lost
            : !Of(then, to, from).Equals(held) ? Fate.Altered
            : from.Display(held) == to.Display(then) ? Fate.Kept
            : Fate.Rewritten;
    }

    /// <summary>The value as text that can be read back: labels of choices, numbers without unit or grouping.</summary>
    private static string Written(Value held, FieldType from) => (held, from) switch
    {
        (Choices several, IOffersOptions { Options: var options }) => string.Join("; ", several.Keys.Select(key => OptionList.Find(options, key)?.Label ?? key)),
        (Choice, _) or (Compound, _) => from.Display(held),
        _ => held.Plain,
    };

    private static string OneLine(string text) => string.Join(' ', text.Split(['\r', '\n'], StringSplitOptions.TrimEntries | StringSplitOptions.RemoveEmptyEntries)) is var joined
        && text.AsSpan().ContainsAny('\r', '\n') ? joined : text;

    private static Value Text(string text) => new Text(text) is { IsBlank: false } filled ? filled : Value.Blank;

    private static Value Chosen(IOffersOptions one, Value held, IOffersOptions other)
    {
        ImmutableArray<string> keys = held switch
        {
            Choices several => several.Keys,
            _ => [held.Plain],
        };
        var found = keys.Select(key => OptionList.Find(other.Options, key)?.Key ?? Called(other, OptionList.Find(one.Options, key)?.Label ?? key)).ToList();
        return found.Contains(null) ? Value.Blank : found is [var only] ? new Choice(only!) : new Choices([.. found.OfType<string>().Distinct(StringComparer.Ordinal)]);
    }

    private static string? Called(IOffersOptions type, string label) =>
        type.Options.FirstOrDefault(option => FoldedText.Of(option.Label) == FoldedText.Of(label))?.Key;

    private static Value Read(string text, FieldType to)
    {
        var trimmed = text.Trim();
        return to switch
        {
            NumberType or MoneyType => ExactDecimal.TryParseGrouped(trimmed, out var amount) ? to.FitGiven(new Number(amount)) : Value.Blank,
            LinkType => ExactDecimal.TryParse(trimmed, out var number) ? to.Fit(new Number(number)) ?? Value.Blank : Value.Blank,
            YesNoType => FoldedText.Of(trimmed) switch
            {
                "YES" or "TRUE" or "1" => new YesNo(true),
                "NO" or "FALSE" or "0" => new YesNo(false),
                _ => Value.Blank,
            },
            ChoiceType choice => Called(choice, trimmed) is { } key ? new Choice(key) : Value.Blank,
            ChoicesType choices => trimmed.Split(';', StringSplitOptions.TrimEntries | StringSplitOptions.RemoveEmptyEntries).Select(item => Called(choices, item)).ToList() is var keys
                && keys.Contains(null) ? Value.Blank : new Choices([.. keys.OfType<string>().Distinct(StringComparer.Ordinal)]),
            FullNameType => Name(trimmed),
            AddressType address => trimmed.Split(',', StringSplitOptions.TrimEntries) is var lines && lines.Length == address.Parts.Length
                ? Parted(address.Parts.Zip(lines).Select(part => (part.First.Key, part.Second))) : Parted([(address.Parts[0].Key, trimmed)]),
            _ => to.Fit(new Text(trimmed)) ?? Value.Blank,
        };
    }

    /// <summary>The last word is the family name; who has written it otherwise is told, as the name does not come back the same.</summary>
    private static Value Name(string text) => text.LastIndexOf(' ') is >= 0 and var space
        ? Parted([("given", text[..space].TrimEnd()), ("family", text[(space + 1)..])])
        : Parted([("family", text)]);

    private static Value Parted(IEnumerable<(string Part, string Text)> parts) =>
        parts.Aggregate((Value)Values.Compound.Empty, (value, part) => ((Compound)value).With(part.Part, new Text(part.Text)));
}
