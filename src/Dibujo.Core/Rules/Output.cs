using System.Collections.Immutable;
using System.Text.Json.Serialization;
using Dibujo.Core.Conditions;
using Dibujo.Core.Forms;

namespace Dibujo.Core.Rules;

/// <summary>What a column on the right of a <see cref="DecisionTable"/> speaks of.</summary>
[JsonPolymorphic(TypeDiscriminatorPropertyName = "kind")]
[JsonDerivedType(typeof(StateOutput), "state")]
[JsonDerivedType(typeof(ValueOutput), "value")]
[JsonDerivedType(typeof(ChoicesOutput), "choices")]
[JsonDerivedType(typeof(MessageOutput), "message")]
public abstract record Output
{
    /// <summary>What the answer in a cell of this column does; nothing for an answer of another kind, or none.</summary>
    public abstract IEnumerable<Effect> Effects(Answer answer);
}

/// <summary>The states of elements; answered with <see cref="StateAnswer"/>.</summary>
public sealed record StateOutput(ImmutableArray<Element> Targets) : Output
{
    /// <inheritdoc/>
    public override IEnumerable<Effect> Effects(Answer answer) => answer is StateAnswer states
        ? states.States.Select(state => (Effect)(state switch
        {
            State.Shown => new Show(Targets),
            State.Hidden => new Hide(Targets),
            State.HiddenAndCleared => new Hide(Targets, HiddenValue.Clear),
            State.HiddenAndReset => new Hide(Targets, HiddenValue.Reset),
            State.RequiredToMoveOn => new Require(Targets),
            State.RequiredToSave => new Require(Targets, Requirement.ToSave),
            State.Optional => new MakeOptional(Targets),
            State.Locked => new Lock(Targets),
            _ => new Unlock(Targets),
        }))
        : [];

    /// <inheritdoc/>
    public bool Equals(StateOutput? other) => other is not null && Targets.SequenceEqual(other.Targets);

    /// <inheritdoc/>
    public override int GetHashCode() => Targets.Length;
}

/// <summary>A field's value, set or held as <see cref="SetValue"/> and <see cref="Calculate"/> do; answered with <see cref="ValueAnswer"/>.</summary>
public sealed record ValueOutput(string Field, bool Held = false) : Output
{
    /// <inheritdoc/>
    public override IEnumerable<Effect> Effects(Answer answer) => answer is ValueAnswer { Value: var value }
        ? [Held ? new Calculate(Field, value) : new SetValue(Field, value)]
        : [];
}

/// <summary>Which choices a field offers; answered with <see cref="ChoicesAnswer"/>.</summary>
public sealed record ChoicesOutput(string Field) : Output
{
    /// <inheritdoc/>
    public override IEnumerable<Effect> Effects(Answer answer) => answer is ChoicesAnswer { Options: var options } ? [new Narrow(Field, options)] : [];
}

/// <summary>A message; answered with <see cref="TextAnswer"/>.</summary>
public sealed record MessageOutput(Severity Severity, Element? At = null) : Output
{
    /// <inheritdoc/>
    public override IEnumerable<Effect> Effects(Answer answer) => answer is TextAnswer { Text: var text } ? [new Message(Severity, text, At)] : [];
}

/// <summary>What a cell on the right of a <see cref="DecisionTable"/> says.</summary>
[JsonPolymorphic(TypeDiscriminatorPropertyName = "kind")]
[JsonDerivedType(typeof(NoAnswer), "none")]
[JsonDerivedType(typeof(StateAnswer), "states")]
[JsonDerivedType(typeof(ValueAnswer), "value")]
[JsonDerivedType(typeof(ChoicesAnswer), "choices")]
[JsonDerivedType(typeof(TextAnswer), "text")]
public abstract record Answer;

/// <summary>Nothing follows here.</summary>
public sealed record NoAnswer : Answer;

/// <summary>States, at most one of each facet.</summary>
public sealed record StateAnswer(ImmutableArray<State> States) : Answer
{
    /// <inheritdoc/>
    public bool Equals(StateAnswer? other) => other is not null && States.SequenceEqual(other.States);

    /// <inheritdoc/>
    public override int GetHashCode() => States.Length;
}

/// <summary>A value for the field.</summary>
public sealed record ValueAnswer(Comparand Value) : Answer;

/// <summary>Keys of the choices that are left.</summary>
public sealed record ChoicesAnswer(ImmutableArray<string> Options) : Answer
{
    /// <inheritdoc/>
    public bool Equals(ChoicesAnswer? other) => other is not null && Options.SequenceEqual(other.Options, StringComparer.Ordinal);

    /// <inheritdoc/>
    public override int GetHashCode() => Options.Length;
}

/// <summary>The text of the message.</summary>
public sealed record TextAnswer(string Text) : Answer;

/// <summary>A state in a cell: an effect in one word.</summary>
[JsonConverter(typeof(CamelCaseEnum<State>))]
public enum State
{
    /// <summary>As <see cref="Show"/> does.</summary>
    Shown,

    /// <summary>As <see cref="Hide"/> does.</summary>
    Hidden,

    /// <summary>As <see cref="Hide"/> with <see cref="HiddenValue.Clear"/> does.</summary>
    HiddenAndCleared,

    /// <summary>As <see cref="Hide"/> with <see cref="HiddenValue.Reset"/> does.</summary>
    HiddenAndReset,

    /// <summary>As <see cref="Require"/> with <see cref="Requirement.ToMoveOn"/> does.</summary>
    RequiredToMoveOn,

    /// <summary>As <see cref="Require"/> with <see cref="Requirement.ToSave"/> does.</summary>
    RequiredToSave,

    /// <summary>As <see cref="MakeOptional"/> does.</summary>
    Optional,

    /// <summary>As <see cref="Lock"/> does.</summary>
    Locked,

    /// <summary>As <see cref="Unlock"/> does.</summary>
    Open,
}
