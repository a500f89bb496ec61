using Dibujo.Core.Conditions;
using Dibujo.Core.Forms;
using Dibujo.Core.Records;
using Dibujo.Core.Rules;

namespace Dibujo.Core.Tapes;

/// <summary>Rules from a tape.</summary>
public static class RuleTape
{
    /// <summary>The definition without its examples, which no form needs.</summary>
    public static Definition Definition(TapeNode node) => new(RecordTypeTape.RecordType(node["recordType"]), node["rules"].List(Rule));

    /// <summary>The rule.</summary>
    public static Rule Rule(TapeNode node) => new(
        node["key"].Text, node["name"].Text, node["reason"].TextOrNull, !node.Has("on") || node["on"].IsTrue,
        node["table"] is { IsNull: false } table ? Table(table) : null, node["where"] is { IsNull: false } where ? Scope(where) : null, node["group"].TextOrNull)
    {
        Cases = node["cases"].List(Case),
    };

    private static Scope Scope(TapeNode node) => new()
    {
        Forms = node["forms"].Texts(),
        Channels = node["channels"].List(channel => EnumTape.Read<Channel>(channel)),
    };

    private static Case Case(TapeNode node) => new(node["effects"].List(Effect), node["while"] is { IsNull: false } condition ? Condition(condition) : null);

    private static Condition Condition(TapeNode node) => node["kind"].Text switch
    {
        "group" => new Group(EnumTape.Read<Quantifier>(node["quantifier"]), node["members"].List(Condition)),
        "clause" => new Clause(Subject(node["subject"]), EnumTape.Read<Test>(node["test"])) { Comparands = node["comparands"].List(Comparand) },
        var other => throw Unknown(other),
    };

    private static Subject Subject(TapeNode node) => node["kind"].Text switch
    {
        "field" => new FieldSubject(node["field"].Text, node["part"].TextOrNull, node["saved"].IsTrue),
        "linked" => new LinkedSubject(node["via"].Texts(), node["field"].Text, node["part"].TextOrNull),
        var kind => SettingSubject.OfKind(kind)?.Subject ?? throw Unknown(kind),
    };

    private static Comparand Comparand(TapeNode node) => node["kind"].Text switch
    {
        "literal" => new Literal(ValueTape.Value(node["value"])),
        "subject" => new SubjectComparand(Subject(node["subject"])),
        "day" => new RelativeDay(node["amount"].Integer, EnumTape.Read<DayUnit>(node["unit"])),
        "expression" => new ExpressionComparand(node["expression"].Text),
        var other => throw Unknown(other),
    };

    private static Effect Effect(TapeNode node) => node["kind"].Text switch
    {
        "show" => new Show(node["targets"].List(RecordTypeTape.Element)),
        "hide" => new Hide(node["targets"].List(RecordTypeTape.Element), EnumTape.Read<HiddenValue>(node["value"])),
        "require" => new Require(
            node["targets"].List(RecordTypeTape.Element), EnumTape.Read(node["level"], Requirement.ToMoveOn), node["message"].TextOrNull)
        { Moves = node["moves"].Texts() },
        "makeOptional" => new MakeOptional(node["targets"].List(RecordTypeTape.Element)),
        "lock" => new Lock(node["targets"].List(RecordTypeTape.Element)),
        "unlock" => new Unlock(node["targets"].List(RecordTypeTape.Element)),
        "set" => new SetValue(node["field"].Text, Comparand(node["to"])),
        "clear" => new ClearValue(node["field"].Text),
        "reset" => new ResetValue(node["field"].Text),
        "calculate" => new Calculate(node["field"].Text, Comparand(node["from"])),
        "narrow" => new Narrow(node["field"].Text, node["options"].Texts()),
        "message" => new Message(EnumTape.Read<Severity>(node["severity"]), node["text"].Text, At(node["at"])),
        "suggest" => new Suggest(node["field"].Text, Comparand(node["value"]), node["reason"].Text),
        "jumpAhead" => new JumpAhead(RecordTypeTape.Element(node["to"])),
        "endForm" => new EndForm(node["note"].Text),
        var other => throw Unknown(other),
    };

    private static Element? At(TapeNode node) => node.IsNull ? null : RecordTypeTape.Element(node);

    private static DecisionTable Table(TapeNode node) => new(
        EnumTape.Read<HitPolicy>(node["hit"]), node["drivers"].List(Subject), node["outputs"].List(Output), node["rows"].List(Row));

    private static Output Output(TapeNode node) => node["kind"].Text switch
    {
        "state" => new StateOutput(node["targets"].List(RecordTypeTape.Element)),
        "value" => new ValueOutput(node["field"].Text, node["held"].IsTrue),
        "choices" => new ChoicesOutput(node["field"].Text),
        "message" => new MessageOutput(EnumTape.Read<Severity>(node["severity"]), At(node["at"])),
        var other => throw Unknown(other),
    };

    private static Row Row(TapeNode node) => new(node["if"].List(Cell), node["then"].List(Answer));

    private static Cell Cell(TapeNode node) => new(node["test"].IsNull ? null : EnumTape.Read<Test>(node["test"])) { Comparands = node["comparands"].List(Comparand) };

    private static Answer Answer(TapeNode node) => node["kind"].Text switch
    {
        "none" => new NoAnswer(),
        "states" => new StateAnswer(node["states"].List(state => EnumTape.Read<State>(state))),
        "value" => new ValueAnswer(Comparand(node["value"])),
        "choices" => new ChoicesAnswer(node["options"].Texts()),
        "text" => new TextAnswer(node["text"].Text),
        var other => throw Unknown(other),
    };

    private static FormatException Unknown(string kind) => new($"There is no kind “{kind}” here.");
}
