using System.Text.Json;
using System.Text.Json.Nodes;
using Dibujo.Core.Json;
using Dibujo.Core.Notations;
using Dibujo.Core.Records;
using Dibujo.Core.Values;

namespace Dibujo.Core.Tests.Notations;

/// <summary>The front end puts values together for pages by the same notation: what it has to write is told by a file that both are held against.</summary>
public sealed class WrittenTests
{
    private static readonly string File = Checkout.Path("src", "web", "src", "writing", "written.json");

    [Fact]
    public void The_file_against_which_pages_are_held_says_what_is_written_here()
    {
        var written = Write().ToJsonString(new JsonSerializerOptions { WriteIndented = true }) + "\n";
        if (Environment.GetEnvironmentVariable("DIBUJO_WRITE_WRITTEN") is not null)
        {
            System.IO.File.WriteAllText(File, written);
        }

        Assert.Equal(System.IO.File.ReadAllText(File), written);
    }

    private static JsonArray Write() =>
    [
        .. ((string[])["en-US", "en-GB", "de-DE", "de-CH", "es-ES", "fr-CH", "ja-JP", "da-DK"]).Select(tag => Notation.Of(tag)).Select(notation => (JsonNode)new JsonObject
        {
            ["notation"] = new JsonObject
            {
                ["language"] = notation.Language,
                ["day"] = notation.Days.Text,
                ["is12Hours"] = notation.Clock == Clock.Hours12,
                ["numbers"] = notation.Marks.Sample,
                ["months"] = new JsonArray([.. notation.Months.Select(month => (JsonNode)month)]),
            },
            ["values"] = new JsonArray([.. Values.Select(one => (JsonNode)new JsonObject
            {
                ["type"] = JsonNode.Parse(JsonSerializer.Serialize(one.Type, CoreJson.Default.FieldType)),
                ["value"] = JsonNode.Parse(JsonSerializer.Serialize(one.Value, CoreJson.Default.Value)),
                ["text"] = notation.Write(one.Value, one.Type, NoNames.Instance),
            })]),
        }),
    ];

    private static readonly ChoiceType Material = new([new("glass", "Glass, clear"), new("metal", "Metal"), new("iron", "metal"), new("q", "\"quoted\""), new("oak", "Oak")]);

    private static readonly (FieldType Type, Value Value)[] Values =
    [
        (new TextType(), new Text("a, \"b\"")),
        (new NumberType(2), new Number(1234567.5m)), (new NumberType(), new Number(-1234)), (new NumberType(0, Unit: "kg"), new Number(12)), (new NumberType(Ungrouped: true), new Number(1460)), (new NumberType(9), new Number(0.000000012m)),
        (new MoneyType(), new Number(12)), (new MoneyType("CHF"), new Number(1250.5m)), (new MoneyType("EUR", null), new Number(-99.9m)),
        (new YesNoType(), new YesNo(true)), (new YesNoType(), new YesNo(false)),
        (new DateType(), new Date(new(2027, 3, 1))), (new DateType(), new Date(new(987, 12, 31))),
        (new DateTimeType(), new Moment(new(2027, 3, 1, 0, 5, 0))), (new DateTimeType(), new Moment(new(2027, 9, 21, 14, 30, 5))), (new DateTimeType(), new Moment(new(2027, 9, 21, 12, 0, 0))),
        (Material, new Choice("glass")), (Material, new Choice("metal")), (Material, new Choice("oak")),
        (new ChoicesType(Material.Options), new Choices(["glass", "iron", "q", "oak"])),
        (new FullNameType(), Parts(("given", "Hugo"), ("family", "Ferring"))), (new FullNameType(), Parts(("given", "Hugo"), ("family", "Brandt Ferring"))), (new FullNameType(), Parts(("family", "Ferring"))), (new FullNameType(), Parts(("family", "de la Cruz"))), (new FullNameType(), Parts(("given", "Hugo"))),
        (new AddressType(), Parts(("street", "Kai 5"), ("postalCode", "20457"), ("city", "Hamburg"), ("country", "Germany"))), (new AddressType(), Parts(("street", "Kai 5, 2nd"), ("postalCode", "20457"), ("city", "Hamburg"), ("country", "Germany"))),
        (new AddressType(), Parts(("street", "Kai 5"), ("city", "Hamburg"), ("country", "Germany"))), (new AddressType(), Parts(("country", "Germany"))),
        (new LinkType("object"), new Link(12)), (new PersonType(), new Person("rosa")),
    ];

    private static Compound Parts(params (string Part, string Text)[] parts) => parts.Aggregate(Compound.Empty, (value, part) => value.With(part.Part, new Text(part.Text)));
}
