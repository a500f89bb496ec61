using Dibujo.Core.Compilation;
using Dibujo.Core.Forms;
using Dibujo.Core.Rules;
using Dibujo.Core.Values;

namespace Dibujo.Core.Evaluation;

/// <summary>One open record under a program: its values, its setting, and the state of every element, kept up to date.</summary>
/// <remarks>
/// What a session answers depends on the saved values, the setting and the changes held at the moment, and not on the
/// order in which the changes came. Not for use by several threads at once.
/// </remarks>
public sealed partial class Session
{
    private const int Nobody = -1;

    private readonly Value?[] changes;
    private readonly Value[] values;
    private readonly Operand[] operands;
    private readonly bool[] truth;
    private readonly int[] inForce;
    private readonly int[] inForceWhenSaved;
    private readonly int[] winners;
    private readonly bool[] pending;
    private readonly Queue<int> readingsToTry = new();
    private readonly bool[] isReadingQueued;
    private readonly bool[] unsettled;
    private readonly ClauseEvaluator evaluator;
    private readonly Reporter reporter;
    private readonly SlotTable slots;
    private readonly ClauseTable clauses;
    private readonly RuleTable rules;
    private readonly ClaimTable claims;
    private readonly EffectTable effects;
    private readonly Layout layout;
    private readonly IRecordLookup records;
    private bool givesValues;

    /// <summary>Opens a record.</summary>
    /// <param name="program">The rules and the form.</param>
    /// <param name="saved">The record as it is stored; for a new record, its defaults.</param>
    /// <param name="setting">Stage, roles and so on.</param>
    /// <param name="records">Where linked records are found; by default nowhere.</param>
    /// <param name="before">
    /// The setting in which the record was saved, where it is another: values are given by the cases that have come into
    /// force since. By default the same setting, before any move was attempted.
    /// </param>
    public Session(RuleProgram program, RecordValues saved, Setting setting, IRecordLookup? records = null, Setting? before = null)
    {
        Program = program;
        Setting = setting;
        this.records = records ?? new NoRecords();
        slots = program.Slots;
        clauses = program.Clauses;
        rules = program.Rules;
        claims = program.Claims;
        effects = program.Effects;
        layout = program.Layout;
        var fieldCount = program.Fields.Count;
        changes = new Value?[fieldCount];
        values = new Value[slots.Count];
        operands = new Operand[slots.Count];
        truth = new bool[clauses.Codes.Length];
        inForce = new int[rules.Count];
        inForceWhenSaved = new int[rules.Count];
        winners = new int[layout.Count * Facets.Count];
        pending = new bool[program.Circles.Length];
        isReadingQueued = new bool[rules.Count];
        unsettled = new bool[program.Circles.Length];
        isAdmitted = new bool[fieldCount];
        isExcluded = new bool[fieldCount];
        evaluator = new(clauses, operands, values);
        reporter = new(this);
        Array.Fill(values, Value.Blank);
        Load(saved, before);
    }

    /// <summary>The rules and the form.</summary>
    public RuleProgram Program { get; }

    /// <summary>Stage, roles and so on; set anew by <see cref="Enter"/>.</summary>
    public Setting Setting { get; private set; }

    /// <summary>Whether the values of every circle of rules settled. If not, fields in such a circle keep their saved values.</summary>
    public bool IsSettled => !unsettled.Contains(true);

    /// <summary>The value that the field has on the form, where changes that are set aside do not count.</summary>
    public Value this[string field] => values[Program.Fields[field]];

    /// <summary>All values as they are on the form: what would be stored if the record were saved now.</summary>
    public RecordValues Values() => values.Take(layout.FieldCount).Index().Aggregate(
        RecordValues.Empty, (all, entry) => all.With(Program.Fields[entry.Index].Key, entry.Item));

    /// <summary>The person's changes that count now, so neither those set aside nor what rules do to values.</summary>
    /// <remarks>A change back to the saved value counts too where a rule would otherwise give the field another one.</remarks>
    public IReadOnlyDictionary<string, Value> Changes() => changes.Index()
        .Where(entry => entry.Item is not null && (!IsSetAside(entry.Index) || (IsOpen(entry.Index) && HasParts(entry.Index))))
        // Of a value with parts, those count that could be changed.
        .ToDictionary(
            entry => Program.Fields[entry.Index].Key, entry => HasParts(entry.Index) ? values[entry.Index] : entry.Item!, StringComparer.Ordinal);

