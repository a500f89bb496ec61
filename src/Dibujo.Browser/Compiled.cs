using System.Collections.Immutable;
using Dibujo.Core.Checking;
using Dibujo.Core.Compilation;
using Dibujo.Core.Rules;

namespace Dibujo.Browser;

/// <summary>What came of compiling a definition for a form; no program where the record type itself has a problem.</summary>
internal sealed record Compiled(Definition Definition, string Form, RuleProgram? Program, ImmutableArray<Problem> Problems)
{
    internal static Compiled Of(Definition definition, string form)
    {
        var (program, problems) = RuleProgram.Compile(definition, form.Length == 0 ? null : form);
        return new(definition, form, program, problems);
    }
}
