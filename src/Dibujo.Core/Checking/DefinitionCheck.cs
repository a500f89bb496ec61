using System.Collections.Immutable;
using Dibujo.Core.Rules;

namespace Dibujo.Core.Checking;

/// <summary>Finds everything in a definition that cannot be compiled.</summary>
public static class DefinitionCheck
{
    /// <summary>
    /// All problems, record type first, then rules in list order. A rule with a problem is left out by
    /// <see cref="Compilation.RuleProgram.Compile"/>; a problem in the record type keeps the whole from compiling.
    /// </summary>
    public static ImmutableArray<Problem> Of(Definition definition)
    {
        var problems = new ProblemList();
        new RecordTypeCheck(definition.RecordType, problems).Run();
        if (problems.IsEmpty)
        {
            new RuleCheck(definition, problems).Run();
        }

        return problems.ToImmutable();
    }
}
