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

    private readonly Value[] saved;
    private readonly Value?[] changes;
    private readonly Value[] live;
    private readonly Operand[] operands;
    private readonly bool[] truth;
    private readonly int[] inForce;
    private readonly int[] winners;
    private readonly bool[] pending;
    private readonly Queue<int> readingsToTry = new();
    private readonly bool[] isReadingQueued;
    private readonly bool[] unsettled;
    private readonly ClauseEvaluator evaluator;
    private readonly Reporter reporter;
    private readonly ClauseTable clauses;
    private readonly RuleTable rules;
    private readonly ClaimTable claims;
    private readonly Layout layout;

    /// <summary>Opens a record.</summary>
    /// <param name="program">The rules and the form.</param>
    /// <param name="saved">The record as it is stored; for a new record, its defaults.</param>
    /// <param name="setting">Stage, roles and so on.</param>
    public Session(RuleProgram program, RecordValues saved, Setting setting)
    {
        Program = program;
        Setting = setting;
        clauses = program.Clauses;
        rules = program.Rules;
        claims = program.Claims;
        layout = program.Layout;
        var fieldCount = program.Fields.Count;
        this.saved = new Value[fieldCount];
        changes = new Value?[fieldCount];
        live = new Value[fieldCount];
        operands = new Operand[clauses.Slots.Count];
        truth = new bool[clauses.Codes.Length];
        inForce = new int[rules.Count];
        winners = new int[layout.Count * ClaimTable.FacetCount];
        pending = new bool[program.Circles.Length];
        isReadingQueued = new bool[rules.Count];
        unsettled = new bool[program.Circles.Length];
        isAdmitted = new bool[fieldCount];
        isExcluded = new bool[fieldCount];
        evaluator = new(clauses, operands);
        reporter = new(this);
        Array.Fill(inForce, Nobody);
        Array.Fill(winners, Nobody);
        for (var field = 0; field < fieldCount; field++)
        {
            var value = saved[program.Fields[field].Key];
            this.saved[field] = live[field] = value.IsBlank ? Value.Blank : value;
            operands[field] = operands[clauses.Slots.Saved(field)] = Operand.Of(value);
        }

        SettleEverything();
    }

    /// <summary>The rules and the form.</summary>
    public RuleProgram Program { get; }

    /// <summary>Stage, roles and so on; set anew by <see cref="Enter"/>.</summary>
    public Setting Setting { get; private set; }

    /// <summary>Whether the values of every circle of rules settled. If not, fields in such a circle keep their saved values.</summary>
    public bool IsSettled => !unsettled.Contains(true);

    /// <summary>The value that the field has on the form, where changes that are set aside do not count.</summary>
    public Value this[string field] => live[Program.Fields[field]];

    /// <summary>All values as they are on the form: what would be stored if the record were saved now.</summary>
    public RecordValues Values() => live.Index().Aggregate(
        RecordValues.Empty, (values, entry) => values.With(Program.Fields[entry.Index].Key, entry.Item));

    /// <summary>The person's changes that count now, so neither those set aside nor what rules do to values.</summary>
    public IReadOnlyDictionary<string, Value> Changes() => changes.Index()
        .Where(entry => entry.Item is not null && !StateOf(entry.Index).IsSetAside)
        .ToDictionary(entry => Program.Fields[entry.Index].Key, entry => entry.Item!, StringComparer.Ordinal);

    /// <summary>Fields that belong to a circle whose values did not settle; they keep their saved values.</summary>
    public IEnumerable<string> UnsettledFields =>
        Program.Circles.Index().Where(c => unsettled[c.Index]).SelectMany(c => c.Item.Fields).Select(f => Program.Fields[f].Key);

    /// <summary>
    /// Holds the person's change to a field (back to the saved value: holds none) and answers with what is different now.
    /// A change to a field that is hidden or locked is held too, but set aside.
    /// </summary>
    public Delta Change(string field, Value value)
    {
        Hold(field, value);
        Settle();
        return reporter.Report();
    }

    /// <summary>Holds several changes at once; the same as one after another, in any order.</summary>
    public Delta Change(IEnumerable<KeyValuePair<string, Value>> fields)
    {
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
        Setting = setting;
        ReadSetting();
        Reconsider(clauses.Slots.Stage);
        Reconsider(clauses.Slots.Roles);
        Settle();
        return reporter.Report();
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
    public Value ValueOf(int field) => live[field];

    /// <summary>Which case of the rule at that place in the list is in force for the form at large; -1 for none.</summary>
    public int CaseInForce(int rule) => Program.ReadingOfRule[rule] is >= 0 and var reading ? inForce[reading] : Nobody;

    private void Hold(string field, Value value)
    {
        var index = Program.Fields[field];
        var change = value.IsBlank ? Value.Blank : value;
        changes[index] = change.Equals(saved[index]) ? null : change;
        pending[Program.CircleOfField[index]] = true;
        reporter.Touch(index);
    }

    private void SettleEverything()
    {
        ReadSetting();
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
            winners[cell] = Winner(cell);
        }

        Array.Fill(pending, true);
        Settle();
        reporter.Start();
    }

    private void ReadSetting()
    {
        var type = Program.Definition.RecordType;
        var workflow = type.FindWorkflow(Setting.Workflow) ?? type.Workflows[0];
        evaluator.SetSetting(
            clauses.StagePositions(workflow),
            workflow.Position(Setting.Stage),
            [.. type.Roles.Select(r => Setting.Roles.Contains(r.Key, StringComparer.Ordinal))]);
    }

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
                SetLive(circle.Fields[0], Offered(circle.Fields[0], changes[circle.Fields[0]]));
            }

            TryReadings();
            pending[i] = false;
        }
    }

    /// <summary>The value that the field has, given the person's change to it (null: none) and the claims now in force.</summary>
    private Value Offered(int field, Value? change)
    {
        if (!layout.OnForm[field])
        {
            return saved[field];
        }

        var (hidden, cleared) = Hiding(field);
        if (hidden)
        {
            return cleared ? Value.Blank : saved[field];
        }

        return change is null || AccessTo(field) == Access.Locked ? saved[field] : change;
    }

    private void SetLive(int field, Value value)
    {
        if (live[field].Equals(value))
        {
            return;
        }

        live[field] = value;
        operands[field] = Operand.Of(value);
        reporter.Touch(field);
        Reconsider(field);
    }

    /// <summary>Decides the clauses on a slot anew, and queues the readings for which that makes a difference.</summary>
    private void Reconsider(int slot)
    {
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
            var (element, facet) = Math.DivRem(cell, ClaimTable.FacetCount);
            foreach (var under in Program.ElementsUnder[element])
            {
                reporter.Touch(under);
                if (under < layout.FieldCount && facet != (int)Facet.Requirement)
                {
                    pending[Program.CircleOfField[under]] = true;
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
        for (var i = claims.Starts[cell]; i < claims.Starts[cell + 1]; i++)
        {
            if (inForce[claims.Claims[i].Reading] == claims.Claims[i].Case)
            {
                return i;
            }
        }

        return Nobody;
    }
}
