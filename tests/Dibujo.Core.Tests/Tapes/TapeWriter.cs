using System.Text;
using System.Text.Json.Nodes;
using Dibujo.Core.Tapes;

namespace Dibujo.Core.Tests.Tapes;

/// <summary>Lays JSON out as src/web/src/engine/tape.ts does.</summary>
internal static class TapeWriter
{
    internal static TapeNode Read(JsonNode? model)
    {
        var (nodes, texts) = (new List<int>(), new List<string>());
        var root = Write(model);
        return Tape.Read([texts.Count, .. texts.Select(text => text.Length), .. nodes, root], string.Concat(texts));

        int Write(JsonNode? value)
        {
            int[] node = value switch
            {
                null => [(int)TapeKind.Null],
                JsonArray list => [(int)TapeKind.List, list.Count, .. list.Select(Write)],
                JsonObject members => [(int)TapeKind.Object, members.Count, .. members.SelectMany(member => new[] { PlaceOf(member.Key), Write(member.Value) })],
                _ => Plain(value),
            };
            nodes.AddRange(node);
            return nodes.Count - node.Length;
        }

        int[] Plain(JsonNode value) => value.GetValueKind() switch
        {
            System.Text.Json.JsonValueKind.True => [(int)TapeKind.True],
            System.Text.Json.JsonValueKind.False => [(int)TapeKind.False],
            System.Text.Json.JsonValueKind.String => [(int)TapeKind.Text, PlaceOf(value.GetValue<string>())],
            _ => int.TryParse(value.ToJsonString(), System.Globalization.CultureInfo.InvariantCulture, out var whole)
                ? [(int)TapeKind.Integer, whole]
                : [(int)TapeKind.Number, PlaceOf(value.ToJsonString())],
        };

        int PlaceOf(string text)
        {
            var composed = text.Normalize(NormalizationForm.FormC);
            var place = texts.IndexOf(composed);
            if (place < 0)
            {
                place = texts.Count;
                texts.Add(composed);
            }

            return place;
        }
    }
}
