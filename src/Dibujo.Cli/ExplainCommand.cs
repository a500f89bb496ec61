using System.Text.Json;
using Dibujo.Core.Explanation;
using Dibujo.Core.Forms;
using Dibujo.Core.Json;

namespace Dibujo.Cli;

/// <summary>Says why an element of a record is as it is, as plain sentences or as JSON.</summary>
internal static class ExplainCommand
{
    /// <param name="packPath">The pack.</param>
    /// <param name="recordPath">The record file.</param>
    /// <param name="name">The element as <c>field:KEY</c>, <c>section:KEY</c> and so on, or a field's key.</param>
    /// <param name="asJson">Whether the whole account is printed as JSON.</param>
    /// <param name="output">Where it is printed.</param>
    internal static int Run(string packPath, string recordPath, string name, bool asJson, TextWriter output)
    {
        if (OpenRecord.Read(packPath, recordPath, output) is not { } session)
        {
            return ExitCode.Problems;
        }

        if (Element(name) is not { } element || session.NumberOf(element) < 0)
        {
            output.WriteLine($"There is no element “{name}” on the form. Name one as field:KEY, part:FIELD.PART, section:KEY, tab:KEY, form:KEY or record.");
            return ExitCode.Problems;
        }

        var explanation = new Explainer(session).Explain(element);
        if (asJson)
        {
            output.WriteLine(JsonSerializer.Serialize(explanation, CoreJson.Default.ElementExplanation));
            return ExitCode.Fine;
        }

        output.WriteLine(explanation.Label);
        foreach (var facet in explanation.Facets)
        {
            output.WriteLine($"  {facet.Sentence}");
            foreach (var loser in facet.Losers)
            {
                output.WriteLine($"    Not counting: rule {loser.Number}, “{loser.Name}”, which says: {loser.Says}.");
            }
        }

        return ExitCode.Fine;
    }

    private static Element? Element(string name) => name.Split(':', 2) switch
    {
        ["record"] => Core.Forms.Element.Record,
        [var key] => Core.Forms.Element.Field(key),
        [var kind, var key] when Enum.TryParse<ElementKind>(kind, ignoreCase: true, out var known) && Enum.IsDefined(known) => new Element(known, key),
        _ => null,
    };
}
