using System.Collections.Immutable;
using System.Globalization;
using Dibujo.Core.Conditions;
using Dibujo.Core.Operands;
using Dibujo.Core.Records;

namespace Dibujo.Core.Compilation;

/// <summary>The distinct clauses of a program. However many rules share a clause, it is here once.</summary>
internal sealed class ClauseTable(RecordType type, SlotTable slots)
{
    private readonly Dictionary<string, int> known = new(StringComparer.Ordinal);
    private readonly List<ClauseCode> codes = [];
    private readonly List<int> comparands = [];
    private readonly List<Operand> literals = [];
    private readonly ImmutableArray<string> stages =
        [.. type.Workflows.SelectMany(w => w.Stages).Select(s => s.Key).Distinct(StringComparer.Ordinal)];

    internal ClauseCode[] Codes { get; private set; } = [];

    /// <summary>Slots, or the complement of an index into <see cref="Literals"/>.</summary>
    internal int[] Comparands { get; private set; } = [];

    internal Operand[] Literals { get; private set; } = [];

    /// <summary>For each clause as it was added, its number now.</summary>
    internal int[] Numbers { get; private set; } = [];

    /// <summary>For each slot, what decides the clauses that compare it with fixed comparands; null where there are none.</summary>
    internal Dispatch?[] Dispatches { get; private set; } = [];

    /// <summary>How many clauses one dispatch decides at most.</summary>
    internal int MostDecidedAtOnce { get; private set; }

    /// <summary>For each slot, the other clauses that look at it, as subject or as comparand.</summary>
    internal int[][] SinglesOfSlot { get; private set; } = [];

    /// <summary>Every clause from this one on is decided by itself.</summary>
    internal int FirstSingle { get; private set; }

    /// <summary>
    /// The clause's number, and whether the test is the negation of what is stored under it. The number is another after
    /// <see cref="Freeze"/>: see <see cref="Numbers"/>.
    /// </summary>
    /// <param name="clause">A clause without problems.</param>
    /// <param name="ownField">The field whose saved value the clause looks at in place of its live one; -1 for none.</param>
    internal (int Clause, bool Negated) Add(Clause clause, int ownField)
    {
        var (op, negated) = ClauseOps.Of(clause.Subject, clause.Test);
        var subjectType = slots.Subjects.Of(clause.Subject)!;
        var slot = slots.Of(clause.Subject, ownField);
        if (subjectType is DateTimeType && clause.Comparands.Length > 0 && clause.Comparands.All(IsDay))
        {
            // A moment compared with a day: what counts is the moment's day.
            slot = slots.Day(slot);
            subjectType = new DateType();
        }

        var start = comparands.Count;
        var key = string.Create(CultureInfo.InvariantCulture, $"{op}:{slot}");
        comparands.AddRange(op switch
        {
            ClauseOp.Changed => [slots.Of(((FieldSubject)clause.Subject) with { Saved = true }, ownField)],
            ClauseOp.Complete => NeededParts(clause.Subject, (CompoundType)subjectType, ownField),
            _ => [],
        });

        foreach (var comparand in clause.Comparands)
        {
            if (comparand is not Literal literal)
            {
                comparands.Add(slots.Of(comparand, FittingTests.Compared(clause.Test, subjectType), ownField));
                key += string.Create(CultureInfo.InvariantCulture, $"|f{comparands[^1]}");
                continue;
            }

            var operand = OperandOf(clause.Subject, subjectType, literal);
            comparands.Add(~literals.Count);
            literals.Add(operand);
            key += operand.Kind switch
            {
                OperandKind.Text => $"|t{operand.Text.Length}:{operand.Text}",
                OperandKind.Set => $"|s{string.Join(';', operand.Keys!)}",
                _ => string.Create(CultureInfo.InvariantCulture, $"|n{operand.Number:G29}"),
            };
        }

        if (known.TryGetValue(key, out var found))
        {
            comparands.RemoveRange(start, comparands.Count - start);
            return (found, negated);
        }

        known.Add(key, codes.Count);
        codes.Add(new(op, slot, start, comparands.Count - start));
        return (codes.Count - 1, negated);
    }

    /// <summary>Turns the gathered clauses into arrays, those of one dispatch together; none can be added after.</summary>
    internal void Freeze()
    {
        Comparands = [.. comparands];
        Literals = [.. literals];
        var order = new List<int>();
        Dispatches = new Dispatch?[slots.Count];
        foreach (var group in codes.Index().Where(c => IsFixed(c.Item)).GroupBy(c => c.Item.Slot, c => Fixed(c.Index)))
        {
            if (Dispatch.Of(group.Key, order.Count, group) is var (dispatch, taken))
            {
                Dispatches[group.Key] = dispatch;
                order.AddRange(taken);
            }
        }

        MostDecidedAtOnce = Dispatches.Max(d => d?.Count ?? 0);
        FirstSingle = order.Count;
        order.AddRange(Enumerable.Range(0, codes.Count).Except(order).ToList());
        Renumber(order);
        var readers = new List<int>[slots.Count];
        for (var i = 0; i < readers.Length; i++)
        {
            readers[i] = [];
        }

        for (var i = FirstSingle; i < Codes.Length; i++)
        {
            foreach (var slot in SlotsOf(i).Distinct())
            {
                readers[slot].Add(i);
            }
        }

        SinglesOfSlot = [.. readers.Select(r => r.ToArray())];
    }

    /// <summary>Every slot that the clause looks at.</summary>
    internal IEnumerable<int> SlotsOf(int clause)
    {
        var code = codes[clause];
        yield return code.Slot;
        for (var i = 0; i < code.ComparandCount; i++)
        {
            var comparand = comparands[code.ComparandStart + i];
            if (comparand >= 0)
            {
                yield return comparand;
            }
        }
    }

    /// <summary>For each stage that clauses name, by its number: where it stands in the workflow, or -1.</summary>
    internal int[] StagePositions(Workflows.Workflow workflow) => [.. stages.Select(workflow.Position)];

    private void Renumber(List<int> order)
    {
        Codes = [.. order.Select(i => codes[i])];
        Numbers = new int[order.Count];
        foreach (var (now, before) in order.Index())
        {
            Numbers[before] = now;
        }

        codes.Clear();
        codes.AddRange(Codes);
        foreach (var key in known.Keys)
        {
            known[key] = Numbers[known[key]];
        }
    }

    private bool IsFixed(ClauseCode code) =>
        code.Op < ClauseOp.StageIs && comparands.Slice(code.ComparandStart, code.ComparandCount).TrueForAll(c => c < 0);

    private FixedClause Fixed(int clause) => new(
        clause, codes[clause].Op, [.. comparands.Slice(codes[clause].ComparandStart, codes[clause].ComparandCount).Select(c => literals[~c])]);

    private IEnumerable<int> NeededParts(Subject subject, CompoundType compound, int ownField) =>
        from part in compound.Parts
        where !compound.OptionalParts.Contains(part.Key, StringComparer.Ordinal)
        select slots.Of(subject switch
        {
            FieldSubject field => field with { Part = part.Key },
            _ => (Subject)((LinkedSubject)subject with { Part = part.Key }),
        }, ownField);

    private bool IsDay(Comparand comparand) => comparand switch
    {
        RelativeDay => true,
        SubjectComparand { Subject: var subject } => slots.Subjects.Of(subject) is DateType,
        _ => false,
    };

    private Operand OperandOf(Subject subject, FieldType subjectType, Literal literal) => subject is StageSubject
        ? Operand.Of(stages.IndexOf(literal.Value.Plain))
        : Operand.Of(subjectType.Fit(literal.Value)!);
}
