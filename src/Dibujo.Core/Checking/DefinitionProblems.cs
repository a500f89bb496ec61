using System.Collections.Immutable;

namespace Dibujo.Core.Checking;

/// <summary>What is wrong with a definition.</summary>
/// <param name="RecordType">With the record type itself; then no rule has been looked at.</param>
/// <param name="Rules">With rules, in list order; none for a rule without problems.</param>
public sealed record DefinitionProblems(ImmutableArray<Problem> RecordType, ImmutableArray<RuleProblems> Rules)
{
    /// <summary>Whether nothing is wrong.</summary>
    public bool IsEmpty => RecordType.IsEmpty && Rules.IsEmpty;

    /// <summary>All of them, with places in the definition.</summary>
    public ImmutableArray<Problem> All() => [.. RecordType, .. Rules.SelectMany(rule => rule.InDefinition())];
}
