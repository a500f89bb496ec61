using System.Collections.Immutable;
using System.Runtime.InteropServices.JavaScript;
using System.Text.Json;
using Dibujo.Core.Programs;
using Dibujo.Core.Json;
using Dibujo.Core.Rules;

namespace Dibujo.Browser;

/// <summary>Compiled definitions, as JavaScript sees them. What only an editor wants to know of one is made when it is asked for.</summary>
internal static partial class Programs
{
    private static readonly Handles<Compiled> Held = new();

    /// <summary>Compiles a definition (JSON in UTF-8), for all its forms.</summary>
    [JSExport]
    internal static int Compile(byte[] definition) =>
        Held.Add(Compiled.Of(JsonSerializer.Deserialize(definition, CoreJson.Default.Definition)!));

    /// <summary>
    /// Compiles other rules of the same record type. They come as a list in JSON, where a number stands
    /// for the rule that has that place in the program at hand: so an edit brings only the rule that was edited.
    /// </summary>
    [JSExport]
    internal static int Recompile(int program, byte[] rules)
    {
        var definition = Held[program].Definition;
        using var list = JsonDocument.Parse(rules);
        ImmutableArray<Rule> others =
        [
            .. list.RootElement.EnumerateArray().Select(rule => rule.ValueKind == JsonValueKind.Number
                ? definition.Rules[rule.GetInt32()]
                : rule.Deserialize(CoreJson.Default.Rule)!),
        ];
        return Held.Add(Compiled.Of(definition with { Rules = others }));
    }

    /// <summary>Whether a record can be opened: not where the record type itself has a problem.</summary>
    [JSExport]
    internal static bool IsUsable(int program) => Held[program].Program is not null;

    /// <summary>Everything that could not be compiled: <see cref="Core.Checking.Problem"/>s as JSON.</summary>
    [JSExport]
    internal static string Problems(int program) => JsonSerializer.Serialize(Held[program].Problems, CoreJson.Default.ImmutableArrayProblem);

    /// <summary>The elements that the form of that key knows, as JSON; none where the program is not usable. Their numbers: <see cref="Numbers"/>.</summary>
    [JSExport]
    internal static string Elements(int program, string form) => JsonSerializer.Serialize(
        [.. Numbers(program, form).Select(number => Of(program).ElementAt(number))], CoreJson.Default.ImmutableArrayElement);

    /// <summary>The numbers by which deltas call those elements, in the same order.</summary>
    [JSExport]
    internal static int[] Numbers(int program, string form) => Held[program].Program is not { } usable ? []
        : [.. Enumerable.Range(0, usable.ElementCount).Where(number => usable.NumberOf(usable.ElementAt(number), form) == number)];

    [JSExport]
    internal static void Close(int program) => Held.Remove(program);

    internal static Definition DefinitionOf(int program) => Held[program].Definition;

    internal static RuleProgram Of(int program) => Held[program].Program ?? throw new InvalidOperationException("The record type has a problem.");
}
