using System.Collections.Immutable;
using Dibujo.Core.Records;
using Dibujo.Core.Values;

namespace Dibujo.Core.Csv;

/// <summary>A column of a <see cref="RecordTable"/>: a field, or a part of one with parts.</summary>
internal sealed record RecordColumn(string Header, Field Field, string? Part)
{
    internal string Print(Value value) => HarmlessCell.Of((value, Part) switch
    {
        (Compound compound, { } part) => compound[part].Plain,
        (_, { }) => "",
        _ => value.Plain,
    });

    /// <summary>The value of the whole field after this cell was read; null where the cell cannot be read.</summary>
    internal Value? Parse(string cell, Value before)
    {
        // What was written harmless is read back as it was.
        var text = HarmlessCell.Read(cell);
        if (Part is not null)
        {
            return (before as Compound ?? Compound.Empty).With(Part, new Text(text));
        }

        var trimmed = text.Trim();
        return trimmed.Length == 0 ? Value.Blank : Field.Type switch
        {
            YesNoType => trimmed.ToUpperInvariant() switch
            {
                "YES" or "TRUE" or "1" => new YesNo(true),
                "NO" or "FALSE" or "0" => new YesNo(false),
                _ => null,
            },
            NumberType or MoneyType or LinkType => ExactDecimal.TryParseGrouped(trimmed, out var number)
                ? Field.Type.Fit(new Number(number)) : null,
            ChoicesType several => Fit(several, [.. trimmed.Split(';', StringSplitOptions.TrimEntries | StringSplitOptions.RemoveEmptyEntries).Select(item => Key(several.Options, item))]),
            ChoiceType choice => choice.Fit(new Text(Key(choice.Options, trimmed))),
            _ => Field.Type.Fit(new Text(text)),
        };
    }

    private static Value? Fit(ChoicesType type, ImmutableArray<string> keys) => type.Fit(new Choices([.. keys.Distinct(StringComparer.Ordinal)]));

    private static string Key(ImmutableArray<Option> options, string item) => options.Any(o => o.Key == item)
        ? item
        : options.FirstOrDefault(o => string.Equals(o.Label, item, StringComparison.OrdinalIgnoreCase))?.Key ?? item;
}
