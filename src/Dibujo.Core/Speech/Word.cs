using System.Collections.Immutable;

namespace Dibujo.Core.Speech;

/// <summary>One word of what somebody said.</summary>
/// <param name="Text">In small letters and with the straight apostrophe; of quoted text, what is quoted.</param>
/// <param name="Kind">What it is.</param>
/// <param name="Start">Where it begins in what was typed.</param>
/// <param name="End">Where it ends there.</param>
internal readonly record struct Word(string Text, WordKind Kind, int Start, int End)
{
    /// <summary>The key that stands after # behind quoted text; null where none does.</summary>
    internal string? Key { get; init; }

    /// <summary>Of a day, what else it may be as its writer writes; default or empty where that is certain.</summary>
    internal ImmutableArray<string> Others { get; init; }
}

/// <summary>What a <see cref="Word"/> is.</summary>
internal enum WordKind
{
    Plain,

    /// <summary>Digits, with what its writer sets between and behind them.</summary>
    Number,

    /// <summary>A calendar day; its text is the day as it is stored.</summary>
    Day,

    Quoted,

    /// <summary>An expression in braces, with them.</summary>
    Braced,

    /// <summary>Anything else, one sign each.</summary>
    Mark,
}
