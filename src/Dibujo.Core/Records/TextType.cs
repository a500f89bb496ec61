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
    public override string? Violation(Value value, Value? saved = null) => TextLimits.Violation(value, MaxLength, isOneLine: true);

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
    public override string? Violation(Value value, Value? saved = null) => TextLimits.Violation(value, MaxLength, isOneLine: false);

    private protected override Value? FitFilled(Value raw) => raw as Text;
}

internal static class TextLimits
{
    internal static string? Violation(Value value, int maxLength, bool isOneLine) =>
        value.Plain.Length > maxLength
            ? $"This has {value.Plain.Length} characters; at most {maxLength} fit. Shorten it."
            : Unseen(value.Plain, isOneLine);

    /// <summary>What in the text is no letter that could be seen: control characters, and breaks where there is one line.</summary>
    internal static string? Unseen(string text, bool isOneLine)
    {
        foreach (var letter in text)
        {
            if (letter is '\n' or '\r' or '\u0085' or '\u2028' or '\u2029')
            {
                if (isOneLine)
                {
                    return "This field takes one line. Take the line breaks out.";
                }
            }
            else if (char.IsControl(letter) && (isOneLine || letter != '\t'))
            {
                return letter == '\t'
                    ? "There is a tab in this text. Write a space in its place."
                    : $"There is a control character in this text (U+{(int)letter:X4}), which nobody can see. Type the text anew.";
            }
        }

        return null;
    }
}
