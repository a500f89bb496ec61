using System.Collections.Immutable;
using System.Text.Json.Serialization;
using Dibujo.Core.Values;

namespace Dibujo.Core.Records;

/// <summary>One out of a list of choices.</summary>
/// <param name="Options">The choices in the order in which they are offered.</param>
public sealed record ChoiceType(ImmutableArray<Option> Options) : FieldType
{
    /// <inheritdoc/>
    [JsonIgnore]
    public override string Noun => "one of " + string.Join(", ", Options.Select(o => o.Key));

    /// <inheritdoc/>
    public override string? Violation(Value value) =>
        value is Choice c && Find(c.Key) is { Retired: true } option
            ? $"“{option.Label}” is no longer offered. Choose another."
            : null;

    /// <inheritdoc/>
    public override string Display(Value value) => value is Choice c ? Find(c.Key)?.Label ?? c.Key : value.Plain;

    private Option? Find(string key) => Options.FirstOrDefault(o => string.Equals(o.Key, key, StringComparison.Ordinal));

    private protected override Value? FitFilled(Value raw) => raw switch
    {
        Choice choice when Find(choice.Key) is not null => choice,
        Text text when Find(text.Content) is not null => new Choice(text.Content),
        _ => null,
    };
}

/// <summary>One choice of a <see cref="ChoiceType"/>.</summary>
/// <param name="Key">What is stored and compared.</param>
/// <param name="Label">What people read.</param>
/// <param name="Retired">Kept for the records that have it; not to be chosen any more.</param>
public sealed record Option(string Key, string Label, bool Retired = false);
