using Dibujo.Core.Conditions;
using Dibujo.Core.Operands;
using Dibujo.Core.Programs;
using Dibujo.Core.Records;
using Dibujo.Core.Values;

namespace Dibujo.Core.Evaluation;

/// <summary>What every slot holds at the moment, as a value and in the form in which it is compared.</summary>
internal sealed class SlotValues
{
    private readonly RuleProgram program;
    private readonly SlotTable slots;
    private readonly IRecordLookup records;
    private readonly Value[] values;
    private readonly Operand[] operands;
    private Setting? entered;
    private bool isRestored;

    internal SlotValues(RuleProgram program, IRecordLookup records)
    {
        this.program = program;
        this.records = records;
        slots = program.Slots;
        values = new Value[slots.Count];
        operands = new Operand[slots.Count];
        Array.Fill(values, Value.Blank);
    }

    /// <summary>Where the record's stage stands in its workflow; -1 for a stage that the workflow does not have.</summary>
    internal int StagePosition { get; private set; } = -1;

    /// <summary>For each stage that clauses name, where it stands in the record's workflow, or -1.</summary>
    internal int[] StagePositions { get; private set; } = [];

    internal Value this[int slot] => values[slot];

    internal ref readonly Operand OperandOf(int slot) => ref operands[slot];

    internal void Put(int slot, Value value)
    {
        var operand = Operand.Of(value);
        values[slot] = operand.Kind == OperandKind.Blank ? Value.Blank : value;
        operands[slot] = operand;
        isRestored &= slot >= 2 * program.Fields.Count;
    }

    internal void PutSaved(RecordValues saved)
    {
        for (var field = 0; field < program.Fields.Count; field++)
        {
            Put(slots.Saved(field), saved[program.Fields[field].Key]);
        }
    }

    /// <summary>Makes every field's live value the saved one.</summary>
    internal void Restore()
    {
        if (isRestored)
        {
            return;
        }

        isRestored = true;
        for (var field = 0; field < program.Fields.Count; field++)
        {
            var saved = slots.Saved(field);
            if (!ReferenceEquals(values[field], values[saved]))
            {
                values[field] = values[saved];
                operands[field] = operands[saved];
            }
        }
    }

    /// <summary>
    /// Takes the stage's place from the setting, and hands everything else in it to <paramref name="put"/>, slot by slot;
    /// nothing for the setting that was entered last.
    /// </summary>
    internal void Enter(Setting setting, Action<int, Value> put)
    {
        if (ReferenceEquals(setting, entered))
        {
            return;
        }

        entered = setting;
        var type = program.Definition.RecordType;
        var workflow = type.FindWorkflow(setting.Workflow) ?? type.Workflows[0];
        StagePositions = program.Clauses.StagePositions(workflow);
        StagePosition = workflow.Position(setting.Stage);
        put(slots.Of(SettingSlot.Stage), new Choice(setting.Stage));
        put(slots.Of(SettingSlot.Workflow), new Choice(workflow.Key));
        put(slots.Of(SettingSlot.Move), setting.Move is null ? Value.Blank : new Choice(setting.Move));
        put(slots.Of(SettingSlot.Roles), setting.Roles.IsEmpty ? Value.Blank : new Choices(setting.Roles));
        put(slots.Of(SettingSlot.Person), setting.Person is null ? Value.Blank : new Person(setting.Person));
        put(slots.Of(SettingSlot.New), new YesNo(setting.IsNew));
        put(slots.Of(SettingSlot.Form), new Choice(setting.Form ?? type.Forms[0].Key));
        put(slots.Of(SettingSlot.Channel), new Choice(SubjectTypes.KeyOf(setting.Channel)));
        put(slots.Of(SettingSlot.Use), new Choice(SubjectTypes.KeyOf(setting.Use)));
        put(slots.Of(SettingSlot.Today), new Date(DateOnly.FromDateTime(setting.Now)));
        put(slots.Of(SettingSlot.Now), new Moment(setting.Now));
    }

    /// <summary>What a derived slot holds, by what the slots hold that it follows from.</summary>
    internal Value Derived(int slot) => slots.Derived[slot - slots.FirstDerived] switch
    {
        PartSlot part => values[part.Whole] is Compound compound ? compound[part.Part] : Value.Blank,
        LinkedSlot linked => values[linked.Link] is Link { Record: var number } && records.Find(linked.RecordType, number) is { } record
            ? linked.Field.Type.Fit(record[linked.Field.Key]) ?? Value.Blank
            : Value.Blank,
        RelativeDaySlot day => values[day.Today] is Date today ? new Date(day.Day.From(today.Day)) : Value.Blank,
        ExpressionSlot expression => expression.Compute(values),
        _ => throw new ArgumentOutOfRangeException(nameof(slot)),
    };
}
