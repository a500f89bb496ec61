using System.Text.Json.Serialization;
using Dibujo.Core.Values;

namespace Dibujo.Core.Records;

/// <summary>One line of text.</summary>
/// <param name="MaxLength">The most characters it may have.</param>
public sealed record TextType(int MaxLength = 200) : FieldType
{
    /// <inheritdoc/>
    [JsonIgnore]
    public override string Noun => "text";

    /// <inheritdoc/>
    public override string? Violation(Value value) => TextLimits.Violation(value, MaxLength);

    private protected override Value? FitFilled(Value raw) => raw as Text;
}

/// <summary>Text of several lines.</summary>
/// <param name="MaxLength">The most characters it may have.</param>
public sealed record LongTextType(int MaxLength = 4000) : FieldType
{
    /// <inheritdoc/>
    [JsonIgnore]
    public override string Noun => "text";

    /// <inheritdoc/>
    public override string? Violation(Value value) => TextLimits.Violation(value, MaxLength);

    private protected override Value? FitFilled(Value raw) => raw as Text;
}

internal static class TextLimits
{
    internal static string? Violation(Value value, int maxLength) =>
        value.Plain.Length > maxLength
            ? $"This has {value.Plain.Length} characters; at most {maxLength} fit. Shorten it."
            : null;
}
