using System.Collections.Immutable;
using Dibujo.Core.Checking;
using Dibujo.Core.Compilation;
using Dibujo.Core.Programs;
using Dibujo.Core.Rules;

namespace Dibujo.Browser;

/// <summary>What came of compiling a definition; no program where the record type itself has a problem.</summary>
internal sealed record Compiled(Definition Definition, RuleProgram? Program, ImmutableArray<Problem> Problems)
{
    internal static Compiled Of(Definition definition)
    {
        var (program, problems) = ProgramCompiler.Compile(definition);
        return new(definition, program, problems);
    }
}
