using System.Collections.Immutable;
using Dibujo.Core.Compilation;
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

    /// <summary>
    /// Everything that keeps a definition from being published: <see cref="Of"/>, and where that finds nothing, rules whose
    /// values go round in a circle without end. Such rules are compiled all the same, and a session says so where it happens.
    /// </summary>
    public static ImmutableArray<Problem> ToPublish(Definition definition)
    {
        var (program, found) = RuleProgram.Compile(definition);
        if (program is null || !found.IsEmpty)
        {
            return found;
        }

        var problems = new ProblemList();
        new CircleCheck(program, problems).Run();
        return problems.ToImmutable();
    }
}
