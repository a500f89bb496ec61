using System.Text.Json;
using Dibujo.Core.Json;
using Dibujo.Core.Records;
using Dibujo.Core.Values;

namespace Dibujo.Core.Tests.Records;

/// <summary>What each field of the loan file takes from JSON, what it refuses, and how people read it.</summary>
public class FieldTypeTests
{
    [Theory]
    [InlineData("title", "\"Lantern\"", "Lantern")]
    [InlineData("title", "3", null)]
    [InlineData("title", "\"   \"", "")]
    [InlineData("lightLimit", "50", "50 lux")]
    [InlineData("lightLimit", "\"50\"", null)]
    [InlineData("crateLength", "1200.5", "1,200.5 cm")]
    [InlineData("insuredValue", "1234567.89", "EUR 1,234,567.89")]
    [InlineData("glazing", "true", "yes")]
    [InlineData("glazing", "\"yes\"", null)]
    [InlineData("startDate", "\"2026-11-24\"", "24 Nov 2026")]
    [InlineData("startDate", "\"2026-02-30\"", null)]
    [InlineData("startDate", "\"24.11.2026\"", null)]
    [InlineData("arrival", "\"2026-11-24T09:30\"", "24 Nov 2026 09:30")]
    [InlineData("arrival", "\"2026-11-24T09:30:15\"", "24 Nov 2026 09:30:15")]
    [InlineData("arrival", "\"2026-11-24T25:00\"", null)]
    [InlineData("material", "\"paper\"", "Work on paper")]
    [InlineData("material", "\"Work on paper\"", null)]
    [InlineData("hazardKinds", "[\"mould\",\"sharp\"]", "Mould, Sharp edges")]
    [InlineData("hazardKinds", "[\"mould\",\"fire\"]", null)]
    [InlineData("hazardKinds", "[]", "")]
    [InlineData("borrowerContact", "{\"given\":\"Mara\",\"family\":\"Vell\"}", "Mara Vell")]
    [InlineData("borrowerContact", "{\"given\":\"Mara\",\"title\":\"Dr\"}", null)]
    [InlineData("borrowerAddress", "{\"street\":\"Kai 3\",\"city\":\"Vell\",\"postalCode\":\"\"}", "Kai 3, Vell")]
    [InlineData("object", "7", "No. 7")]
    [InlineData("object", "0", null)]
    [InlineData("object", "7.5", null)]
    [InlineData("object", "3000000000", null)]
    [InlineData("requestedBy", "\" ina \"", "ina")]
    [InlineData("requestedBy", "null", "")]
    public void A_field_takes_what_it_holds(string field, string json, string? display)
    {
        var type = LoanFile.Type.Find(field)!.Type;

        var value = type.Fit(JsonSerializer.Deserialize(json, CoreJson.Default.Value) ?? Value.Blank);

        Assert.Equal(display, value is null ? null : type.Display(value));
    }

    [Theory]
    [InlineData("lightLimit", "2001", "At most 2,000")]
    [InlineData("lightLimit", "-1", "At least 0")]
    [InlineData("lightLimit", "0.5", "Only whole numbers")]
    [InlineData("crateLength", "0.55", "At most 1 digits may follow the point")]
    [InlineData("insuredValue", "0.005", "At most 2 digits may follow the point")]
    [InlineData("flightNumber", "\"VE 1234 to Oststrand\"", "20 characters; at most 12")]
    public void A_limit_says_how_to_keep_it(string field, string json, string message)
    {
        var type = LoanFile.Type.Find(field)!.Type;

        Assert.Contains(message, type.Violation(type.Fit(JsonSerializer.Deserialize(json, CoreJson.Default.Value)!)!), StringComparison.Ordinal);
    }

    [Fact]
    public void A_new_record_holds_its_defaults()
    {
        var defaults = LoanFile.Type.Defaults(LoanFile.AtTerms with { IsNew = true });

        Assert.Equal(LoanFile.Saved(("lightLimit", 200), ("requestedBy", "ina"), ("requestedOn", "2026-11-24")), defaults);
    }

    [Fact]
    public void Nobody_asks_where_nobody_is_signed_in() =>
        Assert.Equal(Value.Blank, LoanFile.Type.Defaults(LoanFile.AtTerms with { Person = null })["requestedBy"]);

    [Theory]
    [InlineData("given=Mara", false)]
    [InlineData("given=Mara, family=Vell", true)]
    public void A_name_is_complete_with_all_its_parts(string parts, bool complete) =>
        Assert.Equal(complete, new FullNameType().IsComplete(LoanFile.Fitted("borrowerContact", parts)));

    [Theory]
    [InlineData("street=Kai 3", false)]
    [InlineData("street=Kai 3, city=Vell", true)]
    public void An_address_is_complete_without_its_optional_parts(string parts, bool complete) =>
        Assert.Equal(complete, LoanFile.Type.Find("borrowerAddress")!.Type.IsComplete(LoanFile.Fitted("borrowerAddress", parts)));
}
