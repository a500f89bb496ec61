using System.Collections.Immutable;
using System.Globalization;
using Dibujo.Core.Conditions;
using Dibujo.Core.Records;

namespace Dibujo.Core.Compilation;

/// <summary>The distinct clauses of a program. However many rules share a clause, it is here once.</summary>
internal sealed class ClauseTable(RecordType type, FieldIndex fields)
{
    private readonly Dictionary<string, int> known = new(StringComparer.Ordinal);
    private readonly List<ClauseCode> codes = [];
    private readonly List<int> comparands = [];
    private readonly List<Operand> literals = [];
    private readonly ImmutableArray<string> stages =
        [.. type.Workflows.SelectMany(w => w.Stages).Select(s => s.Key).Distinct(StringComparer.Ordinal)];

    internal Slots Slots { get; } = new(fields.Count);

    internal ClauseCode[] Codes { get; private set; } = [];

    /// <summary>Slots of fields, or the complement of an index into <see cref="Literals"/>.</summary>
    internal int[] Comparands { get; private set; } = [];

    internal Operand[] Literals { get; private set; } = [];

    /// <summary>The clauses that look at each slot, as subject or as comparand.</summary>
    internal int[][] OfSlot { get; private set; } = [];

    /// <summary>The clause's number, and whether the test is the negation of what is stored under it.</summary>
    /// <param name="clause">A clause without problems.</param>
    /// <param name="ownField">The field whose saved value the clause looks at in place of its live one; -1 for none.</param>
    internal (int Clause, bool Negated) Add(Clause clause, int ownField)
    {
        var (op, negated) = Op(clause);
        var slot = clause.Subject switch
        {
            FieldSubject f => SlotOf(f.Field, ownField),
            StageSubject => Slots.Stage,
            _ => Slots.Roles,
        };
        var start = comparands.Count;
        var key = $"{op}:{slot}";
        foreach (var comparand in clause.Comparands)
        {
            if (comparand is FieldComparand other)
            {
                comparands.Add(SlotOf(other.Field, ownField));
                key += string.Create(CultureInfo.InvariantCulture, $"|f{comparands[^1]}");
            }
            else
            {
                var operand = OperandOf(clause.Subject, (Literal)comparand);
                comparands.Add(~literals.Count);
                literals.Add(operand);
                key += operand.Kind == OperandKind.Text
                    ? $"|t{operand.Text.Length}:{operand.Text}"
                    : string.Create(CultureInfo.InvariantCulture, $"|n{operand.Number:G29}");
            }
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

    /// <summary>Turns the gathered clauses into arrays; nothing can be added after.</summary>
    internal void Freeze()
    {
        Codes = [.. codes];
        Comparands = [.. comparands];
        Literals = [.. literals];
        var readers = new List<int>[Slots.Count];
        for (var i = 0; i < readers.Length; i++)
        {
            readers[i] = [];
        }

        for (var i = 0; i < Codes.Length; i++)
        {
            foreach (var slot in SlotsOf(i).Distinct())
            {
                readers[slot].Add(i);
            }
        }

        OfSlot = [.. readers.Select(r => r.ToArray())];
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

    private int SlotOf(string field, int ownField)
    {
        var index = fields[field];
        return index == ownField ? Slots.Saved(index) : index;
    }

    private Operand OperandOf(Subject subject, Literal literal) => subject switch
    {
        FieldSubject f => Operand.Of(fields.Type(fields[f.Field]).Fit(literal.Value)!),
        StageSubject => Operand.Of(stages.IndexOf(literal.Value.Plain)),
        _ => Operand.Of(type.Roles.Select(r => r.Key).ToList().IndexOf(literal.Value.Plain)),
    };

    private static (ClauseOp Op, bool Negated) Op(Clause clause) => (clause.Subject, clause.Test) switch
    {
        (RoleSubject, Test.Is or Test.OneOf) => (ClauseOp.HasRole, false),
        (RoleSubject, _) => (ClauseOp.HasRole, true),
        (StageSubject, Test.Is or Test.OneOf) => (ClauseOp.StageIs, false),
        (StageSubject, Test.IsNot or Test.NoneOf) => (ClauseOp.StageIs, true),
        (StageSubject, Test.Before) => (ClauseOp.StageBefore, false),
        (StageSubject, Test.After) => (ClauseOp.StageAfter, false),
        (StageSubject, _) => (ClauseOp.StageFrom, false),
        (_, Test.Is) => (ClauseOp.Equal, false),
        (_, Test.IsNot) => (ClauseOp.Equal, true),
        (_, Test.OneOf) => (ClauseOp.OneOf, false),
        (_, Test.NoneOf) => (ClauseOp.OneOf, true),
        (_, Test.Contains) => (ClauseOp.Contains, false),
        (_, Test.DoesNotContain) => (ClauseOp.Contains, true),
        (_, Test.StartsWith) => (ClauseOp.StartsWith, false),
        (_, Test.DoesNotStartWith) => (ClauseOp.StartsWith, true),
        (_, Test.LessThan or Test.Before) => (ClauseOp.Less, false),
        (_, Test.AtMost or Test.OnOrBefore) => (ClauseOp.AtMost, false),
        (_, Test.AtLeast or Test.FromOn) => (ClauseOp.AtLeast, false),
        (_, Test.MoreThan or Test.After) => (ClauseOp.More, false),
        (_, Test.Between) => (ClauseOp.Between, false),
        (_, Test.NotBetween) => (ClauseOp.Between, true),
        (_, Test.FilledIn) => (ClauseOp.FilledIn, false),
        (_, Test.Blank) => (ClauseOp.FilledIn, true),
        _ => throw new ArgumentOutOfRangeException(nameof(clause)),
    };
}
