using System.Net;
using System.Text.Json;
using System.Text.Json.Nodes;
using Dibujo.Core.Json;
using Dibujo.Core.Records;
using Dibujo.Core.Reshaping;
using Dibujo.Core.Rules;
using Microsoft.EntityFrameworkCore;

namespace Dibujo.Server.Tests;

/// <summary>A changed record type comes into force together with what it does to the records, or not at all.</summary>
public sealed class PublicationTests(Site site) : IClassFixture<Site>
{
    [Fact]
    public async Task Records_rules_and_history_follow_a_key_a_choice_a_stage_and_a_type()
    {
        var type = await Begun("crates");
        var ada = await site.Known("ada");
        await Publish("crates");
        var kept = await Create("crates", new { title = "First", material = "pine", weight = "a lot" });
        var lost = await Create("crates", new { title = "Second", material = "oak", weight = "12.5" });
        await Move(kept, "on");
        var before = await ada.Read($"/api/records/{kept}");
        var draft = By(type, new FieldRenamed("title", "name"), new ChoiceMerged("material", "pine", "oak"), new StageRemoved("only", "packed", "sent"));
        draft = draft with { RecordType = draft.RecordType with { Fields = draft.RecordType.Fields.Replace(draft.RecordType.Find("weight")!, draft.RecordType.Find("weight")! with { Type = new NumberType(1, Unit: "kg") }) } };

        using var foreseen = await ada.Send(HttpMethod.Post, "/api/record-types/crates/consequences", System.Text.Encoding.UTF8.GetString(JsonText.Write(draft.RecordType)), withToken: true);
        var told = JsonNode.Parse(await foreseen.Content.ReadAsStringAsync())!;
        Assert.Equal(2, told["records"]!.GetValue<int>());
        Assert.Equal(
            ["Title has the key name in place of title.", "Material: Pine becomes Oak.", "Packed is no longer a stage: its records go to Sent.", "Weight is a line of text no longer, but a number."],
            told["consequences"]!.AsArray().Select(one => one!["what"]!.GetValue<string>()));
        Assert.Equal(1, told["consequences"]![3]!["lost"]!.GetValue<int>());

        await Save("crates", draft);
        await Publish("crates");

        var after = await ada.Read($"/api/records/{kept}");
        Assert.Equal(("First", "oak", "sent"), (after["values"]!["name"]!.GetValue<string>(), after["values"]!["material"]!.GetValue<string>(), after["setting"]!["stage"]!.GetValue<string>()));
        Assert.False(after["values"]!.AsObject().ContainsKey("weight"));
        Assert.Equal(12.5m, (await ada.Read($"/api/records/{lost}"))["values"]!["weight"]!.GetValue<decimal>());
        var entry = JsonNode.Parse(await (await ada.Get($"/api/records/{kept}/history")).Content.ReadAsStringAsync())![0]!;
        Assert.Equal((after["version"]!.GetValue<int>(), "ada", 2, "packed", "sent", "a lot"),
            (entry["version"]!.GetValue<int>(), entry["by"]!.GetValue<string>(), entry["edition"]!.GetValue<int>(), entry["fromStage"]!.GetValue<string>(), entry["toStage"]!.GetValue<string>(), entry["before"]!["weight"]!.GetValue<string>()));
        var next = await ada.Read("/api/record-types/crates/draft");
        Assert.Empty(next["definition"]!["recordType"]!["reshaping"]?.AsArray() ?? []);
        // Who had it open since before is told, and overwrites nothing.
        using var late = await (await site.Known("lorenz")).Post($"/api/records/{kept}/saves", new { version = before["version"], changes = new { title = "Mine" } });
        Assert.Equal(HttpStatusCode.Conflict, late.StatusCode);
        Assert.Contains("Ada Penhallow has changed this record", await late.Content.ReadAsStringAsync(), StringComparison.Ordinal);
    }