    private bool HasParts(int field) => layout.PartsOfField[field].Length > 0;

    /// <summary>Fields that belong to a circle whose values did not settle; they keep their saved values.</summary>
    public IEnumerable<string> UnsettledFields =>
        Program.Circles.Index().Where(c => unsettled[c.Index]).SelectMany(c => c.Item.Fields).Select(f => Program.Fields[f].Key);

    /// <summary>
    /// Holds the person's change to a field (back to the saved value: holds none) and answers with what is different now.
    /// A change to a field that is hidden or locked is held too, but set aside.
    /// </summary>
    public Delta Change(string field, Value value)
    {
        reporter.Begin();
        Hold(field, value);
        Settle();
        return reporter.Report();
    }

    /// <summary>Holds several changes at once; the same as one after another, in any order.</summary>
    public Delta Change(IEnumerable<KeyValuePair<string, Value>> fields)
    {
        reporter.Begin();
        foreach (var (field, value) in fields)
        {
            Hold(field, value);
        }

        Settle();
        return reporter.Report();
    }

    /// <summary>Puts the record into another setting, as when it is seen at another stage or by another person.</summary>
    public Delta Enter(Setting setting)
    {
        reporter.Begin();
        Setting = setting;
        if (effects.HasSets)
        {
            // What was in force when the record was saved may be something else in that setting.
            Begin(null);
            reporter.TouchEverything();
        }
        else
        {
            ReadSetting(setting);
            Settle();
        }

        return reporter.Report();
    }

    /// <summary>Looks linked records up again, as when one has become known that was not before.</summary>
    public Delta LookUpAgain()
    {
        reporter.Begin();
        for (var i = 0; i < slots.Derived.Length; i++)
        {
            if (slots.Derived[i] is LinkedSlot)
            {
                Put(slots.FirstDerived + i, Compute(slots.Derived[i]));
            }
        }

        Settle();
        return reporter.Report();
    }

    /// <summary>Puts another record of the same setting in place of this one, without telling what differs: for many records at once.</summary>
    public void Replace(RecordValues saved)
    {
        Array.Clear(changes);
        Load(saved, null);
        reporter.Forget();
    }

    /// <summary>The state of an element of this form; throws where the form has no such element.</summary>
    public ElementState StateOf(Element element)
    {
        var number = Program.NumberOf(element);
        return number >= 0
            ? StateOf(number)
            : throw new ArgumentException($"The form {Program.Form.Label} has no {element.Kind} “{element.Key}”.", nameof(element));
    }

    /// <summary>The state of the element of that number.</summary>
    public ElementState StateOf(int element) => reporter.StateOf(element);

    /// <summary>The value that the field of that number has on the form.</summary>
    public Value ValueOf(int field) => values[field];

    /// <summary>Which case of the rule at that place in the list is in force for the form at large; -1 for none.</summary>
    public int CaseInForce(int rule) => Program.ReadingOfRule[rule] is >= 0 and var reading ? inForce[reading] : Nobody;

    private void Hold(string field, Value value)
    {
        var index = Program.Fields[field];
        var change = value.IsBlank ? Value.Blank : value;
        // Where a rule gives the field a value, staying with the saved one is a choice of its own.
        changes[index] = change.Equals(SavedValueOf(index)) && !effects.IsGiven[index] ? null : change;
        pending[Program.CircleOfField[index]] = true;
        reporter.Touch(index);
    }

    private void Load(RecordValues saved, Setting? before)
    {
        for (var field = 0; field < layout.FieldCount; field++)
        {
            var value = saved[Program.Fields[field].Key];
            values[slots.Saved(field)] = value.IsBlank ? Value.Blank : value;
            operands[slots.Saved(field)] = Operand.Of(value);
        }

        Begin(before);
    }

    /// <summary>Evaluates the saved values without the changes, to know what was in force then, and then everything as it is now.</summary>
    private void Begin(Setting? before)
    {
        Array.Fill(inForceWhenSaved, Nobody);
        givesValues = false;
        if (effects.HasSets && !Setting.IsNew)
        {
            var held = (Value?[])changes.Clone();
            Array.Clear(changes);
            SettleEverything(before ?? (Setting with { Move = null }));
            held.CopyTo(changes, 0);
            Array.Copy(inForce, inForceWhenSaved, inForce.Length);
        }

        givesValues = true;
        SettleEverything(Setting);
    }

