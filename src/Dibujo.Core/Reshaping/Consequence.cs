using System.Collections.Immutable;

namespace Dibujo.Core.Reshaping;

/// <summary>What one change of a record type does to the records that there are.</summary>
/// <param name="What">The change, as a sentence.</param>
/// <param name="Field">Key of the field that it is about, as it is then; null for a stage.</param>
/// <param name="Records">How many records it meets.</param>
/// <param name="Rewritten">How many of them read otherwise and lose nothing.</param>
/// <param name="Altered">How many lose something of a value, or come together with others.</param>
/// <param name="Lost">How many lose the whole value; the history keeps it.</param>
/// <param name="Examples">Some of those that do not read as before.</param>
public sealed record Consequence(string What, string? Field, int Records, int Rewritten, int Altered, int Lost, ImmutableArray<ReshapedValue> Examples);

/// <summary>A record's value before and after, as people read it.</summary>
/// <param name="Record">Number of the record.</param>
/// <param name="Title">What it is called.</param>
/// <param name="Fate">What becomes of the value.</param>
/// <param name="Before">The value now.</param>
/// <param name="After">The value then; empty for nothing.</param>
public sealed record ReshapedValue(int Record, string Title, Fate Fate, string Before, string After);
