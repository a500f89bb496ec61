using System.Text.Json.Serialization;

namespace Dibujo.Core.Sentences;

/// <summary>What a part of a sentence stands for.</summary>
[JsonConverter(typeof(CamelCaseEnum<PartKind>))]
public enum PartKind
{
    /// <summary>A word or mark of the language itself: while, and, otherwise, a comma.</summary>
    Keyword,

    /// <summary>What a clause looks at.</summary>
    Subject,

    /// <summary>What it asks.</summary>
    Test,

    /// <summary>What it compares with.</summary>
    Comparand,

    /// <summary>What an effect does.</summary>
    Verb,

    /// <summary>An element that it does it to.</summary>
    Target,

    /// <summary>How it does it: to save, and clear.</summary>
    Detail,
}

/// <summary>A piece of a rule's sentence.</summary>
/// <param name="Kind">What it stands for.</param>
/// <param name="Text">What is read; labels, not keys.</param>
/// <param name="Place">JSON Pointer within the rule to what it stands for; empty for keywords.</param>
/// <param name="Glued">Whether it follows the part before it without a space.</param>
public sealed record SentencePart(PartKind Kind, string Text, string Place = "", bool Glued = false);
