using System.Globalization;
using System.Text.Json;
using System.Text.Json.Nodes;
using Dibujo.Core.Compilation;
using Dibujo.Core.Conditions;
using Dibujo.Core.Evaluation;
using Dibujo.Core.Json;
using Dibujo.Core.Listing;
using Dibujo.Core.Records;
using Dibujo.Core.Rules;
using Dibujo.Core.Values;
using Dibujo.Store.Listing;
using Dibujo.Store.Records;
using Microsoft.EntityFrameworkCore;

namespace Dibujo.Server.Tests;

/// <summary>Lists: what they find, in which order, and what can be changed in them.</summary>
public sealed class ListTests(Site site) : IClassFixture<Site>
{
    private const string Loans = "/api/record-types/object-loan";

    /// <summary>How many random filters are tried; more where the environment says so.</summary>
    private static readonly int Count = Tries.Of("DIBUJO_FILTERS", 60);

    [Fact]
    public async Task A_filter_finds_the_records_for_which_a_rule_with_that_condition_would_be_in_force()
    {
        var rosa = await site.Known("rosa");
        var type = await TypeAsync(rosa);
        var random = new Random(11);
        await SaveSomeAsync(random);
        await StandingAsync();
        var records = await RecordsAsync();
        var columns = ListColumn.All(type).Where(column => column.Key[0] != '@' || column.Key is ListColumn.Stage or ListColumn.Workflow).ToList();
        for (var i = 0; i < Count; i++)
        {
            var clauses = Enumerable.Range(0, random.Next(1, 4)).Select(_ => Clause(random, columns[random.Next(columns.Count)], records)).ToList();
            var quantifier = Pick(random, Enum.GetValues<Quantifier>());
            var filter = new FilterGroup(quantifier, [.. clauses]);

            var found = await IdsAsync(rosa, new JsonObject { ["filter"] = JsonNode.Parse(JsonSerializer.Serialize<Filter>(filter, CamelCase)), ["sortBy"] = Pick(random, columns).Key });

            var program = ProgramCompiler.Compile(new Definition(type, [Rule(new Group(quantifier, [.. clauses.Select(Condition)]))])).Program!;
            var expected = records.Where(record => new Session(program, record.Values.FittedTo(type), new Setting(record.Workflow, record.Stage)).CaseInForce(0) >= 0)
                .Select(record => record.Id).Order().ToList();
            Assert.True(expected.SequenceEqual(found.Order()), $"{JsonSerializer.Serialize<Filter>(filter, CamelCase)}: {found.Count} found, {expected.Count} expected");
        }
    }

    [Fact]
    public async Task A_list_comes_in_the_order_of_any_column_with_blanks_last_and_each_record_once()
    {
        var rosa = await site.Known("rosa");
        var type = await TypeAsync(rosa);
        var records = (await RecordsAsync()).ToDictionary(record => record.Id);
        foreach (var field in type.Fields)
        {
            foreach (var descending in (bool[])[false, true])
            {
                var ids = await IdsAsync(rosa, new JsonObject { ["sortBy"] = field.Key, ["descending"] = descending });

                Assert.Equal(records.Keys.Order(), ids.Order());
                var keys = ids.ConvertAll(id => OrderOf(field.Type, field.Type.Fit(records[id].Values[field.Key]) ?? Value.Blank));
                var filled = keys.TakeWhile(key => key.Length > 0).ToList();
                Assert.All(keys.Skip(filled.Count), key => Assert.Empty(key));
                Assert.Equal(descending ? filled.OrderByDescending(key => key, StringComparer.Ordinal) : filled.Order(StringComparer.Ordinal), filled);
            }
        }
    }

    [Theory]
    [InlineData("museum OF vell", true)]
    [InlineData("  vell ", true)]
    [InlineData("zz", false)]
    [InlineData("no such \"thing\" anywhere", false)]
    public async Task A_search_looks_into_texts_without_regard_to_case_and_space(string search, bool isFound)
    {
        var rosa = await site.Known("rosa");
        var type = await TypeAsync(rosa);
        var texts = type.Fields.Where(field => field.Type is TextType or LongTextType or CompoundType).Select(field => field.Key).ToList();

        var ids = await IdsAsync(rosa, new JsonObject { ["search"] = search });

        var expected = (await RecordsAsync()).Where(record => texts.Any(field => (record.Values[field] is Compound compound ? compound.Parts.Values : [record.Values[field].Plain])
            .Any(text => text.Contains(search.Trim(), StringComparison.OrdinalIgnoreCase)))).Select(record => record.Id);
        Assert.Equal(expected.Order(), ids.Order());
        Assert.Equal(isFound, ids.Count > 0);
    }

