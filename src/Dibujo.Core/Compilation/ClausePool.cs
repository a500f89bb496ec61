using System.Collections.Immutable;
using System.Runtime.InteropServices;
using Dibujo.Core.Conditions;
using Dibujo.Core.Operands;
using Dibujo.Core.Records;

namespace Dibujo.Core.Compilation;

/// <summary>The distinct clauses that rules of a record type have used so far; a number once given stays.</summary>
internal sealed class ClausePool(RecordType type, SlotPool slots, SubjectTypes subjects)
{
    /// <summary>For each clause its operation, its slot, and its comparands: slots, or complements of literals.</summary>
    private readonly SequencePool codes = new();
    private readonly List<Operand> literals = [];
    private readonly Dictionary<(decimal Number, bool IsDay), int> numbers = [];
    private readonly Dictionary<string, int> texts = new(StringComparer.Ordinal);
    private readonly Dictionary<string, int> sets = new(StringComparer.Ordinal);

    internal int Count => codes.Count;

    /// <summary>The stages that clauses name by their place here.</summary>
    internal ImmutableArray<string> Stages { get; } = [.. type.Workflows.SelectMany(w => w.Stages).Select(s => s.Key).Distinct(StringComparer.Ordinal)];

    internal ClauseOp OpOf(int clause) => (ClauseOp)codes[clause][0];

    internal int SlotOf(int clause) => codes[clause][1];

    /// <summary>Slots, or complements of literals.</summary>
    internal ReadOnlySpan<int> ComparandsOf(int clause) => codes[clause][2..];

    internal Operand Literal(int number) => literals[number];

    /// <summary>Whether it compares its slot with nothing but literals, by a test that a dispatch might take over.</summary>
    internal bool IsFixed(int clause) => OpOf(clause) < ClauseOp.StageIs && ComparandsOf(clause).IndexOfAnyInRange(0, int.MaxValue) < 0;

    /// <summary>The clause's number, and whether the test is the negation of what is stored under it.</summary>
    /// <param name="clause">A clause without problems.</param>
    /// <param name="ownField">The field whose saved value the clause looks at in place of its live one; -1 for none.</param>
    internal (int Clause, bool Negated) Add(Clause clause, int ownField)
    {
        var (op, negated) = ClauseOps.Of(clause.Subject, clause.Test);
        var subjectType = subjects.Of(clause.Subject)!;
        var slot = slots.Of(clause.Subject, ownField);
        List<int> code = [(int)op, slot];
        switch (op)
        {
            case ClauseOp.Changed:
                code.Add(slots.Of(((FieldSubject)clause.Subject) with { Saved = true }, ownField));
                break;
            case ClauseOp.Complete:
                code.AddRange(NeededParts(clause.Subject, (CompoundType)subjectType, ownField));
                break;
        }

        foreach (var comparand in clause.Comparands)
        {
            code.Add(comparand is Literal literal
                ? ~Add(OperandOf(clause.Subject, subjectType, literal))
                : slots.Of(comparand, FittingTests.Compared(clause.Test, subjectType), ownField));
        }

        return (codes.Add(CollectionsMarshal.AsSpan(code)), negated);
    }

    private int Add(Operand literal) => literal.Kind switch
    {
        OperandKind.Text => Add(texts, literal.Text, literal),
        OperandKind.Set => Add(sets, string.Join(';', literal.Keys!), literal),
        OperandKind.Number => Add(numbers, (literal.Number, literal.IsDay), literal),
        // Blank, or a value with parts: both are equal to nothing.
        _ => Add(sets, $"{literal.Kind}", literal),
    };

    private int Add<TKey>(Dictionary<TKey, int> known, TKey key, Operand literal)
        where TKey : notnull
    {
        if (!known.TryGetValue(key, out var number))
        {
            number = literals.Count;
            literals.Add(literal);
            known.Add(key, number);
        }

        return number;
    }

    private IEnumerable<int> NeededParts(Subject subject, CompoundType compound, int ownField) =>
        from part in compound.Parts
        where !compound.OptionalParts.Contains(part.Key, StringComparer.Ordinal)
        select slots.Of(subject switch
        {
            FieldSubject field => field with { Part = part.Key },
            _ => (Subject)((LinkedSubject)subject with { Part = part.Key }),
        }, ownField);

    private Operand OperandOf(Subject subject, FieldType subjectType, Literal literal) => subject is StageSubject
        ? Operand.Of(Stages.IndexOf(literal.Value.Plain))
        : Operand.Of(subjectType.Fit(literal.Value)!);
}
