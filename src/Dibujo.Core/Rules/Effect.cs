using System.Collections.Immutable;
using System.Text.Json.Serialization;
using Dibujo.Core.Forms;

namespace Dibujo.Core.Rules;

/// <summary>What a case in force does to some elements. It comes undone by itself when the case ends.</summary>
[JsonPolymorphic(TypeDiscriminatorPropertyName = "kind")]
[JsonDerivedType(typeof(Show), "show")]
[JsonDerivedType(typeof(Hide), "hide")]
[JsonDerivedType(typeof(Require), "require")]
[JsonDerivedType(typeof(MakeOptional), "makeOptional")]
[JsonDerivedType(typeof(Lock), "lock")]
[JsonDerivedType(typeof(Unlock), "unlock")]
public abstract record Effect(ImmutableArray<Element> Targets);

/// <summary>Shows what rests hidden or what a lower rule hides.</summary>
public sealed record Show(ImmutableArray<Element> Targets) : Effect(Targets);

/// <summary>Hides elements, and says what becomes of the values in them.</summary>
public sealed record Hide(ImmutableArray<Element> Targets, HiddenValue Value = HiddenValue.Keep) : Effect(Targets);

/// <summary>Asks for elements to be filled in; on a container it asks for each of its fields.</summary>
public sealed record Require(ImmutableArray<Element> Targets, Requirement Level = Requirement.ToMoveOn) : Effect(Targets);

/// <summary>Asks for nothing, where the resting state or a lower rule asks.</summary>
public sealed record MakeOptional(ImmutableArray<Element> Targets) : Effect(Targets);

/// <summary>Makes elements readable only.</summary>
public sealed record Lock(ImmutableArray<Element> Targets) : Effect(Targets);

/// <summary>Opens elements that rest locked or that a lower rule locks.</summary>
public sealed record Unlock(ImmutableArray<Element> Targets) : Effect(Targets);
