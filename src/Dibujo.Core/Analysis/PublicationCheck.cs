using Dibujo.Core.Checking;
using Dibujo.Core.Compilation;
using Dibujo.Core.Rules;

namespace Dibujo.Core.Analysis;

/// <summary>Finds everything that keeps a definition from being published.</summary>
public static class PublicationCheck
{
    /// <summary>
    /// All that <see cref="DefinitionCheck"/> finds, and where that is nothing, rules whose values go round in a cycle
    /// without end. Such rules are compiled all the same, and a session says so where it happens.
    /// </summary>
    /// <param name="definition">What is to be published.</param>
    /// <param name="accounts">Who can sign in: nobody else may be named. Null where nobody here knows.</param>
    public static DefinitionProblems Of(Definition definition, IReadOnlySet<string>? accounts = null)
    {
        var (program, found) = ProgramCompiler.CheckAndCompile(definition, accounts);
        return program is null || !found.IsEmpty ? found : new([], new CycleCheck(program).Run());
    }
}