    [Theory]
    [InlineData("returnedOn", false, null)]
    [InlineData("fee", true, "museum")]
    [InlineData("borrowerType", false, null)]
    [InlineData(ListColumn.Stage, true, null)]
    public async Task All_of_a_list_a_few_at_a_time_are_those_that_come_at_once(string sortBy, bool isDown, string? search)
    {
        var type = await TypeAsync(await site.Known("rosa"));
        var query = new RecordQuery(type, new FilterClause("crateNeeded", Test.IsNot) { Values = [new YesNo(true)] }, search, sortBy, isDown);

        await site.InStore(async db =>
        {
            var list = new RecordList(db);
            var all = new List<int>();
            await foreach (var some in list.AllAsync(query, 7, default))
            {
                all.AddRange(some);
            }

            Assert.Equal((await list.TakeAsync(query, null, 10_000, default)).Ids, all);
            Assert.Equal((await list.CountAsync(query, [], default)).Records, all.Count);
            Assert.True(all.Count > 14, $"{all.Count} are more than two pages.");
        });
    }

    [Theory]
    [InlineData("""{"columns": ["title", "title", "@missing", "@missing"]}""")]
    [InlineData("""{"columns": ["title", "no such column", ""]}""")]
    [InlineData("""{"columns": []}""")]
    [InlineData("""{"columns": ["title"], "take": 0}""")]
    [InlineData("""{"columns": ["title"], "take": 1000000, "search": "   "}""")]
    [InlineData("""{"columns": ["title"], "filter": {"kind": "group", "quantifier": "anyOf", "members": [{"kind": "group", "quantifier": "allOf", "members": []}]}}""")]
    public async Task An_odd_request_for_a_list_is_answered_like_any_other(string request)
    {
        var rosa = await site.Known("rosa");

        using var answer = await rosa.Post($"{Loans}/rows", JsonNode.Parse(request)!);

        var text = await answer.Content.ReadAsStringAsync();
        Assert.True(answer.IsSuccessStatusCode, text);
        Assert.NotEmpty(JsonNode.Parse(text)!["rows"]!.AsArray());
        using var count = await rosa.Post($"{Loans}/rows/count", JsonNode.Parse(request)!);
        Assert.Equal((await RecordsAsync()).Count, JsonNode.Parse(await count.Content.ReadAsStringAsync())!["records"]!.GetValue<int>());
    }

    [Theory]
    [InlineData("""{"columns": ["title"], "sortBy": "no such column"}""")]
    [InlineData("""{"columns": ["title"], "filter": {"kind": "clause", "of": "fee", "test": "contains", "values": ["x"]}}""")]
    [InlineData("""{"columns": ["title"], "filter": {"kind": "clause", "of": "fee", "test": "between", "values": [1]}}""")]
    [InlineData("""{"columns": ["title"], "filter": {"kind": "clause", "of": "fee", "test": "is", "values": [null]}}""")]
    [InlineData("""{"columns": ["title"], "filter": {"kind": "clause", "test": "is", "values": []}}""")]
    [InlineData("""{"columns": ["title"], "filter": {"kind": "group", "quantifier": "allOf"}}""")]
    [InlineData("""{"columns": ["title"], "filter": {"kind": "group", "quantifier": "allOf", "members": [null]}}""")]
    [InlineData("""{"columns": null}""")]
    [InlineData("""{"columns": [null]}""")]
    [InlineData("""{"columns": ["title"], "search": "x\u0000y"}""")]
    [InlineData("""{"columns": ["title"], "after": "here"}""")]
    [InlineData("""{"columns": ["title"], "after": "WyJrZXkiXQ=="}""")]
    [InlineData("""{"columns": ["title"], "after": "WyJ4IixudWxsLDVd"}""")]
    [InlineData("""{"columns": ["title"], "after": "WyJudW1iZXIiLDFlNDAsNV0="}""")]
    [InlineData("""{"columns": ["title"], "after": "WyJrZXkiLDcsOF0="}""")]
    public async Task A_request_for_a_list_that_makes_no_sense_is_refused_and_never_breaks(string request)
    {
        var rosa = await site.Known("rosa");

        using var answer = await rosa.Post($"{Loans}/rows", JsonNode.Parse(request)!);

        Assert.True(answer.StatusCode is System.Net.HttpStatusCode.BadRequest or System.Net.HttpStatusCode.OK, await answer.Content.ReadAsStringAsync());
    }

