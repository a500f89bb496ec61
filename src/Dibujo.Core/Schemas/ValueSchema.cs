using System.Text.Json.Nodes;
using Dibujo.Core.Conditions;
using Dibujo.Core.Json;
using Dibujo.Core.Records;
using Dibujo.Core.Values;
using Formula = Dibujo.Core.Logic.Formula<System.Text.Json.Nodes.JsonObject>;

namespace Dibujo.Core.Schemas;

/// <summary>Types and tests of single values as JSON Schema.</summary>
internal static class ValueSchema
{
    internal static JsonObject Of(FieldType type, string label)
    {
        var schema = type switch
        {
            NumberType number => Amount(number.Min, number.Max, number.Scale),
            MoneyType money => Amount(money.Min, money.Max, 2),
            YesNoType => new JsonObject { ["type"] = "boolean" },
            LinkType => new JsonObject { ["type"] = "integer" },
            DateType => new JsonObject { ["type"] = "string", ["format"] = "date" },
            ChoiceType choice => new JsonObject { ["enum"] = Keys(choice.Options) },
            ChoicesType several => new JsonObject { ["type"] = "array", ["items"] = new JsonObject { ["enum"] = Keys(several.Options) }, ["uniqueItems"] = true },
            CompoundType compound => new JsonObject
            {
                ["type"] = "object",
                ["properties"] = new JsonObject(compound.Parts.Select(p => KeyValuePair.Create(p.Key, (JsonNode?)new JsonObject { ["type"] = "string", ["title"] = p.Label }))),
                ["additionalProperties"] = false,
            },
            TextType text => new JsonObject { ["type"] = "string", ["maxLength"] = text.MaxLength },
            LongTextType text => new JsonObject { ["type"] = "string", ["maxLength"] = text.MaxLength },
            _ => new JsonObject { ["type"] = "string" },
        };
        schema["title"] = label;
        return schema;
    }

    /// <summary>The clause as a formula; its comparands are literals. Throws where a schema cannot say it.</summary>
    internal static Formula Test(Field field, Clause clause)
    {
        var values = clause.Comparands.OfType<Literal>().Select(l => field.Type.Fit(l.Value)!).ToList();
        return (clause.Test, field.Type) switch
        {
            (Conditions.Test.FilledIn, _) => Filled(field),
            (Conditions.Test.Blank, _) => Formula.Not(Filled(field)),
            (_, TextType or LongTextType or PersonType) => throw new UnsayableException($"{field.Label} compares without regard to case."),
            (Conditions.Test.Is or Conditions.Test.OneOf, not ChoicesType) => Passes(field, new() { ["enum"] = Json(values) }),
            (Conditions.Test.IsNot or Conditions.Test.NoneOf, not ChoicesType) => Formula.Not(Passes(field, new() { ["enum"] = Json(values) })),
            (Conditions.Test.LessThan, _) => Passes(field, new() { ["exclusiveMaximum"] = Json(values[0]) }),
            (Conditions.Test.AtMost, _) => Passes(field, new() { ["maximum"] = Json(values[0]) }),
            (Conditions.Test.AtLeast, _) => Passes(field, new() { ["minimum"] = Json(values[0]) }),
            (Conditions.Test.MoreThan, _) => Passes(field, new() { ["exclusiveMinimum"] = Json(values[0]) }),
            (Conditions.Test.Between, NumberType or MoneyType) => Between(field, values),
            (Conditions.Test.NotBetween, NumberType or MoneyType) => Formula.Not(Between(field, values)),
            (Conditions.Test.IncludesAny, _) => Formula.Or([.. values.Select(v => Includes(field, v))]),
            (Conditions.Test.IncludesNone, _) => Formula.Not(Formula.Or([.. values.Select(v => Includes(field, v))])),
            (Conditions.Test.IncludesAll, _) => Formula.And([.. values.Select(v => Includes(field, v))]),
            (Conditions.Test.DoesNotIncludeAll, _) => Formula.Not(Formula.And([.. values.Select(v => Includes(field, v))])),
            _ => throw new UnsayableException($"{field.Label} is asked something that a schema cannot ask."),
        };
    }

    /// <summary>What is blank is not stored.</summary>
    private static Formula Filled(Field field) => Formula.Of(new JsonObject { ["required"] = new JsonArray(field.Key) });

    private static Formula Passes(Field field, JsonObject value) => Formula.Of(new JsonObject
    {
        ["properties"] = new JsonObject { [field.Key] = value },
        ["required"] = new JsonArray(field.Key),
    });

    private static Formula Between(Field field, List<Value> ends) => Passes(field, new() { ["minimum"] = Json(ends[0]), ["maximum"] = Json(ends[1]) });

    /// <summary>All keys of the comparand are among those of the record: it may be several choices itself.</summary>
    private static Formula Includes(Field field, Value value) => Formula.And(
        [.. ((Choices)value).Keys.Select(key => Passes(field, new() { ["contains"] = new JsonObject { ["const"] = key } }))]);

    private static JsonObject Amount(decimal? min, decimal? max, int scale)
    {
        var schema = new JsonObject { ["type"] = scale == 0 ? "integer" : "number" };
        if (min is { } least)
        {
            schema["minimum"] = least;
        }

        if (max is { } most)
        {
            schema["maximum"] = most;
        }

        return schema;
    }

    private static JsonArray Keys(IEnumerable<Option> options) => new([.. options.Select(o => (JsonNode)o.Key)]);

    private static JsonArray Json(List<Value> values) => new([.. values.Select(Json)]);

    private static JsonNode? Json(Value value) => JsonNode.Parse(JsonText.Write(value));
}
