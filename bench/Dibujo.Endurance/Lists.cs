using System.Diagnostics;
using System.Globalization;
using System.Text.Json.Nodes;

namespace Dibujo.Endurance;

/// <summary>Lists of 100,000 records by whatever column, under filters of up to four tests and now and then a search, drawn from a fixed seed.</summary>
internal static class Lists
{
    private const string Loans = "/api/record-types/object-loan";
    private const int Records = 100_000;
    private const int Drawn = 400;
    private const int MostTests = 4;

    private static readonly string[] Searches = ["kite", "oil", "museum", "van", "sketch of", "portrait"];

    /// <param name="folder">Where the records are, or are invented once; null for a folder that is deleted afterwards.</param>
    internal static async Task<int> RunAsync(string? folder)
    {
        var data = folder ?? BuiltServer.NewFolder();
        var (server, _) = await BuiltServer.StartAsync(data, Records);
        await using (server)
        {
            using var client = await Client.SignInAsync(server.Address, "ada");
            var columns = (await client.ReadAsync($"{Loans}/columns")).AsArray().Select(column => column!).ToList();
            var values = await ValuesAsync(client, columns);
            var random = new Random(1);
            var took = new Dictionary<string, List<double>>(StringComparer.Ordinal);
            for (var i = 0; i < Drawn; i++)
            {
                var (request, kind) = Draw(random, columns, values);
                var begun = Stopwatch.GetTimestamp();
                using var answer = await client.PostAsync($"{Loans}/rows", request.ToJsonString());
                var page = JsonNode.Parse(await answer.Content.ReadAsStringAsync())!;
                if (!answer.IsSuccessStatusCode)
                {
                    Console.WriteLine($"{request.ToJsonString()} is answered by {page}");
                    return 1;
                }

                foreach (var of in (string[])[kind, "all"])
                {
                    took.TryAdd(of, []);
                    took[of].Add(Stopwatch.GetElapsedTime(begun).TotalMilliseconds);
                }
            }

            foreach (var (kind, all) in took.OrderBy(one => one.Key, StringComparer.Ordinal))
            {
                double[] sorted = [.. all.Order()];
                Console.WriteLine(string.Create(CultureInfo.InvariantCulture, $"  {kind}: {sorted.Length} lists, median {sorted[sorted.Length / 2]:0} ms, 95 % {sorted[(int)(sorted.Length * 0.95)]:0} ms, longest {sorted[^1]:0} ms"));
            }
        }

        if (folder is null)
        {
            Directory.Delete(data, recursive: true);
        }

        return 0;
    }

    /// <summary>What to compare with: values that some records have, by column.</summary>
    private static async Task<Dictionary<string, List<JsonNode>>> ValuesAsync(Client client, List<JsonNode> columns)
    {
        var values = columns.ToDictionary(KeyOf, _ => new List<JsonNode>(), StringComparer.Ordinal);
        foreach (var some in columns.Select(KeyOf).Where(key => key[0] != '@').Chunk(30))
        {
            var request = new JsonObject { ["columns"] = new JsonArray([.. some.Select(key => (JsonNode)key)]), ["sortBy"] = "@number", ["take"] = 200 };
            using var answer = await client.PostAsync($"{Loans}/rows", request.ToJsonString());
            foreach (var (key, value) in JsonNode.Parse(await answer.Content.ReadAsStringAsync())!["rows"]!.AsArray().SelectMany(row => row!["values"]!.AsObject()))
            {
                values[key].AddRange(value is JsonArray several ? several.Select(one => one!) : [value!]);
            }
        }

        foreach (var column in columns.Where(column => values[KeyOf(column)].Count == 0))
        {
            values[KeyOf(column)].AddRange(column["type"]!["options"] is JsonArray options ? options.Select(option => option!["key"]!)
                : column["type"]!["kind"]!.GetValue<string>() switch { "yesNo" => [true, false], "number" => [7, Records / 2], "person" => ["ada", "rosa"], "dateTime" => ["2026-11-29T12:00:00"], _ => [] });
        }

        return values;
    }

    private static (JsonObject Request, string Kind) Draw(Random random, List<JsonNode> columns, Dictionary<string, List<JsonNode>> values)
    {
        var tests = random.Next(MostTests + 1);
        var request = new JsonObject
        {
            ["columns"] = new JsonArray("title", "borrower", "insuredValue", "startDate"),
            ["sortBy"] = KeyOf(columns[random.Next(columns.Count)]),
            ["descending"] = random.Next(2) == 0,
        };
        if (tests > 0)
        {
            request["filter"] = new JsonObject
            {
                ["kind"] = "group",
                ["quantifier"] = ((string[])["allOf", "allOf", "anyOf", "noneOf"])[random.Next(4)],
                ["members"] = new JsonArray([.. Enumerable.Range(0, tests).Select(_ => (JsonNode)Test(random, columns, values))]),
            };
        }

        if (random.Next(8) > 0)
        {
            return (request, $"{tests} tests");
        }

        request["search"] = Searches[random.Next(Searches.Length)];
        return (request, "searched");
    }

    private static JsonObject Test(Random random, List<JsonNode> columns, Dictionary<string, List<JsonNode>> values)
    {
        while (true)
        {
            var column = columns[random.Next(columns.Count)];
            var offers = column["tests"]!.AsArray();
            var offer = offers[random.Next(offers.Count)]!;
            var count = offer["shape"]!.GetValue<string>() switch { "alone" => 0, "one" => 1, _ => 2 };
            var known = values[KeyOf(column)];
            if (count == 0 || known.Count > 0)
            {
                return new JsonObject
                {
                    ["kind"] = "clause",
                    ["of"] = KeyOf(column),
                    ["test"] = offer["test"]!.DeepClone(),
                    ["values"] = new JsonArray([.. Enumerable.Range(0, count).Select(_ => known[random.Next(known.Count)].DeepClone())]),
                };
            }
        }
    }

    private static string KeyOf(JsonNode column) => column["key"]!.GetValue<string>();
}
