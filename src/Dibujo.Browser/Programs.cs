using System.Collections.Immutable;
using System.Runtime.InteropServices.JavaScript;
using System.Text.Json;
using Dibujo.Core.Compilation;
using Dibujo.Core.Exchange;
using Dibujo.Core.Forms;
using Dibujo.Core.Rules;

namespace Dibujo.Browser;

/// <summary>Compiled definitions, as JavaScript sees them. What only an editor wants to know of one is made when it is asked for.</summary>
internal static partial class Programs
{
    private static readonly Handles<Compiled> Held = new();

    /// <summary>Compiles a definition (JSON in UTF-8) for the form of that key; empty: the main form.</summary>
    [JSExport]
    internal static int Compile(byte[] definition, string form) =>
        Held.Add(Compiled.Of(JsonSerializer.Deserialize(definition, CoreJson.Default.Definition)!, form));

    /// <summary>
    /// Compiles other rules of the same record type, for the same form. They come as a list in JSON, where a number stands
    /// for the rule that has that place in the program at hand: so an edit brings only the rule that was edited.
    /// </summary>
    [JSExport]
    internal static int Recompile(int program, byte[] rules)
    {
        var (definition, form) = (Held[program].Definition, Held[program].Form);
        using var list = JsonDocument.Parse(rules);
        ImmutableArray<Rule> others =
        [
            .. list.RootElement.EnumerateArray().Select(rule => rule.ValueKind == JsonValueKind.Number
                ? definition.Rules[rule.GetInt32()]
                : rule.Deserialize(CoreJson.Default.Rule)!),
        ];
        return Held.Add(Compiled.Of(definition with { Rules = others }, form));
    }

    /// <summary>Whether a record can be opened: not where the record type itself has a problem.</summary>
    [JSExport]
    internal static bool IsUsable(int program) => Held[program].Program is not null;

    /// <summary>Everything that could not be compiled: <see cref="Core.Checking.Problem"/>s as JSON.</summary>
    [JSExport]
    internal static string Problems(int program) => JsonSerializer.Serialize(Held[program].Problems, CoreJson.Default.ImmutableArrayProblem);

    /// <summary>The elements by number, as JSON; none where the program is not usable.</summary>
    [JSExport]
    internal static string Elements(int program) => JsonSerializer.Serialize(
        Held[program].Program is { } usable ? [.. Enumerable.Range(0, usable.ElementCount).Select(usable.ElementAt)] : ImmutableArray<Element>.Empty,
        CoreJson.Default.ImmutableArrayElement);

    [JSExport]
    internal static void Close(int program) => Held.Remove(program);

    internal static Definition DefinitionOf(int program) => Held[program].Definition;

    internal static RuleProgram Of(int program) => Held[program].Program ?? throw new InvalidOperationException("The record type has a problem.");
}