    [Fact]
    public async Task Accents_are_found_composed_or_not()
    {
        var lorenz = await site.Known("lorenz");
        using var begun = await lorenz.Post("/api/record-types/collection-object/records", new { changes = new { title = "Ame\u0301lie\u2019s clock", inventoryNumber = "QM 1900.7777" } });
        var id = JsonNode.Parse(await begun.Content.ReadAsStringAsync())!["id"]?.GetValue<int>();
        Assert.True(id is not null, await begun.Content.ReadAsStringAsync());

        var ids = await IdsAsync(lorenz, new JsonObject { ["search"] = "AM\u00C9LIE" }, "/api/record-types/collection-object");

        Assert.Equal([id!.Value], ids);
    }

    [Fact]
    public async Task Rows_are_changed_each_under_its_own_rules_and_changed_back()
    {
        var lorenz = await site.Known("lorenz");
        var rows = (await lorenz.Ask($"{Loans}/rows", new JsonObject { ["columns"] = new JsonArray("borrower"), ["take"] = 60 }))["rows"]!.AsArray();
        var before = rows.ToDictionary(row => row!["id"]!.GetValue<int>(), row => row!["values"]!["borrower"]?.DeepClone());
        var changes = new JsonArray([.. rows.Select(row => new JsonObject
        {
            ["id"] = row!["id"]!.DeepClone(),
            ["version"] = row["version"]!.DeepClone(),
            ["changes"] = new JsonObject { ["borrower"] = "House of Oststrand" },
        })]);

        var outcomes = (await lorenz.Ask($"{Loans}/changes", new JsonObject { ["rows"] = changes, ["columns"] = new JsonArray("borrower") })).AsArray();

        var saved = outcomes.Where(outcome => outcome!["row"] is not null).ToList();
        Assert.NotEmpty(saved);
        Assert.All(saved, outcome => Assert.Equal("House of Oststrand", outcome!["row"]!["values"]!["borrower"]!.GetValue<string>()));
        Assert.All(outcomes.Where(outcome => outcome!["row"] is null), outcome => Assert.NotEmpty(outcome!["refusals"]!.AsArray()));
        // Returned loans are closed for a loans officer.
        var closed = rows.Where(row => row!["stage"]!.GetValue<string>() == "returned").Select(row => row!["id"]!.GetValue<int>()).ToHashSet();
        Assert.All(outcomes.Where(outcome => closed.Contains(outcome!["id"]!.GetValue<int>())), outcome =>
            Assert.Contains("locked", outcome!["refusals"]![0]!["message"]!.GetValue<string>(), StringComparison.Ordinal));

        var back = new JsonArray([.. saved.Select(outcome => new JsonObject
        {
            ["id"] = outcome!["id"]!.DeepClone(),
            ["version"] = outcome["row"]!["version"]!.DeepClone(),
            ["changes"] = new JsonObject { ["borrower"] = before[outcome["id"]!.GetValue<int>()]?.DeepClone() },
        })]);
        var undone = (await lorenz.Ask($"{Loans}/changes", new JsonObject { ["rows"] = back, ["columns"] = new JsonArray("borrower") })).AsArray();
        Assert.All(undone, outcome => Assert.True(JsonNode.DeepEquals(before[outcome!["id"]!.GetValue<int>()], outcome["row"]!["values"]!["borrower"])));
    }

    [Fact]
    public async Task What_a_change_replaced_is_told_whatever_the_columns_and_puts_back_what_rules_did_as_well()
    {
        var delphine = await site.Known("delphine");
        var wanted = JsonNode.Parse("""{"columns": ["fee", "loanDays"], "take": 60, "filter": {"kind": "group", "quantifier": "allOf", "members": [{"kind": "clause", "of": "fee", "test": "filledIn", "values": []}, {"kind": "clause", "of": "feeWaived", "test": "blank", "values": []}]}}""")!.AsObject();
        var rows = (await delphine.Ask($"{Loans}/rows", wanted))["rows"]!.AsArray();
        var fees = rows.ToDictionary(row => row!["id"]!.GetValue<int>(), row => row!["values"]!["fee"]!.DeepClone());
        async Task<List<JsonNode>> Change(IEnumerable<(JsonNode Row, JsonNode Changes)> all) =>
            [.. (await delphine.Ask($"{Loans}/changes", new JsonObject
            {
                ["columns"] = new JsonArray(),
                ["rows"] = new JsonArray([.. all.Select(one => new JsonObject { ["id"] = one.Row["id"]!.DeepClone(), ["version"] = one.Row["version"]!.DeepClone(), ["changes"] = one.Changes.DeepClone() })]),
            })).AsArray().Where(outcome => outcome!["row"] is not null).Select(outcome => outcome!)];

        var waived = await Change(rows.Select(row => (row!, JsonNode.Parse("""{"feeWaived": true, "waiverReason": "A friend of the house."}""")!)));

        Assert.NotEmpty(waived);
        Assert.All(waived, outcome => Assert.Equal(["fee", "feeWaived", "waiverReason"], outcome["replaced"]!.AsObject().Select(one => one.Key).Order()));
        // The reason is hidden again once nothing is waived, so it stays.
        Assert.Empty(await Change(waived.Select(outcome => (outcome["row"]!, outcome["replaced"]!))));
        Assert.All(waived, outcome => outcome["replaced"]!.AsObject().Remove("waiverReason"));
        var undone = await Change(waived.Select(outcome => (outcome["row"]!, outcome["replaced"]!)));
        Assert.Equal(waived.Count, undone.Count);
        foreach (var outcome in undone)
        {
            var record = await delphine.Read($"/api/records/{outcome["id"]}");
            Assert.True(JsonNode.DeepEquals(fees[outcome["id"]!.GetValue<int>()], record["values"]!["fee"]), record["values"]!.ToJsonString());
        }
    }

