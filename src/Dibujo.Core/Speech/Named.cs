using System.Collections.Immutable;

namespace Dibujo.Core.Speech;

/// <summary>Something that can be named.</summary>
/// <param name="Thing">What it is.</param>
/// <param name="Text">Its name as it stands in a canonical sentence.</param>
/// <param name="Words">The words by which people call it.</param>
internal sealed record Named<T>(T Thing, string Text, ImmutableArray<string> Words)
{
    internal Named(T thing, string text, string label)
        : this(thing, text, [.. Speech.Words.Of(label).Select(word => word.Text.ToLowerInvariant())])
    {
    }
}

/// <summary>A name that begins at some word.</summary>
/// <param name="Name">Whose.</param>
/// <param name="Length">How many words it takes.</param>
/// <param name="Closeness">How well they fit it.</param>
internal readonly record struct NameMatch<T>(Named<T> Name, int Length, Closeness Closeness);

/// <summary>How well words fit a name, the best last.</summary>
internal enum Closeness
{
    ShortenedWithSlip,
    Slip,

    /// <summary>Words of it are left out.</summary>
    Shortened,

    /// <summary>In the plural, or in the singular.</summary>
    OtherForm,

    Whole,
}
