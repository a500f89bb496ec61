using System.Collections.Immutable;
using Dibujo.Core.Bulk;
using Dibujo.Core.Compilation;
using Dibujo.Core.Csv;
using Dibujo.Core.Programs;
using Dibujo.Core.Records;
using Dibujo.Core.Rules;
using Dibujo.Core.Values;

namespace Dibujo.Cli;

/// <summary>Evaluates many records under a pack and prints in how many of them each case of each rule is in force.</summary>
internal static class EvaluateTableCommand
{
    internal static int Run(string packPath, string tablePath, TextWriter output)
    {
        if (InputFile.ReadPack(packPath, output) is not { } pack || InputFile.Bytes(tablePath, output) is not { } bytes)
        {
            return ExitCode.Problems;
        }

        var definition = pack.ToDefinition();
        var (program, problems) = ProgramCompiler.Compile(definition);
        InputFile.Print(packPath, problems, output);
        if (program is null || !problems.IsEmpty)
        {
            return ExitCode.Problems;
        }

        var (rows, mistake) = RecordTable.Read(definition.RecordType, bytes);
        ImmutableArray<string> mistakes = mistake is null
            ? [.. rows.SelectMany(row => row.Mistakes.Concat(Unknown(definition.RecordType, row)).Select(m => $"{tablePath}:{row.Line}: {m}"))]
            : [$"{tablePath}: {mistake}"];
        foreach (var line in mistakes)
        {
            output.WriteLine(line);
        }

        if (!mistakes.IsEmpty)
        {
            return ExitCode.Problems;
        }

        Print(definition.Rules, rows.Length, [.. Evaluations(program, rows)], output);
        return ExitCode.Fine;
    }

    private static IEnumerable<string> Unknown(RecordType type, ReadRow row)
    {
        var workflow = row.WorkflowIn(type);
        if (workflow is null)
        {
            yield return $"There is no workflow “{row.Workflow}”. Name one of the record type.";
        }
        else if (row.Stage is not null && workflow.Position(row.Stage) < 0)
        {
            yield return $"{workflow.Label} has no stage “{row.Stage}”. Name one of its stages.";
        }
    }

    /// <summary>One for each stage that records are at.</summary>
    private static IEnumerable<BulkEvaluation> Evaluations(RuleProgram program, ImmutableArray<ReadRow> rows)
    {
        var type = program.Definition.RecordType;
        return from row in rows
               let workflow = row.WorkflowIn(type)!
               group row by new Setting(workflow.Key, row.Stage ?? workflow.Stages[0].Key, Now: DateTime.Today) into atStage
               select new BulkEvaluation(program, new(type, atStage.Select(row => new RecordValues(row.Values))), atStage.Key);
    }

    private static void Print(ImmutableArray<Rule> rules, int records, BulkEvaluation[] evaluations, TextWriter output)
    {
        foreach (var (i, rule) in rules.Index())
        {
            var cases = evaluations.Select(e => e.CasesOf(i)).DefaultIfEmpty(0).Max();
            var counts = Enumerable.Range(0, cases).Select(@case => evaluations.Sum(e => e.CountOf(i, @case)));
            output.WriteLine($"{rule.Key}\t{(cases == 0 ? "off" : string.Join('\t', counts))}\t{rule.Name}");
        }

        output.WriteLine($"{records} records.");
    }
}
