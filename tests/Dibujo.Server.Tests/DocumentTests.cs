using System.Text.Json.Nodes;
using System.Text.RegularExpressions;

namespace Dibujo.Server.Tests;

public sealed partial class DocumentTests(Site site) : IClassFixture<Site>
{
    /// <summary>With DIBUJO_WRITE_OPENAPI set, writes the document that the front end's types are generated from.</summary>
    [Fact]
    public async Task The_committed_OpenAPI_document_is_the_servers_own()
    {
        var ada = await site.As("ada");
        var served = await ada.Read("/openapi/v1.json");
        var file = Checkout.Path("src", "web", "openapi.json");
        if (Environment.GetEnvironmentVariable("DIBUJO_WRITE_OPENAPI") is not null)
        {
            await File.WriteAllTextAsync(file, served.ToJsonString(new() { WriteIndented = true }) + "\n");
        }

        Assert.True(JsonNode.DeepEquals(JsonNode.Parse(await File.ReadAllTextAsync(file)), served), "Run the tests with DIBUJO_WRITE_OPENAPI=1 and commit src/web/openapi.json.");
    }

    [Fact]
    public async Task Nothing_that_is_left_out_where_it_is_null_is_called_required()
    {
        var ada = await site.As("ada");
        var schemas = (await ada.Read("/openapi/v1.json"))["components"]!["schemas"]!.AsObject();

        Assert.Empty(
            from schema in schemas
            from required in schema.Value!["required"]?.AsArray() ?? []
            let property = schema.Value!["properties"]?[required!.GetValue<string>()]
            where property is not null && (IsNull(property["type"]) || (property["anyOf"]?.AsArray() ?? []).Any(one => one!["type"] is JsonValue && IsNull(one["type"])))
            select $"{schema.Key}.{required}");

        static bool IsNull(JsonNode? type) => type is JsonArray several ? several.Any(one => one!.GetValue<string>() == "null") : type?.GetValue<string>() == "null";
    }

    /// <summary>The same document holds the pack's schema; docs has it as one of its own.</summary>
    [Fact]
    public async Task The_packs_schema_in_docs_is_the_servers_own()
    {
        var ada = await site.As("ada");
        var all = (await ada.Read("/openapi/v1.json"))["components"]!["schemas"]!.AsObject();
        var definitions = new JsonObject();
        Take("Pack");
        var schema = new JsonObject
        {
            ["$schema"] = "https://json-schema.org/draft/2020-12/schema",
            ["title"] = "Dibujo pack, version 1",
            ["$ref"] = "#/$defs/Pack",
            ["$defs"] = definitions,
        };
        var file = Checkout.Path("docs", "pack.schema.json");
        if (Environment.GetEnvironmentVariable("DIBUJO_WRITE_OPENAPI") is not null)
        {
            await File.WriteAllTextAsync(file, schema.ToJsonString(new() { WriteIndented = true }) + "\n");
        }

        Assert.True(JsonNode.DeepEquals(JsonNode.Parse(await File.ReadAllTextAsync(file)), schema), "Run the tests with DIBUJO_WRITE_OPENAPI=1 and commit docs/pack.schema.json.");

        void Take(string name)
        {
            if (definitions.ContainsKey(name))
            {
                return;
            }

            var text = all[name]!.ToJsonString();
            definitions[name] = JsonNode.Parse(text.Replace("#/components/schemas/", "#/$defs/", StringComparison.Ordinal));
            foreach (Match reference in Reference().Matches(text))
            {
                Take(reference.Groups["name"].Value);
            }
        }
    }

    [GeneratedRegex("#/components/schemas/(?<name>[A-Za-z]+)", RegexOptions.ExplicitCapture, 1000)]
    private static partial Regex Reference();
}
