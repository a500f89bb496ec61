using System.Numerics;
using Dibujo.Core.Evaluation;
using Dibujo.Core.Programs;
using Dibujo.Core.Records;

namespace Dibujo.Core.Bulk;

/// <summary>Which case of every rule is in force in each of many records, as they were saved: what a session of each would answer.</summary>
/// <remarks>
/// Conditions are evaluated for 64 records at a time. That is possible wherever no rule alters a value that a condition
/// looks at; else each record is evaluated in a session.
/// </remarks>
public sealed class BulkEvaluation
{
    private readonly RuleProgram program;
    private readonly int blocks;

    /// <summary>For each case of each variant and each block, the records in which it is in force.</summary>
    private readonly ulong[] inForce;

    /// <summary>Evaluates the records, all in the same setting.</summary>
    /// <param name="program">The rules and the form.</param>
    /// <param name="records">The records; those at other stages are other columns.</param>
    /// <param name="setting">Stage, roles and so on.</param>
    /// <param name="lookup">Where linked records are found; by default nowhere.</param>
    public BulkEvaluation(RuleProgram program, RecordColumns records, Setting setting, IRecordLookup? lookup = null)
    {
        this.program = program;
        Count = records.Count;
        blocks = (Count + ClauseColumns.BlockSize - 1) / ClauseColumns.BlockSize;
        inForce = new ulong[program.Variants.Cases.Length * blocks];
        if (AltersWhatIsLookedAt(program))
        {
            EvaluateOneByOne(records, setting, lookup);
        }
        else
        {
            Evaluate(new(program, records, setting, lookup ?? new NoRecords()));
        }
    }

    /// <summary>How many records were evaluated.</summary>
    public int Count { get; }

    /// <summary>Which case of the rule at that place in the list is in force in the record at that place; -1 for none.</summary>
    public int CaseInForce(int rule, int record)
    {
        var (block, bit) = Math.DivRem(record, ClauseColumns.BlockSize);
        for (var @case = 0; @case < CasesOf(rule); @case++)
        {
            if ((Word(rule, @case, block) >> bit & 1) != 0)
            {
                return @case;
            }
        }

        return -1;
    }

    /// <summary>In how many records that case of the rule at that place in the list is in force.</summary>
    public int CountOf(int rule, int @case) => Enumerable.Range(0, blocks).Sum(block => BitOperations.PopCount(Word(rule, @case, block)));

    /// <summary>How many cases the rule at that place in the list has; none for a rule that is off or has problems.</summary>
    public int CasesOf(int rule) => program.Cases[rule].Length;

    private static bool AltersWhatIsLookedAt(RuleProgram program) => Enumerable.Range(0, program.Groups.First)
        .SelectMany(program.Clauses.SlotsOf).Distinct().SelectMany(program.Slots.FieldsOf).Distinct()
        .Any(field => program.Order.IsGivenValues[program.Order.CycleOfField[field]]);

    private ref ulong Word(int rule, int @case, int block) =>
        ref inForce[((program.Variants.Codes[program.VariantOfRule[rule]].CaseStart + @case) * blocks) + block];

    private void EvaluateOneByOne(RecordColumns records, Setting setting, IRecordLookup? lookup)
    {
        Session? session = null;
        for (var record = 0; record < Count; record++)
        {
            if (session is null)
            {
                session = new(program, records[record], setting, lookup);
            }
            else
            {
                session.Replace(records[record]);
            }

            var (block, bit) = Math.DivRem(record, ClauseColumns.BlockSize);
            for (var rule = 0; rule < program.VariantOfRule.Length; rule++)
            {
                if (session.CaseInForce(rule) is >= 0 and var @case)
                {
                    Word(rule, @case, block) |= 1UL << bit;
                }
            }
        }
    }

    private void Evaluate(ClauseColumns clauses)
    {
        var words = new ulong[program.Groups.Count];
        for (var block = 0; block < blocks; block++)
        {
            clauses.Decide(block * ClauseColumns.BlockSize, words);
            DecideGroups(words);
            var left = Count - (block * ClauseColumns.BlockSize);
            var all = left >= ClauseColumns.BlockSize ? ulong.MaxValue : (1UL << left) - 1;
            foreach (var rule in program.Variants.Codes)
            {
                var undecided = all;
                for (var i = rule.CaseStart; i < rule.CaseStart + rule.CaseCount; i++)
                {
                    inForce[(i * blocks) + block] = undecided & Of(words, program.Variants.Cases[i]);
                    undecided &= ~inForce[(i * blocks) + block];
                }
            }
        }
    }

    private void DecideGroups(ulong[] words)
    {
        var (codes, members, first) = (program.Groups.Codes, program.Groups.Members, program.Groups.First);
        for (var i = 0; i < codes.Length; i++)
        {
            var (all, any) = (ulong.MaxValue, 0UL);
            foreach (var member in members.AsSpan(codes[i].MemberStart, codes[i].MemberCount))
            {
                all &= Of(words, member);
                any |= Of(words, member);
            }

            words[first + i] = codes[i].TakesAll ? all : codes[i].TakesNone ? ~any : any;
        }
    }

    private static ulong Of(ulong[] words, int condition) => condition < 0 ? ~words[~condition] : words[condition];
}
