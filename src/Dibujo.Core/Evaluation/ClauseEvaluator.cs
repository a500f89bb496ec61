using Dibujo.Core.Compilation;
using Dibujo.Core.Values;

namespace Dibujo.Core.Evaluation;

/// <summary>Decides single clauses. Every test here is positive: false on a blank subject or with a blank comparand.</summary>
internal sealed class ClauseEvaluator(ClauseTable clauses, Operand[] operands, Value[] values)
{
    private readonly ClauseCode[] codes = clauses.Codes;
    private readonly int[] comparands = clauses.Comparands;
    private readonly Operand[] literals = clauses.Literals;
    private int[] stagePositions = [];
    private int stage = -1;

    /// <summary>Tells which workflow's order counts, and at which of its positions the record is (-1: none).</summary>
    internal void SetStage(int[] positions, int position)
    {
        stagePositions = positions;
        stage = position;
    }

    internal bool Holds(int clause)
    {
        ref readonly var code = ref codes[clause];
        switch (code.Op)
        {
            case ClauseOp.FilledIn:
                return operands[code.Slot].Kind != OperandKind.Blank;
            case ClauseOp.Complete:
                return AreFilledIn(in code);
            case ClauseOp.Changed:
                return !values[code.Slot].Equals(values[comparands[code.ComparandStart]]);
            case >= ClauseOp.StageIs:
                return StageHolds(in code);
            case ClauseOp.OneOf or ClauseOp.IncludesAny:
                return AnyHolds(in code);
            case ClauseOp.IncludesAll:
                return AllHold(in code);
            case ClauseOp.Between:
                return Compare(ClauseOp.AtLeast, in operands[code.Slot], in Comparand(in code, 0))
                    && Compare(ClauseOp.AtMost, in operands[code.Slot], in Comparand(in code, 1));
            default:
                return Compare(code.Op, in operands[code.Slot], in Comparand(in code, 0));
        }
    }

    /// <summary>A test with one comparand on a subject.</summary>
    internal static bool Compare(ClauseOp op, in Operand subject, in Operand comparand)
    {
        if (subject.Kind == OperandKind.Blank || comparand.Kind == OperandKind.Blank)
        {
            return false;
        }

        return op switch
        {
            ClauseOp.Equal or ClauseOp.OneOf => AreEqual(in subject, in comparand),
            ClauseOp.Contains => subject.Text.Contains(comparand.Text, StringComparison.Ordinal),
            ClauseOp.StartsWith => subject.Text.StartsWith(comparand.Text, StringComparison.Ordinal),
            ClauseOp.IncludesAny => Includes(in subject, in comparand, all: false),
            ClauseOp.IncludesAll => Includes(in subject, in comparand, all: true),
            ClauseOp.Less => subject.Number < comparand.Number,
            ClauseOp.AtMost => subject.Number <= comparand.Number,
            ClauseOp.AtLeast => subject.Number >= comparand.Number,
            ClauseOp.More => subject.Number > comparand.Number,
            _ => throw new ArgumentOutOfRangeException(nameof(op)),
        };
    }

    private static bool AreEqual(in Operand one, in Operand other) =>
        one.Kind == other.Kind && one.Kind switch
        {
            OperandKind.Number => one.Number == other.Number,
            OperandKind.Text => string.Equals(one.Text, other.Text, StringComparison.Ordinal),
            _ => false,
        };

    private static bool Includes(in Operand set, in Operand keys, bool all)
    {
        var found = set.Keys ?? [set.Text];
        foreach (var key in keys.Keys ?? [keys.Text])
        {
            if (Array.IndexOf(found, key) >= 0 != all)
            {
                return !all;
            }
        }

        return all;
    }

    private bool StageHolds(in ClauseCode code)
    {
        for (var i = 0; i < code.ComparandCount; i++)
        {
            var position = stagePositions[(int)Comparand(in code, i).Number];
            var holds = position >= 0 && stage >= 0 && code.Op switch
            {
                ClauseOp.StageIs => stage == position,
                ClauseOp.StageBefore => stage < position,
                ClauseOp.StageAfter => stage > position,
                _ => stage >= position,
            };
            if (holds)
            {
                return true;
            }
        }

        return false;
    }

    private bool AnyHolds(in ClauseCode code)
    {
        for (var i = 0; i < code.ComparandCount; i++)
        {
            if (Compare(code.Op, in operands[code.Slot], in Comparand(in code, i)))
            {
                return true;
            }
        }

        return false;
    }

    private bool AllHold(in ClauseCode code)
    {
        for (var i = 0; i < code.ComparandCount; i++)
        {
            if (!Compare(code.Op, in operands[code.Slot], in Comparand(in code, i)))
            {
                return false;
            }
        }

        return true;
    }

    private bool AreFilledIn(in ClauseCode code)
    {
        for (var i = 0; i < code.ComparandCount; i++)
        {
            if (Comparand(in code, i).Kind == OperandKind.Blank)
            {
                return false;
            }
        }

        return operands[code.Slot].Kind != OperandKind.Blank;
    }

    private ref readonly Operand Comparand(in ClauseCode code, int i)
    {
        var place = comparands[code.ComparandStart + i];
        return ref place >= 0 ? ref operands[place] : ref literals[~place];
    }
}
