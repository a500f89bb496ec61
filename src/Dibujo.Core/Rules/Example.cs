using System.Collections.Immutable;
using Dibujo.Core.Forms;
using Dibujo.Core.Records;
using Dibujo.Core.Values;

namespace Dibujo.Core.Rules;

/// <summary>A record in a setting with what is expected of the rules there; kept with them, to be run at every change.</summary>
/// <param name="Name">What it shows, as a sentence: "a loan without a crate shows no crate measures".</param>
/// <param name="Setting">Stage, roles and so on.</param>
/// <param name="Form">Key of the form; null for the main form.</param>
public sealed record Example(string Name, Setting Setting, string? Form = null)
{
    /// <summary>Saved values by field key, bare as in a file.</summary>
    public ImmutableDictionary<string, Value> Values { get; init => field = value ?? ImmutableDictionary<string, Value>.Empty; } = ImmutableDictionary<string, Value>.Empty;

    /// <summary>Unsaved changes by field key.</summary>
    public ImmutableDictionary<string, Value> Changes { get; init => field = value ?? ImmutableDictionary<string, Value>.Empty; } = ImmutableDictionary<string, Value>.Empty;

    /// <summary>The records to which its links lead, as far as rules look at them.</summary>
    public ImmutableArray<GivenRecord> Linked { get; init => field = value.OrEmpty(); } = [];

    /// <summary>What must be so then.</summary>
    public ImmutableArray<Expectation> Expect { get; init => field = value.OrEmpty(); } = [];
}

/// <summary>What an example expects of one element; what is null may be anything.</summary>
/// <param name="Element">Of which element.</param>
/// <param name="Visible">Whether it is seen.</param>
/// <param name="Access">Whether it can be changed.</param>
/// <param name="Requirement">How strongly it asks, suspended or not.</param>
/// <param name="Value">What the field holds.</param>
public sealed record Expectation(
    Element Element, bool? Visible = null, Access? Access = null, Requirement? Requirement = null, Value? Value = null);
