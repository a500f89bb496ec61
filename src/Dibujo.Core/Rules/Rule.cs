using System.Collections.Immutable;
using Dibujo.Core.Conditions;
using Dibujo.Core.Records;

namespace Dibujo.Core.Rules;

/// <summary>A named piece of behaviour: the first of its cases whose condition holds is in force.</summary>
/// <param name="Key">Identifies the rule for good, also when its name or place in the list changes.</param>
/// <param name="Name">What people call it.</param>
/// <param name="Reason">What it is for and who asked, for the next person.</param>
/// <param name="On">A rule that is off does nothing at all.</param>
/// <param name="Table">The cases as a decision table; then <see cref="Cases"/> is empty.</param>
/// <param name="Where">Where it applies; null: everywhere.</param>
/// <param name="Group">Name of the group under which people find it in the list; null: none. It changes nothing of what the rule does.</param>
public sealed record Rule(
    string Key, string Name, string? Reason = null, bool On = true, DecisionTable? Table = null, Scope? Where = null, string? Group = null)
{
    /// <summary>In the order in which they are tried.</summary>
    public ImmutableArray<Case> Cases { get; init => field = value.OrEmpty(); } = [];

    /// <summary>What is evaluated: the cases, or those that the table stands for.</summary>
    public ImmutableArray<Case> AllCases() => Table?.ToCases() ?? Cases;

    /// <inheritdoc/>
    public bool Equals(Rule? other) => other is not null && (Key, Name, Reason, On, Group) == (other.Key, other.Name, other.Reason, other.On, other.Group)
        && Equals(Table, other.Table) && Equals(Where, other.Where) && Cases.SequenceEqual(other.Cases);

    /// <inheritdoc/>
    public override int GetHashCode() => HashCode.Combine(Key, Name, Cases.Length);
}

/// <summary>A condition and what happens while it holds.</summary>
/// <param name="Effects">What happens while this case is in force.</param>
/// <param name="While">The condition; null means <em>otherwise</em>, which only the last case may say.</param>
public sealed record Case(ImmutableArray<Effect> Effects, Condition? While = null)
{
    /// <inheritdoc/>
    public bool Equals(Case? other) => other is not null && Equals(While, other.While) && Effects.SequenceEqual(other.Effects);

    /// <inheritdoc/>
    public override int GetHashCode() => HashCode.Combine(While, Effects.Length);
}

/// <summary>The forms and channels to which a rule is limited.</summary>
public sealed record Scope
{
    /// <summary>Keys of forms; empty: all.</summary>
    public ImmutableArray<string> Forms { get; init => field = value.OrEmpty(); } = [];

    /// <summary>The channels; empty: all.</summary>
    public ImmutableArray<Channel> Channels { get; init => field = value.OrEmpty(); } = [];

    /// <summary>Whether it lets the rule apply on that form.</summary>
    public bool Covers(string form) => Forms.IsEmpty || Forms.Contains(form, StringComparer.Ordinal);

    /// <inheritdoc/>
    public bool Equals(Scope? other) =>
        other is not null && Forms.SequenceEqual(other.Forms, StringComparer.Ordinal) && Channels.SequenceEqual(other.Channels);

    /// <inheritdoc/>
    public override int GetHashCode() => HashCode.Combine(Forms.Length, Channels.Length);
}
