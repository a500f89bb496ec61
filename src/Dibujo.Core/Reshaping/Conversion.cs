using System.Collections.Immutable;
using Dibujo.Core.Notations;
using Dibujo.Core.Records;
using Dibujo.Core.Values;

namespace Dibujo.Core.Reshaping;

/// <summary>What a field's value becomes when the field gets another type.</summary>
public static class Conversion
{
    private static readonly Notation AsWritten = Notation.Plain with { IsDecided = true };

    /// <summary>The value as the other type holds it; blank where nothing can be made of it.</summary>
    /// <param name="held">A value that fits <paramref name="from"/>.</param>
    /// <param name="from">The field's former type.</param>
    /// <param name="to">Its type from now on. Limits other than digits after the point are not looked at: a value that breaks one stays, to be mended by whoever edits it next.</param>
    /// <param name="names">Knows the people and records that there are.</param>
    public static Value Of(Value held, FieldType from, FieldType to, IKnownNames names) => held.IsBlank ? Value.Blank : (from, to) switch
    {
        (LinkType one, LinkType other) => one.RecordType == other.RecordType ? held : Value.Blank,
        (NumberType or MoneyType, NumberType or MoneyType) => to.FitGiven(held),
        (YesNoType, NumberType) => new Number(held is YesNo { IsYes: true } ? 1 : 0),
        (IOffersOptions one, IOffersOptions) => to.Fit(Chosen(one, held, (IOffersOptions)to)) ?? Value.Blank,
        (PersonType, PersonType) => held,
        (_, TextType) => Text(OneLine(Written(held, from))),
        (_, LongTextType) => Text(Written(held, from)),
        (_, PersonType or LinkType) => Known(Written(held, from), to, names),
        _ => to.Fit(held) is { } same ? to.FitGiven(same) : Read(Written(held, from), to),
    };

    /// <summary>What happens to the value.</summary>
    public static Fate FateOf(Value held, FieldType from, FieldType to, IKnownNames names)
    {
        var then = Of(held, from, to, names);
        return then.IsBlank ? Fate.Lost
            : !Of(then, to, from, names).Equals(held) ? Fate.Altered
            : from.Display(held) == to.Display(then) ? Fate.Kept
            : Fate.Rewritten;
    }

    /// <summary>The value as text that can be read back: labels of choices, parts with commas between, numbers without unit or grouping, days as in ISO 8601.</summary>
    private static string Written(Value held, FieldType from) =>
        held is Choice or Choices or Compound ? Notation.Plain.Write(held, from, NoNames.Instance) : held.Plain;

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

    /// <summary>What a text says without doubt, or, where it may be read in several ways, as it is read most often: who finds another there is told, as it does not come back the same.</summary>
    private static Value Read(string text, FieldType to) => AsWritten.Read(text, to, NoNames.Instance, default).Certain is { } value ? to.FitGiven(value) : Value.Blank;

    /// <summary>The person or record of which a text speaks; blank where there is none, or several.</summary>
    private static Value Known(string text, FieldType to, IKnownNames names) => AsWritten.Read(text.Trim(), to, names, default).Certain switch
    {
        Link link when names.TitleOf(((LinkType)to).RecordType, link.Record) is null => Value.Blank,
        { } there => there,
        null => Value.Blank,
    };
}
