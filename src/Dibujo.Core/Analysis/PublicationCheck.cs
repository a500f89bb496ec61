using System.Collections.Immutable;
using Dibujo.Core.Checking;
using Dibujo.Core.Compilation;
using Dibujo.Core.Programs;
using Dibujo.Core.Rules;

namespace Dibujo.Core.Analysis;

/// <summary>Finds everything that keeps a definition from being published.</summary>
public static class PublicationCheck
{
    /// <summary>
    /// All that <see cref="DefinitionCheck"/> finds, and where that is nothing, rules whose values go round in a cycle
    /// without end. Such rules are compiled all the same, and a session says so where it happens.
    /// </summary>
    public static ImmutableArray<Problem> Of(Definition definition)
    {
        var (program, found) = ProgramCompiler.Compile(definition);
        if (program is null || !found.IsEmpty)
        {
            return found;
        }

        var problems = new ProblemList();
        new CycleCheck(program, problems).Run();
        return problems.ToImmutable();
    }
}
