using System.Text.Json.Serialization;

namespace Dibujo.Core.Records;

/// <summary>
/// What becomes of the records that were kept under the edition before, where the record types alone do not tell it: that
/// one field is another's successor. A field's new type needs no such word, as both types are known.
/// </summary>
[JsonPolymorphic(TypeDiscriminatorPropertyName = "kind")]
[JsonDerivedType(typeof(FieldRenamed), "field")]
[JsonDerivedType(typeof(ChoiceMerged), "choice")]
[JsonDerivedType(typeof(StageRemoved), "stage")]
public abstract record Reshape;

/// <summary>What a field held it holds under another key.</summary>
public sealed record FieldRenamed(string From, string To) : Reshape;

/// <summary>Whoever had one choice of a field has another one, which is there already.</summary>
/// <param name="Field">Key of the field at that moment.</param>
/// <param name="From">Key of the choice that is no more.</param>
/// <param name="To">Key of the one in its place.</param>
public sealed record ChoiceMerged(string Field, string From, string To) : Reshape;

/// <summary>Records of a workflow that stand at a stage which is no more go to another one.</summary>
/// <param name="Workflow">Key of the workflow.</param>
/// <param name="From">Key of the stage that it no longer has.</param>
/// <param name="To">Key of the stage to which they go.</param>
public sealed record StageRemoved(string Workflow, string From, string To) : Reshape;
