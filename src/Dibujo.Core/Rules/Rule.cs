using System.Collections.Immutable;
using Dibujo.Core.Conditions;

namespace Dibujo.Core.Rules;

/// <summary>A named piece of behaviour: the first of its cases whose condition holds is in force.</summary>
/// <param name="Key">Identifies the rule for good, also when its name or place in the list changes.</param>
/// <param name="Name">What people call it.</param>
/// <param name="Cases">In the order in which they are tried.</param>
/// <param name="Reason">What it is for and who asked, for the next person.</param>
/// <param name="On">A rule that is off does nothing at all.</param>
public sealed record Rule(string Key, string Name, ImmutableArray<Case> Cases, string? Reason = null, bool On = true);

/// <summary>A condition and what happens while it holds.</summary>
/// <param name="Effects">What happens while this case is in force.</param>
/// <param name="While">The condition; null means <em>otherwise</em>, which only the last case may say.</param>
public sealed record Case(ImmutableArray<Effect> Effects, Condition? While = null);
