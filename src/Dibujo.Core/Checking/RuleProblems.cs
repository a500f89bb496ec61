using System.Collections.Immutable;

namespace Dibujo.Core.Checking;

/// <summary>What is wrong with one rule.</summary>
/// <param name="Place">Its place in the list.</param>
/// <param name="Problems">With places within the rule, such as <c>/cases/0/while</c>.</param>
public sealed record RuleProblems(int Place, ImmutableArray<Problem> Problems)
{
    /// <summary>The same with places in the definition, such as <c>/rules/3/cases/0/while</c>.</summary>
    public IEnumerable<Problem> InDefinition() => Problems.Select(problem => problem.Within($"/rules/{Place}"));
}
