using System.Text.Json.Serialization;
using Dibujo.Core.Values;

namespace Dibujo.Core.Conditions;

/// <summary>What a subject is compared with.</summary>
[JsonPolymorphic(TypeDiscriminatorPropertyName = "kind")]
[JsonDerivedType(typeof(Literal), "literal")]
[JsonDerivedType(typeof(FieldComparand), "field")]
public abstract record Comparand;

/// <summary>A fixed value; the key of a choice, stage or role.</summary>
public sealed record Literal(Value Value) : Comparand;

/// <summary>The value that another field has at the same moment.</summary>
public sealed record FieldComparand(string Field) : Comparand;
