using System.Text.Json;
using Dibujo.Core.Conditions;
using Dibujo.Core.Json;
using Dibujo.Core.Rules;

namespace Dibujo.Core.Speech;

/// <summary>What a rule says without the order in which it says it: two of the same shape mean the same.</summary>
internal static class Shape
{
    internal static string Of(Rule rule) => string.Join(" / ", rule.Cases.Select(@case => $"{Of(@case.While)}: {string.Join(" & ", @case.Effects.SelectMany(Of).Order(StringComparer.Ordinal))}"));

    private static string Of(Condition? condition) => condition switch
    {
        Group group => $"{group.Quantifier}({string.Join(", ", group.Members.Select(Of).Order(StringComparer.Ordinal))})",
        Clause clause => $"{JsonSerializer.Serialize(clause.Subject, CoreJson.Default.Subject)} {clause.Test} {string.Join(", ", Ordered(clause))}",
        _ => "always",
    };

    private static IEnumerable<string> Ordered(Clause clause)
    {
        var compared = clause.Comparands.Select(one => JsonSerializer.Serialize(one, CoreJson.Default.Comparand));
        return clause.Test.Shape() == TestShape.Many ? compared.Order(StringComparer.Ordinal) : compared;
    }

    /// <summary>One for each element that an effect acts on.</summary>
    private static IEnumerable<string> Of(Effect effect) => effect is StateEffect state
        ? state.Targets.Select(target => JsonSerializer.Serialize<Effect>(state with { Targets = [target] }, CoreJson.Default.Effect))
        : [JsonSerializer.Serialize(effect, CoreJson.Default.Effect)];
}