    private void SettleEverything(Setting setting)
    {
        Array.Copy(values, layout.FieldCount, values, 0, layout.FieldCount);
        Array.Copy(operands, layout.FieldCount, operands, 0, layout.FieldCount);
        WriteSetting(setting, Write);
        for (var i = 0; i < slots.Derived.Length; i++)
        {
            Write(slots.FirstDerived + i, Compute(slots.Derived[i]));
        }

        for (var clause = 0; clause < truth.Length; clause++)
        {
            truth[clause] = evaluator.Holds(clause);
        }

        for (var reading = 0; reading < inForce.Length; reading++)
        {
            inForce[reading] = FirstCase(reading);
        }

        for (var cell = 0; cell < winners.Length; cell++)
        {
            winners[cell] = claims.Starts[cell] == claims.Starts[cell + 1] ? Nobody : Winner(cell);
        }

        for (var i = 0; i < pending.Length; i++)
        {
            // Where no rule decides over a value it is what was saved or typed.
            pending[i] = Program.IsDecided[i] || changes[Program.Circles[i].Fields[0]] is not null;
        }

        Settle();

        void Write(int slot, Value value)
        {
            values[slot] = value;
            operands[slot] = Operand.Of(value);
        }
    }

    private void ReadSetting(Setting setting)
    {
        WriteSetting(setting, Put);
        // The order of stages may be another one, though the stage is the same.
        Reconsider(slots.Of(SettingSlot.Stage));
    }

    private void WriteSetting(Setting setting, Action<int, Value> write)
    {
        var type = Program.Definition.RecordType;
        var workflow = type.FindWorkflow(setting.Workflow) ?? type.Workflows[0];
        evaluator.SetStage(clauses.StagePositions(workflow), workflow.Position(setting.Stage));
        write(slots.Of(SettingSlot.Stage), new Choice(setting.Stage));
        write(slots.Of(SettingSlot.Workflow), new Choice(workflow.Key));
        write(slots.Of(SettingSlot.Move), setting.Move is null ? Value.Blank : new Choice(setting.Move));
        write(slots.Of(SettingSlot.Roles), setting.Roles.IsEmpty ? Value.Blank : new Choices(setting.Roles));
        write(slots.Of(SettingSlot.Person), setting.Person is null ? Value.Blank : new Person(setting.Person));
        write(slots.Of(SettingSlot.New), new YesNo(setting.IsNew));
        write(slots.Of(SettingSlot.Form), new Choice(Program.Form.Key));
        write(slots.Of(SettingSlot.Channel), new Choice(Conditions.SubjectTypes.KeyOf(setting.Channel)));
        write(slots.Of(SettingSlot.Today), new Date(DateOnly.FromDateTime(setting.Now)));
        write(slots.Of(SettingSlot.Now), new Moment(setting.Now));
    }

    private Value Compute(DerivedSlot slot) => slot switch
    {
        PartSlot part => values[part.Whole] is Compound compound ? compound[part.Part] : Value.Blank,
        DaySlot day => values[day.Of] is Moment moment ? new Date(DateOnly.FromDateTime(moment.At)) : Value.Blank,
        LinkedSlot linked => values[linked.Link] is Link { Record: var number } && records.Find(linked.RecordType, number) is { } record
            ? linked.Field.Type.Fit(record[linked.Field.Key]) ?? Value.Blank
            : Value.Blank,
        RelativeDaySlot day => values[day.Today] is Date today ? new Date(day.Day.From(today.Day)) : Value.Blank,
        ExpressionSlot expression => expression.Compute(values),
        _ => throw new ArgumentOutOfRangeException(nameof(slot)),
    };

    /// <summary>Brings the values of every circle up to date that something has touched, in dependency order.</summary>
    private void Settle()
    {
        TryReadings();
        for (var i = 0; i < pending.Length; i++)
        {
            if (!pending[i])
            {
                continue;
            }

            var circle = Program.Circles[i];
            if (circle.IsTrue)
            {
                unsettled[i] = !SettleCircle(circle);
            }
            else
            {
                Put(circle.Fields[0], Offered(circle.Fields[0], changes[circle.Fields[0]]));
            }

            TryReadings();
            pending[i] = false;
        }
    }

