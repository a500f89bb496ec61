using System.Collections.Immutable;
using Dibujo.Core.Forms;
using Dibujo.Core.Values;

namespace Dibujo.Core.Programs;

/// <summary>What a claim on a field's value does.</summary>
/// <param name="IsHeld">Whether the value is held for as long as the case is in force; else it is given when the case comes into force.</param>
/// <param name="Slot">Where the value is found; -1 for a fixed one.</param>
/// <param name="Fixed">The value, where it is fixed.</param>
internal readonly record struct ValueCode(bool IsHeld, int Slot, Value Fixed);

/// <summary>What a claim on requirement asks for.</summary>
internal sealed record RequirementCode(Requirement Level, ImmutableArray<string> Moves, string? Message);

/// <summary>What the claims of a program say, beyond what fits into an integer.</summary>
internal sealed class EffectTable
{
    internal required ValueCode[] Values { get; init; }

    internal required RequirementCode[] Requirements { get; init; }

    internal required ImmutableArray<string>[] Choices { get; init; }

    /// <summary>Whether some value is given at the moment when a case comes into force, so that it matters what was in force before.</summary>
    internal required bool HasSets { get; init; }

    /// <summary>For each field, whether some case may give it a value that can be edited after.</summary>
    internal required bool[] IsGiven { get; init; }

    /// <summary>For each slot, the fields to whose values it leads.</summary>
    internal required Adjacency FieldsOfSlot { get; init; }

    /// <summary>For each field, the fields that the values given to it follow from.</summary>
    internal required Adjacency Sources { get; init; }
}
