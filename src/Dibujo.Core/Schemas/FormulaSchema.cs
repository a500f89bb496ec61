using System.Text.Json.Nodes;
using Formula = Dibujo.Core.Logic.Formula<System.Text.Json.Nodes.JsonObject>;

namespace Dibujo.Core.Schemas;

/// <summary>A formula over schemas as one schema.</summary>
internal static class FormulaSchema
{
    /// <summary>A schema that a record passes if, and only if, the formula holds.</summary>
    internal static JsonNode ToSchema(this Formula formula) => formula switch
    {
        Formula.Constant constant => constant.Holds ? new JsonObject() : new JsonObject { ["not"] = new JsonObject() },
        Formula.Atom atom => atom.Statement.DeepClone(),
        Formula.Negation negation => new JsonObject { ["not"] = negation.Inner.ToSchema() },
        Formula.Several several => new JsonObject
        {
            [several.IsAll ? "allOf" : "anyOf"] = new JsonArray([.. several.Members.Select(m => m.ToSchema())]),
        },
        _ => throw new InvalidOperationException(),
    };
}
