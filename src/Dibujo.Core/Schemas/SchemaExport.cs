using System.Collections.Immutable;
using System.Text.Json.Nodes;
using Dibujo.Core.Programs;
using Dibujo.Core.Records;
using Formula = Dibujo.Core.Logic.Formula<System.Text.Json.Nodes.JsonObject>;

namespace Dibujo.Core.Schemas;

/// <summary>What rules require of a record to be saved, as a JSON Schema (2020-12), as far as that can say it.</summary>
/// <remarks>
/// A schema sees the stored values and nothing else, so it is made for one setting, and it says of a field that it is
/// required only where everything that decides so can be said. The rest is listed.
/// </remarks>
/// <param name="Schema">The schema of a record's values.</param>
/// <param name="Unsaid">What it does not say, each as a sentence with the reason.</param>
public sealed record SchemaExport(JsonObject Schema, ImmutableArray<string> Unsaid)
{
    /// <summary>The schema for records in that setting, on its form.</summary>
    public static SchemaExport Of(RuleProgram program, Setting setting)
    {
        var type = program.Definition.RecordType;
        var requirements = new RequirementFormulas(program, setting);
        var properties = new JsonObject();
        var conditions = new JsonArray();
        var unsaid = ImmutableArray.CreateBuilder<string>();
        foreach (var field in type.Fields)
        {
            properties[field.Key] = ValueSchema.Of(field.Type, field.Label);
            if (!program.IsOnForm(field.Key, setting.Form))
            {
                continue;
            }

            try
            {
                var needed = requirements.NeededToSave(field);
                if (needed != Formula.False)
                {
                    conditions.Add((JsonNode)new JsonObject { ["if"] = needed.ToSchema(), ["then"] = Required(field) });
                }
            }
            catch (UnsayableException reason)
            {
                unsaid.Add($"Whether {field.Label} is required: {reason.Message}");
            }
        }

        var schema = new JsonObject
        {
            ["$schema"] = "https://json-schema.org/draft/2020-12/schema",
            ["title"] = $"{type.Label}, as saved at the stage {type.FindStage(setting.Stage)?.Label ?? setting.Stage}",
            ["type"] = "object",
            ["properties"] = properties,
        };
        if (conditions.Count > 0)
        {
            schema["allOf"] = conditions;
        }

        return new(schema, unsaid.ToImmutable());
    }

    private static JsonObject Required(Field field)
    {
        var required = new JsonObject { ["required"] = new JsonArray(field.Key) };
        if (field.Type is CompoundType compound)
        {
            required["properties"] = new JsonObject
            {
                [field.Key] = new JsonObject
                {
                    ["required"] = new JsonArray([.. compound.Parts.Where(p => !compound.OptionalParts.Contains(p.Key)).Select(p => (JsonNode)p.Key)]),
                },
            };
        }

        return required;
    }
}
