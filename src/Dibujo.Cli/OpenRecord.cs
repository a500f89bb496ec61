using System.Collections.Immutable;
using Dibujo.Core.Compilation;
using Dibujo.Core.Evaluation;
using Dibujo.Core.Exchange;
using Dibujo.Core.Records;
using Dibujo.Core.Values;

namespace Dibujo.Cli;

/// <summary>A record file opened under a pack.</summary>
internal static class OpenRecord
{
    /// <summary>The session, with the file's changes made; null, with every problem printed, where that is not possible.</summary>
    internal static Session? Read(string packPath, string recordPath, TextWriter output)
    {
        if (InputFile.ReadPack(packPath, output) is not { } pack
            || InputFile.Read<RecordFile>(recordPath, output) is not { } record)
        {
            return null;
        }

        var (program, problems) = RuleProgram.Compile(pack.ToDefinition(), record.Form);
        InputFile.Print(packPath, problems, output);
        if (program is null || !problems.IsEmpty)
        {
            if (problems.IsEmpty)
            {
                output.WriteLine($"{recordPath}#/form: There is no form “{record.Form}”. Name one of the record type.");
            }

            return null;
        }

        var (saved, savedFine) = Fit(pack.RecordType, record.Values, $"{recordPath}#/values", output);
        var (changes, changesFine) = Fit(pack.RecordType, record.Changes ?? record.Values.Clear(), $"{recordPath}#/changes", output);
        var mistakes = record.Linked.SelectMany((given, i) => given.Mistakes(pack.RecordType).Select(mistake => $"{recordPath}#/linked/{i}: {mistake}")).ToList();
        mistakes.ForEach(output.WriteLine);
        if (!savedFine || !changesFine || mistakes.Count > 0 || !KnowsStage(pack.RecordType, record.Setting, $"{recordPath}#/setting", output))
        {
            return null;
        }

        var session = new Session(
            program, saved, record.Setting.Now == default ? record.Setting.At(DateTime.Now) : record.Setting, new GivenRecords(record.Linked));
        session.Change(changes.ByField);
        return session;
    }

    private static (RecordValues Values, bool IsFine) Fit(
        RecordType type, ImmutableDictionary<string, Value> raw, string place, TextWriter output)
    {
        var values = new Dictionary<string, Value>(StringComparer.Ordinal);
        var isFine = true;
        foreach (var (key, value) in raw.OrderBy(entry => entry.Key, StringComparer.Ordinal))
        {
            if (type.Find(key)?.Type.Fit(value) is { } fitted)
            {
                values.Add(key, fitted);
                continue;
            }

            isFine = false;
            output.WriteLine(type.Find(key) is { } field
                ? $"{place}/{key}: {field.Label} cannot hold this. Give {field.Type.Noun}."
                : $"{place}/{key}: There is no field “{key}”. Leave it out.");
        }

        return (new(values), isFine);
    }

    private static bool KnowsStage(RecordType type, Setting setting, string place, TextWriter output)
    {
        if (type.FindWorkflow(setting.Workflow) is not { } workflow)
        {
            output.WriteLine($"{place}/workflow: There is no workflow “{setting.Workflow}”. Name one of the record type.");
            return false;
        }

        if (workflow.Position(setting.Stage) < 0)
        {
            output.WriteLine($"{place}/stage: {workflow.Label} has no stage “{setting.Stage}”. Name one of its stages.");
            return false;
        }

        return true;
    }
}
