using System.Collections.Immutable;
using System.Text.Json.Serialization;

namespace Dibujo.Core.Conditions;

/// <summary>Something that is true or false of a record in its setting, never an error.</summary>
[JsonPolymorphic(TypeDiscriminatorPropertyName = "kind")]
[JsonDerivedType(typeof(Group), "group")]
[JsonDerivedType(typeof(Clause), "clause")]
public abstract record Condition;

/// <summary>Several conditions taken together. An empty <c>AllOf</c> or <c>NoneOf</c> holds; an empty <c>AnyOf</c> does not.</summary>
public sealed record Group(Quantifier Quantifier, ImmutableArray<Condition> Members) : Condition
{
    /// <inheritdoc/>
    public bool Equals(Group? other) =>
        other is not null && Quantifier == other.Quantifier && Members.SequenceEqual(other.Members);

    /// <inheritdoc/>
    public override int GetHashCode() => HashCode.Combine(Quantifier, Members.Length);
}

/// <summary>Subject, test, comparand: the smallest condition.</summary>
/// <param name="Subject">What is looked at.</param>
/// <param name="Test">What is asked of it.</param>
public sealed record Clause(Subject Subject, Test Test) : Condition
{
    /// <summary>
    /// What the subject is compared with: none for blank and filled in, two for a range, one or more for "one of", else one.
    /// </summary>
    public ImmutableArray<Comparand> Comparands { get; init => field = value.OrEmpty(); } = [];

    /// <inheritdoc/>
    public bool Equals(Clause? other) =>
        other is not null && Test == other.Test && Subject.Equals(other.Subject) && Comparands.SequenceEqual(other.Comparands);

    /// <inheritdoc/>
    public override int GetHashCode() => HashCode.Combine(Subject, Test, Comparands.Length);
}

/// <summary>How many members of a <see cref="Group"/> must hold.</summary>
[JsonConverter(typeof(CamelCaseEnum<Quantifier>))]
public enum Quantifier
{
    /// <summary>Every member.</summary>
    AllOf,

    /// <summary>At least one member.</summary>
    AnyOf,

    /// <summary>No member: the negation of <see cref="AnyOf"/>.</summary>
    NoneOf,
}