    [Fact]
    public async Task What_is_saved_while_records_are_worked_out_is_carried_over_as_well()
    {
        var type = await Begun("boxes");
        await Publish("boxes");
        var ada = await site.Known("ada");
        var rows = string.Join('\n', Enumerable.Range(0, 1200).Select(i => $"Box {i},pine,{i}"));
        using var imported = await ada.Send(HttpMethod.Post, "/api/record-types/boxes/records.csv", "title,material,weight\n" + rows, withToken: true, "text/csv");
        imported.EnsureSuccessStatusCode();
        await Save("boxes", By(type, new FieldRenamed("title", "name"), new ChoiceMerged("material", "pine", "oak")));
        var ids = await Ids("boxes");
        var saving = Task.Run(async () =>
        {
            var saved = new List<(int Id, string Value)>();
            foreach (var id in ids.Take(150))
            {
                var record = await ada.Read($"/api/records/{id}");
                var isOld = record["values"]!.AsObject().ContainsKey("title");
                using var answer = await ada.Post($"/api/records/{id}/saves", new { version = record["version"], changes = new Dictionary<string, string> { [isOld ? "title" : "name"] = $"Saved {id}" } });
                if (answer.IsSuccessStatusCode)
                {
                    saved.Add((id, $"Saved {id}"));
                }
            }

            return saved;
        });
        await Publish("boxes");
        var kept = await saving;

        Assert.NotEmpty(kept);
        foreach (var (id, value) in kept)
        {
            Assert.Equal(value, (await ada.Read($"/api/records/{id}"))["values"]!["name"]!.GetValue<string>());
        }

        await site.InStore(async db =>
        {
            var records = await db.Records.AsNoTracking().Where(r => r.RecordType == "boxes").ToListAsync();
            Assert.All(records, record => Assert.True(record.Values.ByField.ContainsKey("name") && !record.Values.ByField.ContainsKey("title") && record.Values["material"].Plain == "oak"));
            Assert.Empty(await db.Staged.ToListAsync());
            // The history of each leads from one version to the next without a gap.
            var entries = await db.History.AsNoTracking().Where(e => ids.Contains(e.RecordId)).GroupBy(e => e.RecordId).Select(g => new { g.Key, Count = g.Count(), Last = g.Max(e => e.Version) }).ToListAsync();
            Assert.All(entries, one => Assert.Equal((one.Count, records.Single(r => r.Id == one.Key).Version), (one.Last, one.Last)));
        });
    }

    [Fact]
    public async Task Where_nothing_becomes_of_records_an_edition_is_in_force_at_once()
    {
        await Begun("trays");
        var ada = await site.Known("ada");
        var first = await Publish("trays");
        var second = await Publish("trays");

        Assert.Equal((1, 2), (first, second));
        var view = await ada.Read("/api/record-types/trays/publication");
        Assert.Equal((false, 2), (view["isRunning"]!.GetValue<bool>(), view["number"]!.GetValue<int>()));
    }

    [Fact]
    public async Task No_stage_goes_from_under_records_unless_it_is_said_where_they_go()
    {
        var type = await Begun("stools");
        await Publish("stools");
        await Move(await Create("stools", new { title = "First" }), "on");
        var workflow = type.RecordType.Workflows[0];
        await Save("stools", type with { RecordType = type.RecordType with { Workflows = [workflow with { Stages = [workflow.Stages[0], workflow.Stages[2]], Moves = [] }] } });
        var ada = await site.Known("ada");
        using var refused = await ada.Post("/api/record-types/stools/editions", new { version = (await ada.Read("/api/record-types/stools/draft"))["version"], note = "" });

        Assert.Equal(HttpStatusCode.UnprocessableEntity, refused.StatusCode);
        Assert.Contains("One record is at the stage “Packed”", JsonNode.Parse(await refused.Content.ReadAsStringAsync())!["detail"]!.GetValue<string>(), StringComparison.Ordinal);
    }

    [Fact]
    public async Task An_earlier_edition_takes_its_records_back_with_it()
    {
        var type = await Begun("racks");
        await Publish("racks");
        var record = await Create("racks", new { title = "First" });
        await Save("racks", By(type, new FieldRenamed("title", "name")));
        await Publish("racks");
        await Save("racks", Read(new JsonObject { ["definition"] = await (await site.Known("ada")).Read("/api/record-types/racks/editions/1/draft") }));
        await Publish("racks");

        Assert.Equal("First", (await (await site.Known("lorenz")).Read($"/api/records/{record}"))["values"]!["title"]!.GetValue<string>());
    }

    [Fact]
    public async Task It_is_counted_how_many_records_hold_what()
    {
        await Begun("chests");
        await Publish("chests");
        await Create("chests", new { title = "One", material = "pine" });
        await Create("chests", new { title = "Two", material = "oak" });
        await Move(await Create("chests", new { title = "Three", material = "oak" }), "on");

        var holdings = await (await site.Known("ada")).Read("/api/record-types/chests/holdings");

        Assert.Equal((3, 3), (holdings["fields"]!["title"]!.GetValue<int>(), holdings["fields"]!["material"]!.GetValue<int>()));
        Assert.Equal((1, 2), (holdings["choices"]!["material"]!["pine"]!.GetValue<int>(), holdings["choices"]!["material"]!["oak"]!.GetValue<int>()));
        Assert.Equal((2, 1), (holdings["stages"]!["only"]!["open"]!.GetValue<int>(), holdings["stages"]!["only"]!["packed"]!.GetValue<int>()));
    }

