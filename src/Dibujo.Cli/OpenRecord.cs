using System.Collections.Immutable;
using Dibujo.Core.Compilation;
using Dibujo.Core.Evaluation;
using Dibujo.Core.Json;
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

        var (program, problems) = ProgramCompiler.Compile(pack.ToDefinition());
        InputFile.Print(packPath, problems, output);
        if (program is null || !problems.IsEmpty)
        {
            return null;
        }

        var setting = record.Setting with { Form = record.Form ?? record.Setting.Form };
        var (_, savedFine) = Fit(pack.RecordType, record.Values, $"{recordPath}#/values", output);
        var (changes, changesFine) = Fit(pack.RecordType, record.Changes ?? record.Values.Clear(), $"{recordPath}#/changes", output);
        var mistakes = record.Linked.SelectMany((given, i) => given.Mistakes(pack.RecordType).Select(mistake => $"{recordPath}#/linked/{i}: {mistake}")).ToList();
        mistakes.AddRange(setting.Mistakes(pack.RecordType).Select(mistake =>
            $"{recordPath}#/{(mistake.Member == "form" && record.Form is not null ? "" : "setting/")}{mistake.Member}: {mistake.What}"));
        mistakes.ForEach(output.WriteLine);
        if (!savedFine || !changesFine || mistakes.Count > 0)
        {
            return null;
        }

        setting = setting.Now == default ? setting.At(DateTime.Now) : setting;
        var session = new Session(program, pack.RecordType.Begin(setting, record.Values), setting, new GivenRecords(record.Linked));
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
}
