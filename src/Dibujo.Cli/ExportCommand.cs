using System.Text.Json;
using Dibujo.Core.Compilation;
using Dibujo.Core.Dmn;
using Dibujo.Core.Programs;
using Dibujo.Core.Records;
using Dibujo.Core.Schemas;
using Dibujo.Core.Sentences;

namespace Dibujo.Cli;

/// <summary>Prints a pack in another form; what does not fit into it goes to the second output.</summary>
internal static class ExportCommand
{
    private static readonly JsonSerializerOptions Indented = new() { WriteIndented = true };

    internal static int Run(string packPath, string form, string? stage, TextWriter output, TextWriter rest)
    {
        if (InputFile.ReadPack(packPath, rest) is not { } pack)
        {
            return ExitCode.Problems;
        }

        var (program, problems) = ProgramCompiler.Compile(pack.ToDefinition());
        InputFile.Print(packPath, problems, rest);
        if (program is null || !problems.IsEmpty)
        {
            return ExitCode.Problems;
        }

        switch (form)
        {
            case "sentences":
                foreach (var (i, sentence) in Sentence.OfAll(pack.Rules, pack.RecordType).Index())
                {
                    output.WriteLine($"{i + 1}. {pack.Rules[i].Name}: {Sentence.Plain(sentence)}");
                }

                return ExitCode.Fine;
            case "dmn":
                var (document, leftOut) = DmnWriter.Write(pack.ToDefinition());
                output.WriteLine(document.Declaration + Environment.NewLine + document);
                Print(leftOut, rest);
                return ExitCode.Fine;
            case "schema":
                return Schema(program, stage, output, rest);
            default:
                rest.WriteLine($"“{form}” is not a form of export. Name one of: sentences, dmn, schema.");
                return ExitCode.Misused;
        }
    }

    private static int Schema(RuleProgram program, string? stage, TextWriter output, TextWriter rest)
    {
        var workflow = program.Definition.RecordType.Workflows[0];
        if (stage is not null && workflow.Position(stage) < 0)
        {
            rest.WriteLine($"{workflow.Label} has no stage “{stage}”. Name one of: {string.Join(", ", workflow.Stages.Select(s => s.Key))}.");
            return ExitCode.Problems;
        }

        var export = SchemaExport.Of(program, new Setting(workflow.Key, stage ?? workflow.Stages[0].Key));
        output.WriteLine(export.Schema.ToJsonString(Indented));
        Print(export.Unsaid, rest);
        return ExitCode.Fine;
    }

    private static void Print(IEnumerable<string> leftOut, TextWriter rest)
    {
        foreach (var reason in leftOut)
        {
            rest.WriteLine($"Left out: {reason}");
        }
    }
}
