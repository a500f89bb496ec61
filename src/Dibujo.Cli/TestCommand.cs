using Dibujo.Core.Analysis;
using Dibujo.Core.Examples;

namespace Dibujo.Cli;

/// <summary>Runs the examples of a pack.</summary>
internal static class TestCommand
{
    internal static int Run(string packPath, TextWriter output)
    {
        if (InputFile.ReadPack(packPath, output) is not { } pack)
        {
            return ExitCode.Problems;
        }

        var definition = pack.ToDefinition();
        var problems = PublicationCheck.Of(definition).All();
        InputFile.Print(packPath, problems, output);
        var runs = ExampleRun.Of(definition);
        foreach (var run in runs.Where(r => !r.Holds))
        {
            output.WriteLine($"Fails: {run.Name}");
            foreach (var failure in run.Failures)
            {
                output.WriteLine($"  {failure}");
            }
        }

        output.WriteLine($"{runs.Count(r => r.Holds)} of {runs.Length} examples hold.");
        return problems.IsEmpty && runs.All(r => r.Holds) ? ExitCode.Fine : ExitCode.Problems;
    }
}
