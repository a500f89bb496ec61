using Dibujo.Core.Notations;
using Dibujo.Core.Records;
using Dibujo.Core.Values;

namespace Dibujo.Core.Csv;

/// <summary>A column of a <see cref="RecordTable"/>: a field, or a part of one with parts.</summary>
/// <param name="Header">How the file calls it.</param>
/// <param name="Field">The field.</param>
/// <param name="Part">Key of the part; null for the whole.</param>
/// <param name="IsByKey">Whether the file calls it by its key, as the application does that writes what it means; else it is people who write.</param>
internal sealed record RecordColumn(string Header, Field Field, string? Part, bool IsByKey = true)
{
    internal string Print(Value value) => HarmlessCell.Of((value, Part) switch
    {
        (Compound compound, { } part) => compound[part].Plain,
        (_, { }) => "",
        _ => value.Plain,
    });

    /// <summary>What the value of the whole field is after this cell was read.</summary>
    internal Reading Read(string cell, Value before, Notation notation, IKnownNames names, DateOnly today)
    {
        // What was written harmless is read back as it was.
        var text = HarmlessCell.Read(cell);
        if (Part is not null)
        {
            return new Reading.Of((before as Compound ?? Compound.Empty).With(Part, new Text(text)));
        }

        return (IsByKey ? Plain(text) : null) is { } plain ? new Reading.Of(plain) : notation.Take(new Text(text), Field.Type, names, today);
    }

    /// <summary>The value that the application has written without any notation; null where it has not.</summary>
    private Value? Plain(string text)
    {
        var trimmed = text.Trim();
        return trimmed.Length == 0 ? Value.Blank : Field.Type switch
        {
            NumberType or MoneyType or LinkType => ExactDecimal.TryParseGrouped(trimmed, out var number) ? Field.Type.Fit(new Number(number)) : null,
            ChoicesType several => several.Fit(new Choices([.. trimmed.Split(';', StringSplitOptions.TrimEntries | StringSplitOptions.RemoveEmptyEntries).Distinct(StringComparer.Ordinal)])),
            TextType or LongTextType or PersonType => null,
            _ => Field.Type.Fit(new Text(trimmed)),
        };
    }
}
