using System.Collections.Immutable;
using System.Text.Json.Serialization;
using Dibujo.Core.Conditions;
using Dibujo.Core.Forms;

namespace Dibujo.Core.Rules;

/// <summary>What a case in force does. It comes undone by itself when the case ends.</summary>
[JsonPolymorphic(TypeDiscriminatorPropertyName = "kind")]
[JsonDerivedType(typeof(Show), "show")]
[JsonDerivedType(typeof(Hide), "hide")]
[JsonDerivedType(typeof(Require), "require")]
[JsonDerivedType(typeof(MakeOptional), "makeOptional")]
[JsonDerivedType(typeof(Lock), "lock")]
[JsonDerivedType(typeof(Unlock), "unlock")]
[JsonDerivedType(typeof(SetValue), "set")]
[JsonDerivedType(typeof(ClearValue), "clear")]
[JsonDerivedType(typeof(ResetValue), "reset")]
[JsonDerivedType(typeof(Calculate), "calculate")]
[JsonDerivedType(typeof(Narrow), "narrow")]
[JsonDerivedType(typeof(Message), "message")]
[JsonDerivedType(typeof(Suggest), "suggest")]
[JsonDerivedType(typeof(JumpAhead), "jumpAhead")]
[JsonDerivedType(typeof(EndForm), "endForm")]
public abstract record Effect;

/// <summary>An effect on the state of elements: one facet of each.</summary>
public abstract record StateEffect(ImmutableArray<Element> Targets) : Effect
{
    /// <inheritdoc/>
    public virtual bool Equals(StateEffect? other) =>
        other is not null && EqualityContract == other.EqualityContract && Targets.SequenceEqual(other.Targets);

    /// <inheritdoc/>
    public override int GetHashCode() => HashCode.Combine(EqualityContract, Targets.Length);
}

/// <summary>Shows what rests hidden or what a lower rule hides.</summary>
public sealed record Show(ImmutableArray<Element> Targets) : StateEffect(Targets);

/// <summary>Hides elements, and says what becomes of the values in them.</summary>
public sealed record Hide(ImmutableArray<Element> Targets, HiddenValue Value = HiddenValue.Keep) : StateEffect(Targets);

/// <summary>Asks for elements to be filled in; on a container it asks for each of its fields.</summary>
/// <param name="Targets">What is asked for.</param>
/// <param name="Level">How strongly.</param>
/// <param name="Message">What a person reads who left it out, in the administrator's own words; null for ours.</param>
public sealed record Require(ImmutableArray<Element> Targets, Requirement Level = Requirement.ToMoveOn, string? Message = null)
    : StateEffect(Targets)
{
    /// <summary>Keys of the moves for which it is needed, at the level "to move on"; empty: any move.</summary>
    public ImmutableArray<string> Moves { get; init => field = value.OrEmpty(); } = [];

    /// <inheritdoc/>
    public bool Equals(Require? other) => base.Equals(other) && Level == other.Level && Message == other.Message
        && Moves.SequenceEqual(other.Moves, StringComparer.Ordinal);

    /// <inheritdoc/>
    public override int GetHashCode() => HashCode.Combine(base.GetHashCode(), Level, Message);
}

/// <summary>Asks for nothing, where the resting state or a lower rule asks.</summary>
public sealed record MakeOptional(ImmutableArray<Element> Targets) : StateEffect(Targets);

/// <summary>Makes elements readable only.</summary>
public sealed record Lock(ImmutableArray<Element> Targets) : StateEffect(Targets);

/// <summary>Opens elements that rest locked or that a lower rule locks.</summary>
public sealed record Unlock(ImmutableArray<Element> Targets) : StateEffect(Targets);

/// <summary>An effect on what one field holds or offers.</summary>
public abstract record FieldEffect(string Field) : Effect;

/// <summary>Gives a field a value when the case comes into force; it may be edited after. See <see cref="Calculate"/>.</summary>
public sealed record SetValue(string Field, Comparand To) : FieldEffect(Field);

/// <summary>Empties a field when the case comes into force; it may be filled in after.</summary>
public sealed record ClearValue(string Field) : FieldEffect(Field);

/// <summary>Gives a field its default again when the case comes into force, or empties it where it has none; it may be edited after.</summary>
/// <remarks>The field stays in view, unlike with <see cref="HiddenValue.Reset"/>.</remarks>
public sealed record ResetValue(string Field) : FieldEffect(Field);

/// <summary>Holds a field's value equal to something for as long as the case is in force, and locks it. See <see cref="SetValue"/>.</summary>
public sealed record Calculate(string Field, Comparand From) : FieldEffect(Field);

/// <summary>Offers only some of a field's choices.</summary>
/// <param name="Field">A field with choices.</param>
/// <param name="Options">Keys of the choices that are left.</param>
public sealed record Narrow(string Field, ImmutableArray<string> Options) : FieldEffect(Field)
{
    /// <inheritdoc/>
    public bool Equals(Narrow? other) => other is not null && Field == other.Field && Options.SequenceEqual(other.Options, StringComparer.Ordinal);

    /// <inheritdoc/>
    public override int GetHashCode() => HashCode.Combine(Field, Options.Length);
}

/// <summary>Says something to the person; see <see cref="Severity"/> for what it keeps from happening.</summary>
/// <param name="Severity">How serious it is.</param>
/// <param name="Text">What is said; a field's key in braces stands for its value.</param>
/// <param name="At">The element beside which it stands; null: above the form.</param>
public sealed record Message(Severity Severity, string Text, Element? At = null) : Effect;

/// <summary>Advises a value, which the person takes over with one press or not at all.</summary>
public sealed record Suggest(string Field, Comparand Value, string Reason) : Effect;

/// <summary>
/// Hides, without touching values, whatever stands on the form between the last field that the case's condition looks at
/// and the element named.
/// </summary>
public sealed record JumpAhead(Element To) : Effect;

/// <summary>Ends the form after the last field that the case's condition looks at: hides the rest and says why.</summary>
public sealed record EndForm(string Note) : Effect;

/// <summary>What a message keeps from happening.</summary>
[JsonConverter(typeof(CamelCaseEnum<Severity>))]
public enum Severity
{
    /// <summary>Nothing: for information.</summary>
    Note,

    /// <summary>Nothing, but the person should think again.</summary>
    Warning,

    /// <summary>The record may be saved but not moved to another stage.</summary>
    StopsMoving,

    /// <summary>The record may not be saved.</summary>
    StopsSaving,
}
