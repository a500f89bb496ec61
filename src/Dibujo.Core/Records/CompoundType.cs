using System.Collections.Immutable;
using System.Text.Json.Serialization;
using Dibujo.Core.Values;

namespace Dibujo.Core.Records;

/// <summary>A field type whose values have parts, each with a state of its own.</summary>
public abstract record CompoundType : FieldType
{
    private const int MaxPartLength = 200;

    /// <summary>Keys of the parts without which a value is complete all the same.</summary>
    public ImmutableArray<string> OptionalParts { get; init => field = value.OrEmpty(); } = [];

    /// <summary>The parts in the order in which they are filled in.</summary>
    [JsonIgnore]
    public abstract ImmutableArray<Part> Parts { get; }

    /// <summary>The part of that key, or null.</summary>
    public Part? FindPart(string part) => Parts.FirstOrDefault(p => string.Equals(p.Key, part, StringComparison.Ordinal));

    /// <inheritdoc/>
    public override bool IsComplete(Value value) =>
        value is Compound compound && Parts.All(p => OptionalParts.Contains(p.Key, StringComparer.Ordinal) || !compound[p.Key].IsBlank);

    /// <inheritdoc/>
    public override string? Violation(Value value, Value? saved = null) =>
        value is Compound compound && compound.Parts.FirstOrDefault(p => p.Value.Length > MaxPartLength) is { Key: { } key }
            ? $"{FindPart(key)?.Label ?? key} may have at most {MaxPartLength} characters. Shorten it."
            : (value as Compound)?.Parts.Select(p => TextLimits.Unseen(p.Value, isOneLine: true)).FirstOrDefault(mistake => mistake is not null);

    /// <inheritdoc/>
    public override string Display(Value value) => value is Compound compound
        ? string.Join(Separator, Parts.Select(p => compound[p.Key].Plain).Where(text => text.Length > 0))
        : value.Plain;

    private protected abstract string Separator { get; }

    private protected override Value? FitFilled(Value raw) =>
        raw is Compound compound && compound.Parts.Keys.All(key => FindPart(key) is not null) ? compound : null;
}

/// <summary>One part of a <see cref="CompoundType"/>; it holds text.</summary>
public sealed record Part(string Key, string Label);

/// <summary>Given name and family name.</summary>
public sealed record FullNameType : CompoundType
{
    /// <inheritdoc/>
    [JsonIgnore]
    public override string Noun => "a name of the parts given and family";

    /// <inheritdoc/>
    [JsonIgnore]
    public override ImmutableArray<Part> Parts => [new("given", "Given name"), new("family", "Family name")];

    private protected override string Separator => " ";
}

/// <summary>Street, postal code, city and country.</summary>
public sealed record AddressType : CompoundType
{
    /// <inheritdoc/>
    [JsonIgnore]
    public override string Noun => "an address of the parts street, postalCode, city and country";

    /// <inheritdoc/>
    [JsonIgnore]
    public override ImmutableArray<Part> Parts =>
        [new("street", "Street"), new("postalCode", "Postal code"), new("city", "City"), new("country", "Country")];

    private protected override string Separator => ", ";
}
