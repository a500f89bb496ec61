using Dibujo.Core.Analysis;

namespace Dibujo.Cli;

/// <summary>Compiles a record type with its rules and lists every problem with its place.</summary>
internal static class CheckCommand
{
    internal static int Run(string packPath, TextWriter output)
    {
        if (InputFile.ReadPack(packPath, output) is not { } pack)
        {
            return ExitCode.Problems;
        }

        var problems = PublicationCheck.Of(pack.ToDefinition()).All();
        InputFile.Print(packPath, problems, output);
        output.WriteLine(problems.IsEmpty
            ? $"{packPath}: {pack.RecordType.Label} with {pack.Rules.Length} rules, no problems."
            : $"{packPath}: {problems.Length} {(problems.Length == 1 ? "problem" : "problems")}.");
        return problems.IsEmpty ? ExitCode.Fine : ExitCode.Problems;
    }
}
