using Dibujo.Core.Forms;
using Dibujo.Core.Records;
using Dibujo.Core.Workflows;

namespace Dibujo.Core.Tapes;

/// <summary>A record type and a setting from a tape.</summary>
public static class RecordTypeTape
{
    /// <summary>The record type.</summary>
    public static RecordType RecordType(TapeNode node) => new(
        node["key"].Text, node["label"].Text, node["titleField"].Text, node["fields"].List(Field), node["forms"].List(Form), node["workflows"].List(Workflow))
    {
        Roles = node["roles"].List(role => new Role(role["key"].Text, role["label"].Text)),
        OtherWords = node["otherWords"].List(word => new OtherWord(word["said"].Text, word["field"].TextOrNull, word["choice"].TextOrNull, word["stage"].TextOrNull, word["role"].TextOrNull)),
        Linked = node["linked"].List(linked => new LinkedType(linked["key"].Text, linked["label"].Text, linked["fields"].List(Field))),
    };

    /// <summary>The setting.</summary>
    public static Setting Setting(TapeNode node) => new(
        node["workflow"].Text, node["stage"].Text, node["isNew"].IsTrue, node["move"].TextOrNull, node["person"].TextOrNull,
        EnumTape.Read<Channel>(node["channel"]), node["now"].IsNull ? default : SiteTimeConverter.Parse(node["now"].Text) ?? throw new FormatException("A moment is by the site's clock."))
    {
        Roles = node["roles"].Texts(),
        Form = node["form"].TextOrNull,
        Use = EnumTape.Read<Use>(node["use"]),
    };

    internal static Element Element(TapeNode node) => new(EnumTape.Read<ElementKind>(node["kind"]), node["key"].Text);

    private static Field Field(TapeNode node) => new(
        node["key"].Text, node["label"].Text, Type(node["type"]), node["help"].TextOrNull, Rest(node["rest"]), Default(node["default"]), node["retired"].IsTrue);

    /// <summary>A type of field.</summary>
    public static FieldType Type(TapeNode node) => node["kind"].Text switch
    {
        "text" => node["maxLength"] is { IsNull: false, Integer: var most } ? new TextType(most) : new TextType(),
        "longText" => node["maxLength"] is { IsNull: false, Integer: var most } ? new LongTextType(most) : new LongTextType(),
        "number" => new NumberType(node["scale"].IsNull ? 0 : node["scale"].Integer, Amount(node["min"]), Amount(node["max"]), node["unit"].TextOrNull, node["ungrouped"].IsTrue),
        "money" => new MoneyType(node["currency"].TextOrNull ?? "EUR", node.Has("min") ? Amount(node["min"]) : 0, Amount(node["max"])),
        "yesNo" => new YesNoType(),
        "date" => new DateType(),
        "dateTime" => new DateTimeType(),
        "choice" => new ChoiceType(node["options"].List(Option)),
        "choices" => new ChoicesType(node["options"].List(Option)),
        "fullName" => new FullNameType { OptionalParts = node["optionalParts"].Texts() },
        "address" => new AddressType { OptionalParts = node["optionalParts"].Texts() },
        "link" => new LinkType(node["recordType"].Text),
        "person" => new PersonType(),
        var other => throw new FormatException($"There is no type “{other}”."),
    };

    private static decimal? Amount(TapeNode node) => node.IsNull ? null : ValueTape.Amount(node);

    private static Option Option(TapeNode node) => new(node["key"].Text, node["label"].Text, node["retired"].IsTrue);

    private static DefaultValue? Default(TapeNode node) => node.IsNull ? null : node["kind"].Text switch
    {
        "value" => new FixedDefault(ValueTape.Value(node["value"])),
        "today" => new TodayDefault(),
        "creator" => new CreatorDefault(),
        var other => throw new FormatException($"There is no default “{other}”."),
    };

    private static Rest? Rest(TapeNode node) => node.IsNull ? null : new(
        EnumTape.Read<Visibility>(node["visibility"]), EnumTape.Read<Requirement>(node["requirement"]), EnumTape.Read<Access>(node["access"]));

    private static Form Form(TapeNode node) => new(node["key"].Text, node["label"].Text, node["tabs"].List(Tab), Rest(node["rest"]));

    private static Tab Tab(TapeNode node) => new(node["key"].Text, node["label"].Text, node["sections"].List(Section), Rest(node["rest"]));

    private static Section Section(TapeNode node) => new(node["key"].Text, node["label"].Text, node["fields"].Texts(), Rest(node["rest"]));

    private static Workflow Workflow(TapeNode node) => new(
        node["key"].Text, node["label"].Text, node["stages"].List(stage => new Stage(stage["key"].Text, stage["label"].Text)), node["moves"].List(Move));

    private static Move Move(TapeNode node) => new(node["key"].Text, node["label"].Text, node["from"].Text, node["to"].Text) { Roles = node["roles"].Texts() };
}