    [Fact]
    public async Task A_row_that_somebody_saved_meanwhile_is_told_and_not_overwritten()
    {
        var lorenz = await site.Known("lorenz");
        var row = (await lorenz.Ask($"{Loans}/rows", new JsonObject { ["columns"] = new JsonArray("borrower"), ["take"] = 1 }))["rows"]![0]!;

        var outcome = (await lorenz.Ask($"{Loans}/changes", JsonNode.Parse($$$"""{"columns": [], "rows": [{"id": {{{row["id"]}}}, "version": {{{row["version"]!.GetValue<int>() + 7}}}, "changes": {"borrower": "X"}}]}""")!)).AsArray()[0]!;

        Assert.Null(outcome["row"]);
        Assert.Contains("no longer the one you began with", outcome["problem"]!.GetValue<string>(), StringComparison.Ordinal);
    }

    [Fact]
    public async Task How_records_stand_is_kept_and_counted()
    {
        var rosa = await site.Known("rosa");
        await StandingAsync();

        var count = await rosa.Ask($"{Loans}/rows/count", new JsonObject { ["columns"] = new JsonArray("@form:conditionOut") });

        var tally = count["tallies"]!["@form:conditionOut"]!.AsObject();
        Assert.Equal(count["records"]!.GetValue<int>(), tally.Sum(one => one.Value!.GetValue<int>()));
        var none = await IdsAsync(rosa, JsonNode.Parse("""{"filter": {"kind": "clause", "of": "@form:conditionOut", "test": "is", "values": ["notRelevant"]}}""")!.AsObject());
        Assert.Equal(tally["NOTRELEVANT"]!.GetValue<int>(), none.Count);
        // Nothing has departed before it was approved.
        var early = (await RecordsAsync()).Where(record => record.Stage is "enquiry" or "assessment").Select(record => record.Id);
        Assert.Empty(early.Except(none));
    }

    [Fact]
    public async Task Views_are_a_persons_own_unless_shared()
    {
        var (rosa, lorenz) = (await site.Known("rosa"), await site.Known("lorenz"));
        async Task<List<string>> Names(Caller who) => [.. (await who.ReadAll($"{Loans}/views")).Select(view => view!["name"]!.GetValue<string>())];
        using var mine = await rosa.Send(HttpMethod.Put, $"{Loans}/views", """{"name": "Mine alone", "isShared": false, "layout": {"search": "kite"}}""", true);
        using var ours = await rosa.Send(HttpMethod.Put, $"{Loans}/views", """{"name": "Ours", "isShared": true, "layout": {}}""", true);
        var shared = JsonNode.Parse(await ours.Content.ReadAsStringAsync())!["id"]!.GetValue<int>();

        Assert.Equal(["Mine alone", "Ours"], await Names(rosa));
        Assert.Equal(["Ours"], await Names(lorenz));
        using var refused = await lorenz.Send(HttpMethod.Delete, $"{Loans}/views/{shared}", null, true);
        Assert.Equal(System.Net.HttpStatusCode.NotFound, refused.StatusCode);
    }

    private static readonly JsonSerializerOptions CamelCase = new(JsonSerializerDefaults.Web);

    private static Rule Rule(Condition condition) =>
        new("r", "R") { Cases = [new Case([new Message(Severity.Note, "Here")], condition)] };

