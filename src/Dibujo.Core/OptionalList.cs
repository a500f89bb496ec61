using System.Collections.Immutable;

namespace Dibujo.Core;

/// <summary>Lists that a file may leave out.</summary>
internal static class OptionalList
{
    /// <summary>The list itself, or the empty one where it was left out.</summary>
    internal static ImmutableArray<T> OrEmpty<T>(this ImmutableArray<T> list) => list.IsDefault ? [] : list;
}