    [Fact]
    public async Task Rules_of_another_record_type_find_a_linked_field_under_the_key_that_they_know()
    {
        var type = await Begun("shelves");
        await Publish("shelves");
        var shelf = await Create("shelves", new { title = "Top" });
        var ada = await site.Known("ada");
        using var begun = await ada.Post("/api/record-types", new { key = "stored", label = "Stored" });
        begun.EnsureSuccessStatusCode();
        var stored = Read(await ada.Read("/api/record-types/stored/draft"));
        stored = stored with
        {
            RecordType = stored.RecordType with
            {
                Fields = [.. stored.RecordType.Fields, new("shelf", "Shelf", new LinkType("shelves"))],
                Forms = [new("form", "Form", [new("main", "Main", [new("s", "S", ["title", "shelf"])])])],
                Linked = [new("shelves", "Shelf", [new("title", "Title", new TextType())])],
            },
        };
        await Save("stored", stored);
        await Publish("stored");
        var record = await Create("stored", new { title = "Lamp", shelf });
        await Save("shelves", By(type, new FieldRenamed("title", "name")));
        await Publish("shelves");

        var linked = (await ada.Read($"/api/records/{record}"))["linked"]![0]!;

        Assert.Equal("Top", linked["values"]!["title"]!.GetValue<string>());
    }

    private async Task<Definition> Begun(string key)
    {
        var ada = await site.Known("ada");
        using var begun = await ada.Post("/api/record-types", new { key, label = key });
        begun.EnsureSuccessStatusCode();
        var draft = Read(await ada.Read($"/api/record-types/{key}/draft"));
        draft = draft with
        {
            RecordType = draft.RecordType with
            {
                Fields = [new("title", "Title", new TextType()), new("material", "Material", new ChoiceType([new("pine", "Pine"), new("oak", "Oak")])), new("weight", "Weight", new TextType())],
                Forms = [new("form", "Form", [new("main", "Main", [new("s", "S", ["title", "material", "weight"])])])],
                Workflows = [new("only", "Only", [new("open", "Open"), new("packed", "Packed"), new("sent", "Sent")], [new("on", "On", "open", "packed"), new("out", "Out", "packed", "sent")])],
            },
        };
        await Save(key, draft);
        return draft;
    }

    private async Task Save(string key, Definition definition)
    {
        var ada = await site.Known("ada");
        var version = (await ada.Read($"/api/record-types/{key}/draft"))["version"];
        using var saved = await ada.Put($"/api/record-types/{key}/draft", new { version, definition = JsonNode.Parse(JsonText.Write(definition)) });
        saved.EnsureSuccessStatusCode();
    }

    /// <summary>Publishes, waits until it is through, and tells the edition's number.</summary>
    private async Task<int> Publish(string key)
    {
        var ada = await site.Known("ada");
        var version = (await ada.Read($"/api/record-types/{key}/draft"))["version"];
        using var begun = await ada.Post($"/api/record-types/{key}/editions", new { version, note = "" });
        begun.EnsureSuccessStatusCode();
        for (var tries = 0; tries < 400; tries++)
        {
            var view = await ada.Read($"/api/record-types/{key}/publication");
            if (!view["isRunning"]!.GetValue<bool>())
            {
                return view["number"]?.GetValue<int>() ?? throw new InvalidOperationException(view["failure"]!.GetValue<string>());
            }

            await Task.Delay(50);
        }

        throw new TimeoutException();
    }

    private async Task<int> Create(string key, object changes)
    {
        using var created = await (await site.Known("ada")).Post($"/api/record-types/{key}/records", new { changes });
        Assert.Equal(HttpStatusCode.Created, created.StatusCode);
        return JsonNode.Parse(await created.Content.ReadAsStringAsync())!["id"]!.GetValue<int>();
    }

    private async Task Move(int record, string move)
    {
        var ada = await site.Known("ada");
        using var moved = await ada.Post($"/api/records/{record}/saves", new { version = (await ada.Read($"/api/records/{record}"))["version"], changes = new { }, move });
        moved.EnsureSuccessStatusCode();
    }

    private async Task<List<int>> Ids(string key)
    {
        List<int> ids = [];
        await site.InStore(async db => ids = await db.Records.Where(r => r.RecordType == key).Select(r => r.Id).ToListAsync());
        return ids;
    }

    private static Definition Read(JsonNode view) => JsonSerializer.Deserialize(view["definition"]!, CoreJson.Default.Definition)!;

    private static Definition By(Definition definition, params Reshape[] reshapes) =>
        reshapes.Aggregate(definition, (draft, reshape) => Reshaped.By(draft, reshape).Definition!);
}