    private static Condition Condition(FilterClause clause) => new Clause(
        clause.Of switch { ListColumn.Stage => new StageSubject(), ListColumn.Workflow => new WorkflowSubject(), var field => new FieldSubject(field) }, clause.Test)
    {
        Comparands = [.. clause.Values.Select(value => new Literal(value))],
    };

    private static FilterClause Clause(Random random, ListColumn column, List<StoredRecord> records)
    {
        var test = Pick(random, column.Tests);
        var count = test.Shape() switch { TestShape.Alone => 0, TestShape.One => 1, TestShape.Range => 2, _ => random.Next(1, 3) };
        var values = Enumerable.Range(0, count).Select(_ => Compared(random, column, test, records)).ToList();
        var ordered = test is Test.Between or Test.NotBetween ? values.OrderBy(value => Convert.ToHexString(ListKey.Of(value)!), StringComparer.Ordinal).ToList() : values;
        return new(column.Key, test) { Values = [.. ordered] };
    }

    private static Value Compared(Random random, ListColumn column, Test test, List<StoredRecord> records)
    {
        if (column.Type is ChoiceType choice)
        {
            return new Text(Pick(random, choice.Options).Key);
        }

        if (column.Type is ChoicesType several)
        {
            return new Choices([Pick(random, several.Options).Key]);
        }

        var held = records.Select(record => record.Values[column.Key]).Where(value => !value.IsBlank).ToList();
        var value = held.Count > 0 ? Pick(random, held) : column.Type switch { NumberType or MoneyType => new Number(7), LinkType => new Number(2), YesNoType => new YesNo(true), DateType => new Text("2026-11-11"), DateTimeType => new Text("2026-11-11T10:00:00"), PersonType => new Text("rosa"), _ => new Text("a") };
        if (value is Text && test is Test.Contains or Test.DoesNotContain && random.Next(5) == 0)
        {
            // What is within a key without being within the text.
            return new Text(Pick(random, ["0", "@", "1"]));
        }

        return value is Text { Content: { Length: > 3 } text } && test is Test.Contains or Test.DoesNotContain or Test.StartsWith or Test.DoesNotStartWith
            ? new Text(((Text)value).Content[..random.Next(1, 4)].ToUpperInvariant()) : value;
    }

    private static T Pick<T>(Random random, IReadOnlyList<T> from) => from[random.Next(from.Count)];

    /// <summary>Something that sorts as the value does; empty for a blank.</summary>
    private static string OrderOf(FieldType type, Value value) => value switch
    {
        _ when value.IsBlank => "",
        Choice choice when type is ChoiceType of => of.Options.Index().First(option => option.Item.Key == choice.Key).Index.ToString("d4", CultureInfo.InvariantCulture),
        _ => Convert.ToHexString(ListKey.Of(value)!),
    };

    private static async Task<List<int>> IdsAsync(Caller caller, JsonObject request, string address = Loans)
    {
        var ids = new List<int>();
        request["columns"] = new JsonArray("title");
        request["take"] = 97;
        while (true)
        {
            var page = await caller.Ask($"{address}/rows", request);
            ids.AddRange(page["rows"]!.AsArray().Select(row => row!["id"]!.GetValue<int>()));
            if (page["next"]?.GetValue<string>() is not { } next)
            {
                return ids;
            }

            request["after"] = next;
        }
    }

    private static async Task<RecordType> TypeAsync(Caller caller) =>
        JsonSerializer.Deserialize((await caller.Read($"{Loans}/type"))["recordType"]!.ToJsonString(), CoreJson.Default.RecordType)!;

    private async Task<List<StoredRecord>> RecordsAsync()
    {
        List<StoredRecord> records = [];
        await site.InStore(async db => records = await db.Records.AsNoTracking().Where(record => record.RecordType == "object-loan").ToListAsync());
        return records;
    }

    /// <summary>Waits until the server has looked at how all records stand.</summary>
    private Task StandingAsync() => site.InStore(async db =>
    {
        while (await db.Records.AnyAsync(record => record.StandingEdition == 0))
        {
            await Task.Delay(50);
        }
    });

    /// <summary>What has been saved since the index was made is in it as well.</summary>
    private async Task SaveSomeAsync(Random random)
    {
        var lorenz = await site.Known("lorenz");
        var saves = 0;
        foreach (var record in (await RecordsAsync()).Where(record => record.Stage == "enquiry").Take(20))
        {
            using var saved = await lorenz.Post($"/api/records/{record.Id}/saves", new { version = record.Version, changes = new { borrower = $"House {random.Next(9)} of Vell", grossWeight = (int?)null } });
            saves += saved.IsSuccessStatusCode ? 1 : 0;
        }

        Assert.True(saves > 8, $"{saves} saves");
    }
}
