using Dibujo.Core.Evaluation;
using Dibujo.Core.Programs;
using Dibujo.Core.Records;
using Dibujo.Core.Values;

namespace Dibujo.Core.Bulk;

/// <summary>What every clause says of many records that are as they were saved, 64 records at a time, a bit for each.</summary>
/// <remarks>
/// A clause that looks at nothing but the setting is decided once, one that looks at one field once for each distinct value
/// of that field, and any other record by record.
/// </remarks>
internal sealed class ClauseColumns
{
    internal const int BlockSize = 64;

    private readonly RuleProgram program;
    private readonly RecordColumns records;
    private readonly SlotValues values;
    private readonly ClauseEvaluator evaluator;
    private readonly int[][] fieldsOfSlot;

    /// <summary>For each clause, the field that it looks at where that is just one; -1 for others.</summary>
    private readonly int[] fieldOf;

    /// <summary>For each clause, what it says of each distinct value of its field; of a clause without a field, one answer.</summary>
    private readonly bool[][] answers;

    /// <summary>The clauses that look at several fields.</summary>
    private readonly int[] mixed;
    private readonly int[] mixedFields;

    internal ClauseColumns(RuleProgram program, RecordColumns records, Setting setting, IRecordLookup lookup)
    {
        (this.program, this.records) = (program, records);
        values = new(program, lookup);
        values.Enter(setting, values.Put);
        evaluator = new(program.Clauses, values);
        fieldsOfSlot = FieldsOfSlots();
        int[][] fieldsOf = [.. Enumerable.Range(0, program.Groups.First)
            .Select(clause => program.Clauses.SlotsOf(clause).SelectMany(slot => fieldsOfSlot[slot]).Distinct().ToArray())];
        fieldOf = [.. fieldsOf.Select(fields => fields.Length == 1 ? fields[0] : -1)];
        mixed = [.. Enumerable.Range(0, fieldsOf.Length).Where(clause => fieldsOf[clause].Length > 1)];
        mixedFields = [.. mixed.SelectMany(clause => fieldsOf[clause]).Distinct()];
        answers = new bool[fieldsOf.Length][];
        Derive(slot => true);
        foreach (var group in Enumerable.Range(0, fieldsOf.Length).Where(c => fieldsOf[c].Length < 2).GroupBy(clause => fieldOf[clause]))
        {
            Answer(group.Key, [.. group]);
        }
    }

    /// <summary>Writes a word for each clause, for the records from that one on.</summary>
    internal void Decide(int first, Span<ulong> words)
    {
        var count = Math.Min(BlockSize, records.Count - first);
        for (var clause = 0; clause < answers.Length; clause++)
        {
            words[clause] = answers[clause] switch
            {
                null => 0,
                [var always] when fieldOf[clause] < 0 => always ? ulong.MaxValue : 0,
                var some => Word(records.Of(fieldOf[clause]).Codes.Slice(first, count), some),
            };
        }

        for (var i = 0; i < count && mixed.Length > 0; i++)
        {
            foreach (var field in mixedFields)
            {
                Put(field, records.Of(field)[first + i]);
            }

            Derive(slot => fieldsOfSlot[slot].Length > 0);
            foreach (var clause in mixed)
            {
                words[clause] |= (evaluator.Holds(clause) ? 1UL : 0) << i;
            }
        }
    }

    private static ulong Word(ReadOnlySpan<int> codes, bool[] answers)
    {
        var word = 0UL;
        for (var i = 0; i < codes.Length; i++)
        {
            word |= (answers[codes[i]] ? 1UL : 0) << i;
        }

        return word;
    }

    private void Answer(int field, int[] clauses)
    {
        var distinct = field < 0 ? [Value.Blank] : records.Of(field).Distinct;
        foreach (var clause in clauses)
        {
            answers[clause] = new bool[distinct.Count];
        }

        for (var code = 0; code < distinct.Count; code++)
        {
            if (field >= 0)
            {
                Put(field, distinct[code]);
                Derive(slot => fieldsOfSlot[slot] is [var only] && only == field);
            }

            foreach (var clause in clauses)
            {
                answers[clause][code] = evaluator.Holds(clause);
            }
        }
    }

    private void Put(int field, Value value)
    {
        values.Put(field, value);
        values.Put(program.Slots.Saved(field), value);
    }

    private void Derive(Func<int, bool> which)
    {
        for (var slot = program.Slots.FirstDerived; slot < program.Slots.Count; slot++)
        {
            if (which(slot))
            {
                values.Put(slot, values.Derived(slot));
            }
        }
    }

    /// <summary>For each slot, the fields that it follows from, as they are or as they were saved.</summary>
    private int[][] FieldsOfSlots()
    {
        var slots = program.Slots;
        var of = new int[slots.Count][];
        for (var slot = 0; slot < slots.Count; slot++)
        {
            of[slot] = slot < 2 * program.Fields.Count ? [slot % program.Fields.Count]
                : slot >= slots.FirstDerived ? [.. slots.Derived[slot - slots.FirstDerived].Inputs.SelectMany(input => of[input]).Distinct()]
                : [];
        }

        return of;
    }
}
