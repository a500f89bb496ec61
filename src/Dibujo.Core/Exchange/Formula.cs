using System.Collections.Immutable;
using System.Text.Json.Nodes;

namespace Dibujo.Core.Exchange;

/// <summary>A truth about a record's stored values, simplified as it is put together.</summary>
internal abstract record Formula
{
    internal static readonly Formula True = new Constant(true);
    internal static readonly Formula False = new Constant(false);

    internal static Formula Of(bool holds) => holds ? True : False;

    internal static Formula Of(JsonObject schema) => new Atom(schema);

    internal static Formula Not(Formula formula) => formula switch
    {
        Constant constant => Of(!constant.Holds),
        Negation negation => negation.Inner,
        _ => new Negation(formula),
    };

    internal static Formula And(params ImmutableArray<Formula> members) => Join(members, neutral: true);

    internal static Formula Or(params ImmutableArray<Formula> members) => Join(members, neutral: false);

    /// <summary>A schema that a record passes if, and only if, the formula holds.</summary>
    internal JsonNode ToSchema() => this switch
    {
        Constant constant => constant.Holds ? new JsonObject() : new JsonObject { ["not"] = new JsonObject() },
        Atom atom => atom.Schema.DeepClone(),
        Negation negation => new JsonObject { ["not"] = negation.Inner.ToSchema() },
        Several several => new JsonObject
        {
            [several.IsAll ? "allOf" : "anyOf"] = new JsonArray([.. several.Members.Select(m => m.ToSchema())]),
        },
        _ => throw new InvalidOperationException(),
    };

    private static Formula Join(ImmutableArray<Formula> members, bool neutral)
    {
        var kept = members.Where(m => m != Of(neutral)).ToImmutableArray();
        return kept.Contains(Of(!neutral)) ? Of(!neutral) : kept.Length switch
        {
            0 => Of(neutral),
            1 => kept[0],
            _ => new Several(neutral, kept),
        };
    }

    private sealed record Constant(bool Holds) : Formula;

    private sealed record Atom(JsonObject Schema) : Formula;

    private sealed record Negation(Formula Inner) : Formula;

    private sealed record Several(bool IsAll, ImmutableArray<Formula> Members) : Formula;
}
