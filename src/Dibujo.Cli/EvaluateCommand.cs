using System.Collections.Immutable;
using System.Text;
using System.Text.Json;
using Dibujo.Core.Compilation;
using Dibujo.Core.Evaluation;
using Dibujo.Core.Exchange;
using Dibujo.Core.Forms;
using Dibujo.Core.Records;
using Dibujo.Core.Values;

namespace Dibujo.Cli;

/// <summary>Evaluates one record under a pack and prints the state of every element as JSON.</summary>
internal static class EvaluateCommand
{
    internal static int Run(string packPath, string recordPath, TextWriter output)
    {
        if (InputFile.ReadPack(packPath, output) is not { } pack
            || InputFile.Read<RecordFile>(recordPath, output) is not { } record)
        {
            return ExitCode.Problems;
        }

        var (program, problems) = RuleProgram.Compile(pack.ToDefinition());
        InputFile.Print(packPath, problems, output);
        if (program is null || !problems.IsEmpty)
        {
            return ExitCode.Problems;
        }

        var (saved, savedFine) = Fit(pack.RecordType, record.Values, $"{recordPath}#/values", output);
        var (changes, changesFine) = Fit(pack.RecordType, record.Changes ?? record.Values.Clear(), $"{recordPath}#/changes", output);
        if (!savedFine || !changesFine || !KnowsStage(pack.RecordType, record.Setting, $"{recordPath}#/setting", output))
        {
            return ExitCode.Problems;
        }

        var session = new Session(program, saved, record.Setting);
        session.Change(changes.ByField);
        output.WriteLine(Print(session));
        return ExitCode.Fine;
    }

    private static (RecordValues Values, bool IsFine) Fit(
        RecordType type, ImmutableDictionary<string, Value> raw, string place, TextWriter output)
    {
        var values = RecordValues.Empty;
        var isFine = true;
        foreach (var (key, value) in raw.OrderBy(entry => entry.Key, StringComparer.Ordinal))
        {
            if (type.Find(key)?.Type.Fit(value) is { } fitted)
            {
                values = fitted.IsBlank ? new(values.ByField.SetItem(key, fitted)) : values.With(key, fitted);
                continue;
            }

            isFine = false;
            output.WriteLine(type.Find(key) is { } field
                ? $"{place}/{key}: {field.Label} cannot hold this. Give {field.Type.Noun}."
                : $"{place}/{key}: There is no field “{key}”. Leave it out.");
        }

        return (values, isFine);
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

    private static string Print(Session session)
    {
        using var buffer = new MemoryStream();
        using (var writer = new Utf8JsonWriter(buffer, new() { Indented = true }))
        {
            writer.WriteStartObject();
            writer.WriteStartObject("elements");
            for (var i = 0; i < session.Program.ElementCount; i++)
            {
                Print(writer, session.Program.ElementAt(i), session.StateOf(i));
            }

            writer.WriteEndObject();
            writer.WritePropertyName("values");
            JsonSerializer.Serialize(writer, session.Values().ByField, CoreJson.Default.ImmutableDictionaryStringValue);
            writer.WriteStartArray("unsettled");
            foreach (var field in session.UnsettledFields)
            {
                writer.WriteStringValue(field);
            }

            writer.WriteEndArray();
            writer.WriteEndObject();
        }

        return Encoding.UTF8.GetString(buffer.ToArray());
    }

    private static void Print(Utf8JsonWriter writer, Element element, ElementState state)
    {
        writer.WriteStartObject($"{JsonNamingPolicy.CamelCase.ConvertName(element.Kind.ToString())}:{element.Key}");
        writer.WriteBoolean("visible", state.IsVisible);
        writer.WriteString("access", JsonNamingPolicy.CamelCase.ConvertName(state.Access.ToString()));
        writer.WriteString("requirement", JsonNamingPolicy.CamelCase.ConvertName(state.Requirement.ToString()));
        writer.WriteBoolean("suspended", state.IsSuspended);
        writer.WriteBoolean("setAside", state.IsSetAside);
        writer.WriteEndObject();
    }
}
