using System.Net;
using System.Net.Http.Headers;
using System.Text.Json.Nodes;
using Dibujo.Server.Tables;
using MiniExcelLibs;

namespace Dibujo.Server.Tests;

/// <summary>Records go out as a workbook and come back from one with nothing bent, however its owner writes.</summary>
public sealed class SheetTests(Site site) : IClassFixture<Site>
{
    private const string Loans = "/api/record-types/object-loan";

    /// <summary>What spreadsheets like to make something else of.</summary>
    private static readonly string[] Odd =
        ["He said \"no\"", "Two\nlines", "A\ttab", "007", "=1+1", "+49 12 34", "-12", "'quoted'", "1/2", "1e5", "@home", " spaces around ", "Mar 1", "TRUE", "1.234", "ß, “„ 日本"];

    [Theory]
    [InlineData("de-DE")]
    [InlineData("en-US")]
    [InlineData("fr-CH")]
    public async Task What_goes_out_as_a_workbook_comes_back_as_the_same(string language)
    {
        var lorenz = await site.As("lorenz");
        using var set = await lorenz.Put("/api/notation", new { language });
        Assert.True(set.IsSuccessStatusCode);
        foreach (var text in Odd)
        {
            await lorenz.Begin(new { title = $"Odd {text.Replace('\n', ' ').Replace('\t', ' ')}", borrower = "Vell", purpose = "other", startDate = "2027-03-01", purposeDescribed = text, insuredValue = 1234.5m });
        }

        var file = await Out(lorenz);

        var (table, _, mistake) = Workbook.Read(file, null);
        Assert.Null(mistake);
        var column = table!.Headers.ToList().IndexOf("Purpose described");
        Assert.Superset(Odd.ToHashSet(), table.Rows.Select(row => row[column]).ToHashSet());
        var report = await Trial(lorenz, file);
        Assert.Equal(0, report["refused"]!.GetValue<int>());
        Assert.All(report["rows"]!.AsArray(), row => Assert.Equal("leaves", row!["fate"]!.GetValue<string>()));
    }

    [Fact]
    public async Task A_workbook_that_somebody_made_is_taken_in_with_numbers_days_and_texts_as_they_stand_there()
    {
        var lorenz = await site.As("lorenz");
        using var set = await lorenz.Put("/api/notation", new { language = "de-DE" });
        using var made = new MemoryStream();
        await made.SaveAsAsync(Odd.Select((text, i) => new Dictionary<string, object?>
        {
            ["Title"] = $"Made {i}",
            ["Borrower"] = "Vell",
            ["Purpose"] = "Other",
            ["Start date"] = new DateTime(2031, 3, 1, 0, 0, 0, DateTimeKind.Unspecified),
            ["Insured value"] = 1234.25m,
            ["Purpose described"] = text,
        }));

        var report = await Send(lorenz, made.ToArray(), "");

        Assert.Equal(0, report["refused"]!.GetValue<int>());
        var numbers = report["rows"]!.AsArray().Select(row => row!["record"]!.GetValue<int>()).ToList();
        foreach (var (number, text) in numbers.Zip(Odd))
        {
            var values = (await lorenz.Read($"/api/records/{number}"))["values"]!;
            Assert.Equal(text, values["purposeDescribed"]!.GetValue<string>());
            Assert.Equal("2031-03-01", values["startDate"]!.GetValue<string>());
            Assert.Equal(1234.25m, values["insuredValue"]!.GetValue<decimal>());
        }
    }

    private static async Task<byte[]> Out(Caller caller)
    {
        using var answer = await caller.Get($"{Loans}/records.xlsx");
        Assert.Equal(HttpStatusCode.OK, answer.StatusCode);
        return await answer.Content.ReadAsByteArrayAsync();
    }

    private static Task<JsonNode> Trial(Caller caller, byte[] file) => Send(caller, file, "?dryRun=true");

    private static async Task<JsonNode> Send(Caller caller, byte[] file, string query)
    {
        using var content = new ByteArrayContent(file);
        content.Headers.ContentType = new MediaTypeHeaderValue("application/vnd.openxmlformats-officedocument.spreadsheetml.sheet");
        using var answer = await caller.Send(HttpMethod.Post, $"{Loans}/records.csv{query}", content);
        var body = await answer.Content.ReadAsStringAsync();
        Assert.True(answer.IsSuccessStatusCode, body);
        return JsonNode.Parse(body)!;
    }
}
