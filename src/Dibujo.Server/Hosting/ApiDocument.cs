using Dibujo.Core.Drafts;
using Dibujo.Core.Evaluation;
using Dibujo.Core.Explanation;
using Dibujo.Core.Listing;
using Dibujo.Core.Saving;
using Dibujo.Core.Sentences;
using Dibujo.Core.Values;
using Microsoft.OpenApi;

namespace Dibujo.Server.Hosting;

/// <summary>The OpenAPI document, with the model's own types spelled out: the front end's types are generated from it.</summary>
internal static class ApiDocument
{
    /// <summary>Types that cross the boundary inside others, or between the browser and its engine.</summary>
    private static readonly (string Name, Type Type)[] Named =
    [
        ("Refusal", typeof(Refusal)),
        ("Vocabulary", typeof(Vocabulary)),
        ("SubjectOffer", typeof(SubjectOffer)),
        ("SentencePart", typeof(SentencePart)),
        ("ClauseExplanation", typeof(ClauseExplanation)),
        ("ElementExplanation", typeof(ElementExplanation)),
        ("Outlook", typeof(Outlook)),
        ("SaidMessage", typeof(SaidMessage)),
        ("Suggestion", typeof(Suggestion)),
        ("SentenceReading", typeof(SentenceReading)),
        ("SentenceOffer", typeof(SentenceOffer)),
    ];

    internal static void AddApiDocument(this IServiceCollection services) => services.AddOpenApi(options =>
    {
        options.AddSchemaTransformer((schema, context, _) =>
        {
            if (context.JsonTypeInfo.Type == typeof(Value))
            {
                DescribeValue(schema);
            }
            else if (context.JsonTypeInfo.ElementType == typeof(Value))
            {
                var value = new OpenApiSchema();
                DescribeValue(value);
                schema.AdditionalProperties = value;
            }

            return Task.CompletedTask;
        });
        options.AddDocumentTransformer(async (document, context, cancellation) =>
        {
            document.Info.Title = "Dibujo";
            document.Servers = [];
            var schemas = document.Components!.Schemas!;
            foreach (var (name, type) in Named)
            {
                schemas.Remove(name);
                var schema = await context.GetOrCreateSchemaAsync(type, null, cancellation);
                schemas.Remove(name);
                document.AddComponent(name, schema);
            }

            // The exporter loses the type of a list of polymorphic items inside a recursive type.
            if (schemas["ConditionClause"] is OpenApiSchema clause)
            {
                clause.Properties!["comparands"] = new OpenApiSchema
                {
                    Type = JsonSchemaType.Array,
                    Items = new OpenApiSchemaReference("Comparand", document),
                };
            }

            // Limits of the core's own types, which carry no attributes.
            Limit(schemas["FilterFilterClause"], "values", FilterClause.MostValues);
            Limit(schemas["DraftStep"], "edits", DraftStep.MostEdits);
            // The site's own time has no zone, as the format of moments would demand.
            ((OpenApiSchema)schemas["Setting"].Properties!["now"]).Format = null;
            foreach (var schema in schemas.Values)
            {
                TellKindsApart(schema);
                LeaveOutBlanks(schema);
            }
        });
    });

    private static void Limit(IOpenApiSchema schema, string list, int most) => ((OpenApiSchema)schema.Properties![list]).MaxItems = most;

    private static void DescribeValue(OpenApiSchema schema)
    {
        schema.Description = "A bare value: text, number, true, false, null for blank, a list of keys, or parts by their keys.";
        schema.AnyOf =
        [
            new OpenApiSchema { Type = JsonSchemaType.String | JsonSchemaType.Number | JsonSchemaType.Boolean | JsonSchemaType.Null },
            new OpenApiSchema { Type = JsonSchemaType.Array, Items = new OpenApiSchema { Type = JsonSchemaType.String } },
            new OpenApiSchema { Type = JsonSchemaType.Object, AdditionalProperties = new OpenApiSchema { Type = JsonSchemaType.String } },
        ];
    }

    /// <summary>What is null is left out wherever it is written, so nothing that may be null is there without fail.</summary>
    private static void LeaveOutBlanks(IOpenApiSchema schema)
    {
        if (schema is OpenApiSchema { Properties: { } properties, Required: { } required })
        {
            required.ExceptWith([.. required.Where(name => properties.TryGetValue(name, out var property) && MayBeNull(property))]);
        }
    }

    /// <summary>A value that is blank is written as null: it is none that is left out.</summary>
    private static bool MayBeNull(IOpenApiSchema schema) =>
        schema.Type?.HasFlag(JsonSchemaType.Null) == true || (schema.AnyOf ?? schema.OneOf ?? []).Any(one => one.Type == JsonSchemaType.Null);

    /// <summary>A member of a closed hierarchy always says its kind, which is how a reader tells it from the others.</summary>
    private static void TellKindsApart(IOpenApiSchema? schema)
    {
        if (schema is not OpenApiSchema own)
        {
            return;
        }

        own.Discriminator = null;
        if (own.Properties?.TryGetValue("kind", out var kind) == true && kind.Enum is { Count: 1 })
        {
            own.Type = JsonSchemaType.Object;
            own.Required ??= new HashSet<string>(StringComparer.Ordinal);
            own.Required.Add("kind");
        }

        if (own.OneOf is { Count: > 0 })
        {
            // "Null or something that may be null itself" is no choice of exactly one.
            own.AnyOf = own.OneOf;
            own.OneOf = null;
        }

        if (own.AnyOf is { Count: > 0 })
        {
            own.Type = null;
            own.Required = null;
        }

        foreach (var part in (own.Properties?.Values ?? []).Concat(own.AnyOf ?? []).Append(own.Items))
        {
            TellKindsApart(part);
        }
    }
}
