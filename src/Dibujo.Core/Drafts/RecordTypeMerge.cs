using System.Text;
using System.Text.Json.Nodes;
using Dibujo.Core.Json;
using Dibujo.Core.Records;

namespace Dibujo.Core.Drafts;

/// <summary>What two people made of one record type at the same time, as one: part by part, by the keys of fields, forms, tabs, sections, stages and the like.</summary>
/// <remarks>As <c>mergeTypes</c> in the front end. Whether what comes of it makes sense as a whole is found out like anywhere else, by the checks of the draft.</remarks>
public static class RecordTypeMerge
{
    /// <summary>The record type with what both did, and whether some part was made something different by each.</summary>
    /// <param name="was">What both began with.</param>
    /// <param name="mine">What one made of it, who counts where they collide.</param>
    /// <param name="theirs">What the other made of it.</param>
    public static (RecordType Merged, bool Collides) Of(RecordType was, RecordType mine, RecordType theirs)
    {
        var collides = false;
        var merged = Merge(Json(was), Json(mine), Json(theirs), ref collides);
        return (JsonText.Read<RecordType>(Encoding.UTF8.GetBytes(merged!.ToJsonString())).Value!, collides);
    }

    private static JsonNode? Json(RecordType type) => JsonNode.Parse(JsonText.Write(type));

    private static JsonNode? Merge(JsonNode? was, JsonNode? mine, JsonNode? theirs, ref bool collides)
    {
        if (JsonNode.DeepEquals(mine, was) || JsonNode.DeepEquals(mine, theirs))
        {
            return theirs?.DeepClone();
        }

        if (JsonNode.DeepEquals(theirs, was))
        {
            return mine?.DeepClone();
        }

        switch (mine, theirs)
        {
            case (JsonObject one, JsonObject other):
                var before = was as JsonObject ?? [];
                var merged = new JsonObject();
                foreach (var name in other.Concat(one).Select(property => property.Key).Distinct(StringComparer.Ordinal))
                {
                    if (Merge(before[name], one[name], other[name], ref collides) is { } value)
                    {
                        merged[name] = value;
                    }
                }

                return merged;
            case (JsonArray one, JsonArray other):
                return Merge(was as JsonArray ?? [], one, other, ref collides);
            default:
                collides = true;
                return mine?.DeepClone();
        }
    }

    /// <summary>Lists by the keys of what is in them, or by that itself: what either added or took away is added or taken away, in the order of whoever changed the order.</summary>
    private static JsonArray Merge(JsonArray was, JsonArray mine, JsonArray theirs, ref bool collides)
    {
        var (before, one, other) = (ByKey(was), ByKey(mine), ByKey(theirs));
        var isReordered = !other.Keys.Where(before.ContainsKey).SequenceEqual(before.Keys.Where(other.ContainsKey), StringComparer.Ordinal);
        var merged = new JsonArray();
        foreach (var key in isReordered ? Woven(other.Keys, one.Keys) : Woven(one.Keys, other.Keys))
        {
            var (then, kept) = (before.GetValueOrDefault(key), one.ContainsKey(key) && other.ContainsKey(key));
            var left = one.GetValueOrDefault(key) ?? other.GetValueOrDefault(key);
            if (kept)
            {
                merged.Add(Merge(then, one[key], other[key], ref collides));
            }
            else if (then is null)
            {
                merged.Add(left!.DeepClone());
            }
            else if (!JsonNode.DeepEquals(left, then))
            {
                // One took away what the other changed: it stays until somebody has chosen.
                collides = true;
                merged.Add(left!.DeepClone());
            }
        }

        return merged;
    }

    private static Dictionary<string, JsonNode> ByKey(JsonArray list)
    {
        var byKey = new Dictionary<string, JsonNode>(StringComparer.Ordinal);
        foreach (var item in list.OfType<JsonNode>())
        {
            byKey.TryAdd(item is JsonObject part && part["key"] is JsonValue key ? key.ToString() : item.ToJsonString(), item);
        }

        return byKey;
    }

    /// <summary>All keys in the order of the first list; those of the second alone stand behind what they stand behind there.</summary>
    private static List<string> Woven(IEnumerable<string> first, IEnumerable<string> second)
    {
        var woven = first.ToList();
        var behind = 0;
        foreach (var key in second)
        {
            var at = woven.IndexOf(key);
            if (at < 0)
            {
                woven.Insert(behind, key);
                at = behind;
            }

            behind = at + 1;
        }

        return woven;
    }
}
