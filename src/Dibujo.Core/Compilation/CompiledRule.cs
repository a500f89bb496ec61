using System.Collections.Immutable;
using Dibujo.Core.Checking;
using Dibujo.Core.Conditions;
using Dibujo.Core.Programs;
using Dibujo.Core.Rules;

namespace Dibujo.Core.Compilation;

/// <summary>What one rule comes to, whatever other rules there are: numbers are those of its <see cref="Frame"/>.</summary>
internal sealed class CompiledRule
{
    /// <summary>What keeps it from being compiled, with places within the rule; then nothing else is there.</summary>
    internal ImmutableArray<Problem> Problems { get; init; } = [];

    internal ImmutableArray<Case> Cases { get; init; } = [];

    /// <summary>The derived slots that it uses, in the order of its text, counted from 0.</summary>
    internal int[] Slots { get; init; } = [];

    internal int[] Clauses { get; init; } = [];

    internal int[] Groups { get; init; } = [];

    /// <summary>How it decides: first for the record at large.</summary>
    internal CompiledVariant[] Variants { get; init; } = [];

    internal CompiledClaim[] Claims { get; init; } = [];

    /// <summary>The fields at whose live values it looks, ascending.</summary>
    internal int[] Mentioned { get; init; } = [];

    /// <summary>The fields that need shadows of what encloses them because of it.</summary>
    internal int[] Shadowed { get; init; } = [];

    /// <summary>For a variant and a field whose own saved value it looks at, the variant that does.</summary>
    internal Dictionary<(int Variant, int Field), int> Own { get; init; } = [];

    /// <summary>What its claims say of values; slots are the frame's.</summary>
    internal ValueCode[] Values { get; init; } = [];

    internal RequirementCode[] Requirements { get; init; } = [];

    internal ImmutableArray<string>[] Choices { get; init; } = [];

    /// <summary>Its suggestions; they name rule 0.</summary>
    internal AdviceCode[] Advice { get; init; } = [];

    /// <summary>Whether some case says a message.</summary>
    internal bool Speaks { get; init; }
}

/// <summary>A rule as it decides over something.</summary>
/// <param name="OwnField">The field that it sees as it was saved; -1 for none.</param>
/// <param name="Form">Key of the form at which alone it holds; null for all.</param>
/// <param name="Limit">What must hold before any case is looked at; null for nothing.</param>
/// <param name="Conditions">Of its cases.</param>
internal sealed record CompiledVariant(int OwnField, string? Form, Condition? Limit, int[] Conditions);

/// <summary>A claim of a rule.</summary>
/// <param name="Element">On which element.</param>
/// <param name="Facet">On which facet.</param>
/// <param name="Variant">By which of the rule's variants.</param>
/// <param name="Case">The case that must be in force.</param>
/// <param name="Says">See <see cref="ClaimCode"/>; an index is one into the rule's own lists.</param>
internal readonly record struct CompiledClaim(int Element, Facet Facet, int Variant, int Case, int Says);
