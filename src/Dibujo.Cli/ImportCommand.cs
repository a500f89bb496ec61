using System.Collections.Immutable;
using Dibujo.Core.Compilation;
using Dibujo.Core.Csv;
using Dibujo.Core.Dmn;
using Dibujo.Core.Packs;
using Dibujo.Core.Programs;
using Dibujo.Core.Records;
using Dibujo.Core.Rules;
using Dibujo.Core.Saving;

namespace Dibujo.Cli;

/// <summary>Shows what a file would change, and changes it when told to: a pack or DMN tables in a pack, or records under its rules.</summary>
internal static class ImportCommand
{
    /// <param name="packPath">What is there.</param>
    /// <param name="filePath">What comes in: a pack (.json), decision tables (.dmn) or records (.csv).</param>
    /// <param name="resultPath">Where the result is written; null to only show it.</param>
    /// <param name="output">Where the report is printed.</param>
    internal static int Run(string packPath, string filePath, string? resultPath, TextWriter output)
    {
        if (InputFile.ReadPack(packPath, output) is not { } pack)
        {
            return ExitCode.Problems;
        }

        return Path.GetExtension(filePath).ToUpperInvariant() switch
        {
            ".DMN" or ".XML" => Tables(pack.ToDefinition(), filePath, resultPath, output),
            ".CSV" => Records(pack.ToDefinition(), filePath, output),
            _ => InputFile.ReadPack(filePath, output) is { } incoming
                ? Report(pack.ToDefinition(), incoming.ToDefinition(), filePath, resultPath, output)
                : ExitCode.Problems,
        };
    }

    private static int Tables(Definition now, string filePath, string? resultPath, TextWriter output)
    {
        if (InputFile.Bytes(filePath, output) is not { } bytes)
        {
            return ExitCode.Problems;
        }

        var (rules, problems) = DmnReader.Read(new MemoryStream(bytes), now.RecordType);
        InputFile.Print(filePath, problems, output);
        return problems.IsEmpty ? Report(now, Merge.Rules(now, rules), filePath, resultPath, output) : ExitCode.Problems;
    }

    private static int Report(Definition now, Definition then, string filePath, string? resultPath, TextWriter output)
    {
        var comparison = Comparison.Between(now, then);
        foreach (var difference in comparison.Differences)
        {
            output.WriteLine($"{difference.Change}: {difference.What} {difference.Label}");
            if (difference.Before is not null)
            {
                output.WriteLine($"  now:  {difference.Before}");
            }

            if (difference.After is not null)
            {
                output.WriteLine($"  then: {difference.After}");
            }
        }

        InputFile.Print(filePath, comparison.Problems, output);
        output.WriteLine($"{comparison.Differences.Length} differences, {comparison.Problems.Length} problems.");
        if (!comparison.Problems.IsEmpty)
        {
            return ExitCode.Problems;
        }

        if (resultPath is not null)
        {
            File.WriteAllBytes(resultPath, PackFile.Write(Pack.Of(then)));
            output.WriteLine($"Written to {resultPath}.");
        }

        return ExitCode.Fine;
    }

    private static int Records(Definition definition, string filePath, TextWriter output)
    {
        var (program, problems) = ProgramCompiler.Compile(definition);
        if (program is null || !problems.IsEmpty || InputFile.Bytes(filePath, output) is not { } bytes)
        {
            InputFile.Print(filePath, problems, output);
            return ExitCode.Problems;
        }

        var (rows, mistake) = RecordTable.Read(definition.RecordType, bytes);
        if (mistake is not null)
        {
            output.WriteLine($"{filePath}: {mistake}");
            return ExitCode.Problems;
        }

        var report = ImportReport.Of(rows.Select(row => new RowReport(row.Line, null, row.Mistakes.IsEmpty ? Reasons(program, row) : row.Mistakes)));
        foreach (var row in report.Rows)
        {
            foreach (var reason in row.Reasons)
            {
                output.WriteLine($"{filePath}:{row.Line}: {reason}");
            }
        }

        output.WriteLine($"{report.Imported} rows could be imported, {report.Refused} not.");
        return report.Refused == 0 ? ExitCode.Fine : ExitCode.Problems;
    }

    /// <summary>What the rules have against the row as a record that is begun.</summary>
    private static ImmutableArray<string> Reasons(RuleProgram program, ReadRow row)
    {
        var type = program.Definition.RecordType;
        if (row.Misplaced(type, null) is { } misplaced)
        {
            return [misplaced];
        }

        var workflow = row.WorkflowIn(type)!;
        var setting = new Setting(workflow.Key, workflow.Stages[0].Key, IsNew: true, Channel: Channel.Import).At(DateTime.Now);
        return [.. new Judge(program).Decide(type.Defaults(setting), setting, new(row.Filled)).Refusals.Select(r => r.Sentence(type))];
    }
}
