using Dibujo.Core.Operands;
using Dibujo.Core.Programs;

namespace Dibujo.Core.Evaluation;

/// <summary>Decides clauses one by one, as they stand; none is negated here.</summary>
internal sealed class ClauseEvaluator(ClauseTable clauses, SlotValues slots)
{
    private readonly ClauseCode[] codes = clauses.Codes;
    private readonly int[] comparands = clauses.Comparands;
    private readonly Operand[] literals = clauses.Literals;

    internal bool Holds(int clause)
    {
        ref readonly var code = ref codes[clause];
        switch (code.Op)
        {
            case ClauseOp.FilledIn:
                return slots.OperandOf(code.Slot).Kind != OperandKind.Blank;
            case ClauseOp.Complete:
                return AreFilledIn(in code);
            case ClauseOp.Changed:
                return !slots[code.Slot].Equals(slots[comparands[code.ComparandStart]]);
            case >= ClauseOp.StageIs:
                return StageHolds(in code);
            case ClauseOp.OneOf or ClauseOp.IncludesAny:
                return AnyHolds(in code);
            case ClauseOp.IncludesAll:
                return AllHold(in code);
            case ClauseOp.Between:
                return OperandTest.Holds(ClauseOp.AtLeast, in slots.OperandOf(code.Slot), in Comparand(in code, 0))
                    && OperandTest.Holds(ClauseOp.AtMost, in slots.OperandOf(code.Slot), in Comparand(in code, 1));
            default:
                return OperandTest.Holds(code.Op, in slots.OperandOf(code.Slot), in Comparand(in code, 0));
        }
    }

    private bool StageHolds(in ClauseCode code)
    {
        for (var i = 0; i < code.ComparandCount; i++)
        {
            var position = slots.StagePositions[(int)Comparand(in code, i).Number];
            var stage = slots.StagePosition;
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
            if (OperandTest.Holds(code.Op, in slots.OperandOf(code.Slot), in Comparand(in code, i)))
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
            if (!OperandTest.Holds(code.Op, in slots.OperandOf(code.Slot), in Comparand(in code, i)))
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

        return slots.OperandOf(code.Slot).Kind != OperandKind.Blank;
    }

    private ref readonly Operand Comparand(in ClauseCode code, int i)
    {
        var place = comparands[code.ComparandStart + i];
        return ref place >= 0 ? ref slots.OperandOf(place) : ref literals[~place];
    }
}
