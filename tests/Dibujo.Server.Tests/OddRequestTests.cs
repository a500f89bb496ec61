using System.Text.Json.Nodes;

namespace Dibujo.Server.Tests;

/// <summary>Whatever is sent to whatever address is answered: what is wrong with it is said, and never that the server made a mistake.</summary>
public sealed class OddRequestTests(Site site) : IClassFixture<Site>
{
    /// <summary>Stands for half of a character, which JSON can write and text cannot hold.</summary>
    private const string Half = "(half a character)";

    private const int Deepest = 7;

    /// <summary>How many requests are made up for each address; more where the environment says so.</summary>
    private static readonly int Count = Tries.Of("DIBUJO_REQUESTS", 15);

    private static readonly string[] Texts =
    [
        "", " ", "title", "borrower", "object", "startDate", "object-loan", "loan", "main", "standard", "enquiry", "rosa", "none", "1", "-1", "2026-11-29", "0001-01-01", "x\0y", Half,
        "\u202Etxet", "constructor", "@number", "@form:", "a\tb\r\nc", "%", "'\"`", "/../..", new('ж', 3000),
    ];

    private static readonly JsonNode?[] Oddities = [null, true, 0, -1, 1e30, 2147483648, "", Half, new JsonArray(), new JsonArray([null]), new JsonObject(), new JsonObject { [""] = null }, 0.1m];

    [Fact]
    public async Task No_request_makes_the_server_make_a_mistake()
    {
        var ada = await site.Known("ada");
        var document = await ada.Read("/openapi/v1.json");
        var random = new Random(5);
        var broken = new List<string>();
        foreach (var (path, operations) in document["paths"]!.AsObject())
        {
            // How often somebody tries to sign in is counted, and who is signed out is not heard any more.
            foreach (var (method, operation) in operations!.AsObject().Where(_ => !path.StartsWith("/api/sign-in", StringComparison.Ordinal) && !path.StartsWith("/api/welcome", StringComparison.Ordinal)))
            {
                for (var i = 0; i < Count; i++)
                {
                    var address = Address(path, operation!, random);
                    var (body, type) = Body(operation!, document, random);
                    using var answer = await ada.Send(new(method.ToUpperInvariant()), address, body, true, type);
                    if ((int)answer.StatusCode >= 500)
                    {
                        broken.Add($"{answer.StatusCode}: {method} {address} {body}");
                        break;
                    }
                }
            }
        }

        Assert.True(broken.Count == 0, string.Join("\n", broken));
        using var health = await ada.Get("/health");
        Assert.True(health.IsSuccessStatusCode);
    }

    private static string Address(string path, JsonNode operation, Random random)
    {
        var query = new List<string>();
        foreach (var parameter in operation["parameters"]?.AsArray() ?? [])
        {
            var name = parameter!["name"]!.GetValue<string>();
            var isSensible = random.Next(3) > 0;
            var value = (isSensible, name) switch
            {
                (true, "key") => "object-loan",
                (true, "id" or "number" or "version" or "before" or "after" or "edition" or "from") => $"{random.Next(1, 80)}",
                (true, "field") => "object",
                (true, "form") => "main",
                _ => Pick(random, Texts).Replace("\0", "", StringComparison.Ordinal) is { Length: > 0 and < 100 } text ? text : "x",
            };
            if (parameter["in"]!.GetValue<string>() == "path")
            {
                path = path.Replace($"{{{name}}}", Uri.EscapeDataString(value), StringComparison.Ordinal);
            }
            else if (random.Next(2) == 0)
            {
                query.Add($"{name}={Uri.EscapeDataString(value)}");
            }
        }

        return query.Count == 0 ? path : $"{path}?{string.Join('&', query)}";
    }

    private static (string? Body, string Type) Body(JsonNode operation, JsonNode document, Random random)
    {
        if (operation["requestBody"]?["content"] is not JsonObject content)
        {
            return (null, "application/json");
        }

        var (type, of) = Pick(random, content.ToArray());
        if (type != "application/json")
        {
            return (string.Join('\n', Enumerable.Range(0, random.Next(4)).Select(_ => $"{Pick(random, Texts)},{Pick(random, Texts)}")), type);
        }

        var made = new JsonObject { ["it"] = Made(of!["schema"]!, document, random, 0) };
        // One place, or none, holds what it never should.
        if (random.Next(4) > 0)
        {
            var places = Places(made).ToList();
            Pick(random, places)(Pick(random, Oddities)?.DeepClone());
        }

        return (made["it"]?.ToJsonString().Replace(Half, "\\ud83d", StringComparison.Ordinal) ?? "null", type);
    }

    /// <summary>Something of that form.</summary>
    private static JsonNode? Made(JsonNode schema, JsonNode document, Random random, int depth)
    {
        if (schema["$ref"]?.GetValue<string>() is { } reference)
        {
            return Made(document["components"]!["schemas"]![reference.Split('/')[^1]]!, document, random, depth + 1);
        }

        if ((schema["oneOf"] ?? schema["anyOf"]) is JsonArray { Count: > 0 } ways)
        {
            return Made(Pick(random, ways.ToArray())!, document, random, depth);
        }

        if (schema["enum"] is JsonArray { Count: > 0 } values)
        {
            return Pick(random, values.ToArray())?.DeepClone();
        }

        string[] types = schema["type"] switch { JsonArray several => [.. several.Select(one => one!.GetValue<string>())], { } one => [one.GetValue<string>()], null => ["string", "number", "object"] };
        switch (Pick(random, types))
        {
            case "object":
                var made = new JsonObject();
                foreach (var (name, property) in schema["properties"]?.AsObject() ?? [])
                {
                    var isRequired = schema["required"]?.AsArray().Any(one => one!.GetValue<string>() == name) == true;
                    if (depth < Deepest && (isRequired || random.Next(3) > 0))
                    {
                        made[name] = Made(property!, document, random, depth + 1);
                    }
                }

                if (schema["additionalProperties"] is JsonObject further && depth < Deepest)
                {
                    made[Pick(random, Texts)] = Made(further, document, random, depth + 1);
                }

                return made;
            case "array":
                return new JsonArray([.. Enumerable.Range(0, depth < Deepest ? random.Next(3) : 0).Select(_ => Made(schema["items"] ?? new JsonObject(), document, random, depth + 1))]);
            case "boolean":
                return random.Next(2) == 0;
            case "integer":
                return random.Next(-1, 400);
            case "number":
                return random.Next(-1, 400) / 4m;
            case "null":
                return null;
            default:
                return Pick(random, Texts);
        }
    }

    /// <summary>Each place in it, as what puts something else there.</summary>
    private static IEnumerable<Action<JsonNode?>> Places(JsonNode? node) => node switch
    {
        JsonObject parts => parts.ToArray().SelectMany(part => Places(part.Value).Prepend(value => parts[part.Key] = value)),
        JsonArray items => Enumerable.Range(0, items.Count).SelectMany(i => Places(items[i]).Prepend(value => items[i] = value)).Append(items.Add),
        _ => [],
    };

    private static T Pick<T>(Random random, IReadOnlyList<T> from) => from[random.Next(from.Count)];
}
