using System.Text;
using System.Text.Json;
using Dibujo.Core.Evaluation;
using Dibujo.Core.Forms;
using Dibujo.Core.Json;

namespace Dibujo.Cli;

/// <summary>Evaluates one record under a pack and prints the state of every element as JSON.</summary>
internal static class EvaluateCommand
{
    internal static int Run(string packPath, string recordPath, TextWriter output)
    {
        if (OpenRecord.Read(packPath, recordPath, output) is not { } session)
        {
            return ExitCode.Problems;
        }

        output.WriteLine(Print(session));
        return ExitCode.Fine;
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
                // Tabs and sections of the form at hand, and every form.
                if (session.NumberOf(session.Program.ElementAt(i)) == i)
                {
                    Print(writer, session.Program.ElementAt(i), session.StateOf(i));
                }
            }

            writer.WriteEndObject();
            writer.WritePropertyName("values");
            JsonSerializer.Serialize(writer, session.Values().ByField, CoreJson.Default.IReadOnlyDictionaryStringValue);
            writer.WritePropertyName("missing");
            var whole = new WholeRecord(session);
            JsonSerializer.Serialize(writer, [.. whole.Missing()], CoreJson.Default.ImmutableArrayMissingField);
            writer.WritePropertyName("messages");
            JsonSerializer.Serialize(writer, [.. whole.Messages()], CoreJson.Default.ImmutableArraySaidMessage);
            writer.WritePropertyName("suggestions");
            JsonSerializer.Serialize(writer, [.. session.Suggestions()], CoreJson.Default.ImmutableArraySuggestion);
            writer.WriteStartObject("choices");
            foreach (var (i, field) in session.Program.Definition.RecordType.Fields.Index())
            {
                if (session.Offers(i) is { } offers)
                {
                    writer.WritePropertyName(field.Key);
                    JsonSerializer.Serialize(writer, offers, CoreJson.Default.ImmutableArrayString);
                }
            }

            writer.WriteEndObject();
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
