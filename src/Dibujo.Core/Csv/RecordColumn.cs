using System.Collections.Immutable;
using System.Globalization;
using Dibujo.Core.Records;
using Dibujo.Core.Values;

namespace Dibujo.Core.Csv;

/// <summary>A column of a <see cref="RecordTable"/>: a field, or a part of one with parts.</summary>
internal sealed record RecordColumn(string Header, Field Field, string? Part)
{
    internal string Print(Value value) => Harmless((value, Part) switch
    {
        (Compound compound, { } part) => compound[part].Plain,
        (_, { }) => "",
        _ => value.Plain,
    });

    /// <summary>The value of the whole field after this cell was read; null where the cell cannot be read.</summary>
    internal Value? Parse(string cell, Value before)
    {
        // What was written harmless is read back as it was.
        var text = cell is ['\'', ..] && LooksLikeFormula(cell) ? cell[1..] : cell;
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

    /// <summary>The cell with an apostrophe before it where a spreadsheet would take it for a formula.</summary>
    private static string Harmless(string cell) =>
        LooksLikeFormula(cell) && !(cell[0] == '-' && ExactDecimal.TryParse(cell, out _)) ? "'" + cell : cell;

    /// <summary>
    /// Whether it begins like a formula: apostrophes before it are not counted, nor what a spreadsheet passes over (spaces of any kind, and
    /// characters that nobody sees). Wide forms of the signs count as well.
    /// </summary>
    private static bool LooksLikeFormula(string cell)
    {
        var rest = cell.AsSpan().TrimStart('\'');
        if (rest is ['\t' or '\r', ..])
        {
            return true;
        }

        while (rest is [var first, ..] && (char.IsWhiteSpace(first) || char.GetUnicodeCategory(first) is UnicodeCategory.Format or UnicodeCategory.Control))
        {
            rest = rest[1..];
        }

        return rest is ['=' or '+' or '-' or '@' or '\uFF1D' or '\uFF0B' or '\uFF0D' or '\uFF20', ..];
    }

    private static Value? Fit(ChoicesType type, ImmutableArray<string> keys) => type.Fit(new Choices([.. keys.Distinct(StringComparer.Ordinal)]));

    private static string Key(ImmutableArray<Option> options, string item) => options.Any(o => o.Key == item)
        ? item
        : options.FirstOrDefault(o => string.Equals(o.Label, item, StringComparison.OrdinalIgnoreCase))?.Key ?? item;
}