    private void Put(int slot, Value value)
    {
        if (values[slot].Equals(value))
        {
            return;
        }

        values[slot] = value;
        operands[slot] = Operand.Of(value);
        if (slot < layout.FieldCount)
        {
            reporter.Touch(slot);
        }

        Reconsider(slot);
    }

    /// <summary>Computes what follows from a slot, decides the clauses on it anew, and queues the readings for which that makes a difference.</summary>
    private void Reconsider(int slot)
    {
        foreach (var following in slots.Following[slot])
        {
            Put(following, Compute(slots.Derived[following - slots.FirstDerived]));
        }

        foreach (var field in effects.FieldsOfSlot[slot])
        {
            pending[Program.CircleOfField[field]] = true;
        }

        foreach (var clause in clauses.OfSlot[slot])
        {
            var holds = evaluator.Holds(clause);
            if (holds == truth[clause])
            {
                continue;
            }

            truth[clause] = holds;
            foreach (var reading in rules.OfClause[clause])
            {
                if (!isReadingQueued[reading])
                {
                    isReadingQueued[reading] = true;
                    readingsToTry.Enqueue(reading);
                }
            }
        }
    }

    private void TryReadings()
    {
        while (readingsToTry.TryDequeue(out var reading))
        {
            isReadingQueued[reading] = false;
            if (Program.CircleOfReading[reading] is >= 0 and var circle)
            {
                // Where a circle ends may depend on where it began: it is settled again as a whole.
                pending[circle] = true;
            }
            else
            {
                PutInForce(reading, FirstCase(reading));
            }
        }
    }

    /// <summary>Makes that case the one in force; true if it was another before.</summary>
    private bool PutInForce(int reading, int @case)
    {
        if (inForce[reading] == @case)
        {
            return false;
        }

        inForce[reading] = @case;
        reporter.TouchRule(rules.Rules[reading]);
        foreach (var circle in Program.CirclesUnderReading[reading])
        {
            // Also a claim that loses now may win on the way round.
            pending[circle] = true;
        }

        foreach (var cell in claims.CellsOfReading[reading])
        {
            var winner = Winner(cell);
            if (winner == winners[cell])
            {
                continue;
            }

            winners[cell] = winner;
            var (element, facet) = Math.DivRem(cell, Facets.Count);
            foreach (var under in Program.ElementsUnder[element])
            {
                reporter.Touch(under);
                if (under < layout.FirstContainer && facet != (int)Facet.Requirement)
                {
                    // What is done to a part may set aside a change to the whole.
                    reporter.Touch(layout.FieldOf(under));
                    pending[Program.CircleOfField[layout.FieldOf(under)]] = true;
                }
            }
        }

        return true;
    }

    private int FirstCase(int reading)
    {
        var code = rules.Rules[reading];
        for (var i = 0; i < code.CaseCount; i++)
        {
            var (start, end) = rules.Cases[code.CaseStart + i];
            if (start == end || NodeHolds(start))
            {
                return i;
            }
        }

        return Nobody;
    }

    private bool NodeHolds(int at)
    {
        var node = rules.Nodes[at];
        if (node.Kind == NodeKind.Clause)
        {
            return truth[node.Clause] != node.Negated;
        }

        var decisive = node.Kind != NodeKind.AllOf;
        for (var i = at + 1; i < node.End; i = rules.Nodes[i].End)
        {
            if (NodeHolds(i) == decisive)
            {
                return node.Kind == NodeKind.AnyOf;
            }
        }

        return node.Kind != NodeKind.AnyOf;
    }

    /// <summary>The highest claim in force on a cell, as an index into the claims; -1 where no rule speaks.</summary>
    private int Winner(int cell)
    {
        var isValue = cell % Facets.Count == (int)Facet.Value;
        for (var i = claims.Starts[cell]; i < claims.Starts[cell + 1]; i++)
        {
            ref readonly var claim = ref claims.Claims[i];
            if (inForce[claim.Reading] == claim.Case && (!isValue || Acts(in claim)))
            {
                return i;
            }
        }

        return Nobody;
    }

    /// <summary>Whether a claim on a value has a say: a value that is held always, one that is given only if its case came into force since the save.</summary>
    private bool Acts(in ClaimCode claim) =>
        effects.Values[claim.Says].IsHeld || (givesValues && inForceWhenSaved[claim.Reading] != claim.Case);
}
