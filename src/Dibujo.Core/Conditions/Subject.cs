using System.Text.Json.Serialization;

namespace Dibujo.Core.Conditions;

/// <summary>What a clause looks at.</summary>
[JsonPolymorphic(TypeDiscriminatorPropertyName = "kind")]
[JsonDerivedType(typeof(FieldSubject), "field")]
[JsonDerivedType(typeof(StageSubject), "stage")]
[JsonDerivedType(typeof(RoleSubject), "role")]
public abstract record Subject;

/// <summary>The field's value as it stands on the form, unsaved changes included.</summary>
public sealed record FieldSubject(string Field) : Subject;

/// <summary>The stage that the record is in, in the order of its workflow.</summary>
public sealed record StageSubject : Subject;

/// <summary>The roles of the person who looks at the record.</summary>
public sealed record RoleSubject : Subject;
