using System.Runtime.InteropServices.JavaScript;
using System.Text.Json;
using Dibujo.Core.Compilation;
using Dibujo.Core.Exchange;
using Dibujo.Core.Sentences;

namespace Dibujo.Browser;

/// <summary>Compiled definitions, as JavaScript sees them.</summary>
internal static partial class Programs
{
    internal static readonly Handles<RuleProgram> Held = new();
    private static string lastReport = "";

    /// <summary>Compiles a definition for the form of that key (empty: the main form); 0 if that is not possible. <see cref="Report"/> says the rest.</summary>
    [JSExport]
    internal static int Compile(string definitionJson, string form)
    {
        var definition = JsonSerializer.Deserialize(definitionJson, CoreJson.Default.Definition)!;
        var (program, problems) = RuleProgram.Compile(definition, form.Length == 0 ? null : form);
        lastReport = JsonSerializer.Serialize(
            new CompilationReport(
                problems,
                [.. Enumerable.Range(0, program?.ElementCount ?? 0).Select(i => program!.ElementAt(i))],
                Sentence.OfRules(definition),
                Vocabulary.Of(definition.RecordType)),
            CoreJson.Default.CompilationReport);
        return program is null ? 0 : Held.Add(program);
    }

    /// <summary>The <see cref="CompilationReport"/> of the last <see cref="Compile"/>, as JSON.</summary>
    [JSExport]
    internal static string Report() => lastReport;

    [JSExport]
    internal static void Close(int program) => Held.Remove(program);
}
