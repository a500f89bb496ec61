using Dibujo.Core.Forms;
using Dibujo.Core.Programs;
using Dibujo.Core.Records;
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

    private readonly IRecordLookup records;
    private readonly Value?[] changes;
    private readonly SlotValues values;
    /// <summary>Whether each clause and each group holds.</summary>
    private readonly bool[] truth;

    /// <summary>How many members of each group hold.</summary>
    private readonly int[] holding;

    /// <summary>What a dispatch has just said, before it is compared with the truth so far.</summary>
    private readonly bool[] decided;
    private readonly int[] inForce;
    private readonly int[] inForceWhenSaved;
    private readonly int[] winners;
    private readonly bool[] pending;
    private readonly Queue<int> variantsToTry = new();
    private readonly bool[] isVariantQueued;
    private readonly bool[] unsettled;
    private readonly VariantCode[] variants;
    private readonly int[] conditions;
    private readonly ClauseEvaluator evaluator;
    private readonly Reporter reporter;
    private readonly SlotTable slots;
    private readonly ClauseTable clauses;
    private readonly GroupTable groups;
    private readonly VariantTable rules;
    private readonly ClaimTable claims;
    private readonly EffectTable effects;
    private readonly Layout layout;
    private RecordValues saved = RecordValues.Empty;
    private Door door;
    private bool givesValues;
    private bool isContested;

    /// <summary>Opens a record.</summary>
    /// <param name="program">The rules.</param>
    /// <param name="saved">The record as it is stored; for a new record, its defaults.</param>
    /// <param name="setting">Stage, roles, the form at hand and so on.</param>
    /// <param name="records">Where linked records are found; by default nowhere.</param>
    /// <param name="before">
    /// The setting in which the record was saved, where it is another: values are given by the cases that have come into
    /// force since. By default the same setting, before any move was attempted.
    /// </param>
    public Session(RuleProgram program, RecordValues saved, Setting setting, IRecordLookup? records = null, Setting? before = null)
    {
        Program = program;
        Setting = setting;
        slots = program.Slots;
        clauses = program.Clauses;
        groups = program.Groups;
        rules = program.Variants;
        claims = program.Claims;
        effects = program.Effects;
        layout = program.Layout;
        door = DoorOf(setting);
        (variants, conditions) = (rules.Codes, rules.Cases);
        var fieldCount = program.Fields.Count;
        changes = new Value?[fieldCount];
        this.records = records ?? new NoRecords();
        values = new(program, this.records);
        truth = new bool[groups.Count];
        holding = new int[groups.Codes.Length];
        decided = new bool[clauses.MostDecidedAtOnce];
        inForce = new int[rules.Count];
        inForceWhenSaved = new int[rules.Count];
        winners = new int[layout.Count * Facets.Count];
        pending = new bool[program.Order.Cycles.Length];
        isVariantQueued = new bool[rules.Count];
        unsettled = new bool[program.Order.Cycles.Length];
        isAdmitted = new bool[fieldCount];
        isTaken = new bool[fieldCount];
        isExcluded = new bool[fieldCount];
        isStale = new bool[fieldCount];
        offered = new Value?[fieldCount];
        evaluator = new(clauses, values);
        reporter = new(this);
        Opened?.Invoke(this);
        Load(saved, before);
    }

    /// <summary>Told of every session that is opened anywhere: opening one is what costs. For those who count.</summary>
    internal static Action<Session>? Opened { get; set; }

    /// <summary>The rules.</summary>
    public RuleProgram Program { get; }

    /// <summary>Stage, roles and so on; set anew by <see cref="Enter"/>.</summary>
    public Setting Setting { get; private set; }

    /// <summary>The record as it is stored, without changes and without what rules do to values.</summary>
    public RecordValues Saved => saved;

    /// <summary>The form at hand.</summary>
    public Form Form => door.Form;

    /// <summary>Whether the form at hand applies to the record at all: one that is hidden is neither listed nor opened.</summary>
    public bool IsRelevant => StateOf(door.Element).IsVisible;

    /// <summary>Whether the values of every cycle of rules settled. If not, fields in such a cycle keep their saved values.</summary>
    public bool IsSettled => !unsettled.Contains(true);

    /// <summary>The value that the field has on the form, where changes that are set aside do not count.</summary>
    public Value this[string field] => values[Program.Fields[field]];

    /// <summary>All values as they are on the form: what would be stored if the record were saved now.</summary>
    public RecordValues Values() => new(Enumerable.Range(0, layout.FieldCount)
        .Where(field => !values[field].IsBlank).Select(field => KeyValuePair.Create(Program.Fields[field].Key, values[field])));

    /// <summary>The person's changes that count now, so neither those set aside nor what rules do to values.</summary>
    /// <remarks>A change back to the saved value counts too where a rule would otherwise give the field another one.</remarks>
    public IReadOnlyDictionary<string, Value> Changes()
    {
        var counting = new Dictionary<string, Value>(StringComparer.Ordinal);
        for (var field = 0; field < changes.Length; field++)
        {
            if (changes[field] is { } change && Counts(field, change))
            {
                // Of a value with parts, those count that could be changed.
                counting.Add(Program.Fields[field].Key, HasParts(field) ? values[field] : change);
            }
        }

        return counting;
    }

    /// <summary>The person's changes that are set aside: they wait until their fields show or open again, and no save stores them.</summary>
    public IReadOnlyDictionary<string, Value> SetAside()
    {
        var waiting = new Dictionary<string, Value>(StringComparer.Ordinal);
        for (var field = 0; field < changes.Length; field++)
        {
            if (changes[field] is { } change && StateOf(field).IsSetAside && !values[field].Equals(change))
            {
                waiting.Add(Program.Fields[field].Key, change);
            }
        }

        return waiting;
    }

    private bool Counts(int field, Value change) => door.Has(field)
        && (!StateOf(field).IsSetAside || values[field].Equals(change) || (StateOf(field).IsEditable && HasParts(field)));

    /// <summary>Whether a change of the person's is held for the field, be it set aside.</summary>
    internal bool HasChanged(int field) => changes[field] is not null;

    private bool HasParts(int field) => layout.PartsOfField[field].Length > 0;

    /// <summary>Fields that belong to a cycle whose values did not settle; they keep their saved values.</summary>
    public IEnumerable<string> UnsettledFields =>
        Program.Order.Cycles.Index().Where(c => unsettled[c.Index]).SelectMany(c => c.Item.Fields).Select(f => Program.Fields[f].Key);

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

    /// <summary>Puts the record into another setting, as when it is seen at another stage, by another person or on another form.</summary>
    public Delta Enter(Setting setting)
    {
        reporter.Begin();
        Setting = setting;
        var next = DoorOf(setting);
        if (next != door)
        {
            door = next;
            Begin(null);
            return reporter.ReportAnew();
        }

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
                Put(slots.FirstDerived + i, values.Derived(slots.FirstDerived + i));
            }
        }

        Settle();
        return reporter.Report();
    }

    /// <summary>Evaluates everything anew. A session is always up to date, so it answers the same after it.</summary>
    public void EvaluateAnew()
    {
        SettleEverything(Setting);
        reporter.Forget();
    }

    /// <summary>
    /// Puts another record in place of this one, or the same as it has been saved, without telling what differs: for many records
    /// at once, and where one goes from judging a record to showing it. Costs a fraction of opening one.
    /// </summary>
    /// <param name="saved">The record as it is stored.</param>
    /// <param name="setting">Where it is and who looks at it; null for the same setting as before.</param>
    /// <param name="before">The setting in which it was saved, where it is another, as when a session is opened.</param>
    public void Replace(RecordValues saved, Setting? setting = null, Setting? before = null)
    {
        if (setting is not null)
        {
            Setting = setting;
            door = DoorOf(setting);
        }

        Array.Clear(changes);
        Array.Clear(isTaken);
        Load(saved, before);
        reporter.Forget();
    }

    /// <summary>The state of an element of this form; throws where the form has no such element.</summary>
    public ElementState StateOf(Element element)
    {
        var number = NumberOf(element);
        return number >= 0
            ? StateOf(number)
            : throw new ArgumentException($"The form {Form.Label} has no {element.Kind} “{element.Key}”.", nameof(element));
    }

    /// <summary>The element's number on the form at hand; -1 where it has no such element.</summary>
    public int NumberOf(Element element) => layout.Find(element, door);

    /// <summary>The state of the element of that number; of a tab or section of another form, that of an element not seen.</summary>
    public ElementState StateOf(int element) => reporter.StateOf(element);

    /// <summary>The value that the field of that number has on the form.</summary>
    public Value ValueOf(int field) => values[field];

    /// <summary>Which case of the rule at that place in the list is in force for the record at large; -1 for none.</summary>
    public int CaseInForce(int rule) => Program.VariantOfRule[rule] is >= 0 and var variant ? inForce[variant] : Nobody;

    /// <summary>The form at hand as a way to the record.</summary>
    internal Door Door => door;

    private Door DoorOf(Setting setting) => Program.FindDoor(setting.Form)
        ?? throw new ArgumentException($"{Program.Definition.RecordType.Label} has no form “{setting.Form}”.", nameof(setting));

    private void Hold(string field, Value value)
    {
        var index = Program.Fields[field];
        isTaken[index] = false;
        var change = value.IsBlank ? Value.Blank : value;
        // Where a rule gives the field a value, staying with the saved one is a choice of its own.
        changes[index] = change.Equals(SavedValueOf(index)) && !effects.IsGiven[index] ? null : change;
        pending[Program.Order.CycleOfField[index]] = true;
        reporter.Touch(index);
    }

    /// <summary>The same record, as it is saved, on another form.</summary>
    internal Session At(string form) => new(Program, saved, Setting with { Form = form }, records);

    /// <summary>The same record under other rules of the same record type, with every change that is held.</summary>
    public Session On(RuleProgram program)
    {
        var next = new Session(program, saved, Setting, records);
        next.Change(changes.Index().Where(entry => entry.Item is not null)
            .Select(entry => KeyValuePair.Create(Program.Fields[entry.Index].Key, entry.Item!)));
        return next;
    }

    private void Load(RecordValues saved, Setting? before)
    {
        this.saved = saved;
        values.PutSaved(saved);
        Begin(before);
    }
}
