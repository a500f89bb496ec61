using System.Net.Http.Headers;
using System.Net.Http.Json;
using System.Text.Json.Nodes;
using Dibujo.Core.Packs;
using Dibujo.Core.Rules;
using Dibujo.Endurance;

namespace Dibujo.Screens;

/// <summary>The built server with a record type of this benchmark's own beside the demo's.</summary>
internal sealed class Site(Client administrator)
{
    /// <summary>The record type whose draft is exchanged.</summary>
    internal const string RecordType = "wide-form";

    /// <summary>Imports and publishes the definition, and makes records under it; their numbers come back.</summary>
    internal async Task<int[]> UseAsync(Definition definition, int records)
    {
        // The first time; after that it is there.
        using (await administrator.SendAsync(HttpMethod.Post, "/api/record-types", JsonContent.Create(new { key = RecordType, label = "Wide form" })))
        {
        }

        var version = (await administrator.ReadAsync($"/api/record-types/{RecordType}/draft"))["version"]!.GetValue<int>();
        var pack = new ByteArrayContent(PackFile.Write(Pack.Of(definition)));
        pack.Headers.ContentType = new MediaTypeHeaderValue("application/json");
        var imported = await PostAsync($"/api/record-types/{RecordType}/draft/imports?apply={version}", pack);
        await PostAsync($"/api/record-types/{RecordType}/editions", JsonContent.Create(new { version = imported["version"]!.GetValue<int>(), note = "For the benchmark." }));
        var ids = new int[records];
        for (var i = 0; i < ids.Length; i++)
        {
            // With little in it, so that nothing is locked yet or needed to save.
            var values = new Dictionary<string, object> { [WideForm.Name(0)] = $"Record {i}" };
            ids[i] = (await PostAsync($"/api/record-types/{RecordType}/records", JsonContent.Create(new { changes = values })))["id"]!.GetValue<int>();
        }

        return ids;
    }

    private async Task<JsonNode> PostAsync(string address, HttpContent content)
    {
        using var answer = await administrator.SendAsync(HttpMethod.Post, address, content);
        var text = await answer.Content.ReadAsStringAsync();
        return answer.IsSuccessStatusCode ? JsonNode.Parse(text)! : throw new InvalidOperationException($"{address}: {text[..Math.Min(400, text.Length)]}");
    }
}
