using System.Collections.Concurrent;
using System.Text.Json.Nodes;

namespace Dibujo.Endurance;

/// <summary>What clients were told of their saves, to be held against the histories afterwards.</summary>
internal sealed class Told
{
    private readonly ConcurrentDictionary<(int Id, int Version), string> saves = new();

    /// <summary>How many saves were answered.</summary>
    internal int Count => saves.Count;

    /// <summary>Somebody was told that this title became this version; false where that was told before.</summary>
    internal bool Note(int id, int version, string title) => saves.TryAdd((id, version), title);

    /// <summary>
    /// In how many places histories do not hold: from the first save of a record that was told on, there is exactly one save for each version, it is
    /// the one that was told, and it began with what the one before left.
    /// </summary>
    internal async Task<int> CheckAsync(Client client)
    {
        var wrong = 0;
        foreach (var record in saves.GroupBy(save => save.Key.Id))
        {
            var first = record.Min(save => save.Key.Version);
            string? left = null;
            var next = first;
            foreach (var entry in (await HistoryAsync(client, record.Key, first)).OrderBy(VersionOf))
            {
                var (was, became) = (Title(entry["before"]), Title(entry["after"]));
                wrong += VersionOf(entry) == next && (left is null || was == left) && saves.GetValueOrDefault((record.Key, next)) == became ? 0 : 1;
                (left, next) = (became, next + 1);
            }

            wrong += next - first == record.Count() ? 0 : 1;
        }

        return wrong;
    }

    private static async Task<List<JsonNode>> HistoryAsync(Client client, int id, int first)
    {
        var entries = new List<JsonNode>();
        for (var before = ""; ;)
        {
            var page = (await client.ReadAsync($"/api/records/{id}/history{before}")).AsArray();
            entries.AddRange(page.Where(entry => VersionOf(entry!) >= first)!);
            if (page.Count == 0 || VersionOf(page[^1]!) <= first)
            {
                return entries;
            }

            before = $"?before={VersionOf(page[^1]!)}";
        }
    }

    private static int VersionOf(JsonNode entry) => entry["version"]!.GetValue<int>();

    private static string? Title(JsonNode? values) => values?["title"]?.GetValue<string>();
}
