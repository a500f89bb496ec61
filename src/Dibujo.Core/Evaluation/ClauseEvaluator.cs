using Dibujo.Core.Compilation;

namespace Dibujo.Core.Evaluation;

/// <summary>Decides single clauses. Every test here is positive: false on a blank subject or with a blank comparand.</summary>
internal sealed class ClauseEvaluator(ClauseTable clauses, Operand[] operands)
{
    private int[] stagePositions = [];
    private int stage = -1;
    private bool[] roles = [];

    /// <summary>Tells which workflow's order counts, at which of its positions the record is (-1: none), and which roles the person has.</summary>
    internal void SetSetting(int[] positions, int position, bool[] has)
    {
        stagePositions = positions;
        stage = position;
        roles = has;
    }

    internal bool Holds(int clause)
    {
        var code = clauses.Codes[clause];
        return code.Op switch
        {
            ClauseOp.FilledIn => operands[code.Slot].Kind != OperandKind.Blank,
            ClauseOp.HasRole => HasAnyRole(code),
            >= ClauseOp.StageIs and <= ClauseOp.StageFrom => StageHolds(code),
            ClauseOp.OneOf => AnyEqual(code, operands[code.Slot]),
            _ => Compares(code, operands[code.Slot]),
        };
    }

    private bool StageHolds(ClauseCode code)
    {
        for (var i = 0; i < code.ComparandCount; i++)
        {
            var position = stagePositions[(int)Comparand(code, i).Number];
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

    private bool AnyEqual(ClauseCode code, Operand subject)
    {
        for (var i = 0; i < code.ComparandCount; i++)
        {
            if (AreEqual(subject, Comparand(code, i)))
            {
                return true;
            }
        }

        return false;
    }

    private bool HasAnyRole(ClauseCode code)
    {
        for (var i = 0; i < code.ComparandCount; i++)
        {
            if (roles[(int)Comparand(code, i).Number])
            {
                return true;
            }
        }

        return false;
    }

    private bool Compares(ClauseCode code, Operand subject)
    {
        var comparand = Comparand(code, 0);
        if (subject.Kind == OperandKind.Blank || comparand.Kind == OperandKind.Blank)
        {
            return false;
        }

        return code.Op switch
        {
            ClauseOp.Equal => AreEqual(subject, comparand),
            ClauseOp.Contains => subject.Text.Contains(comparand.Text, StringComparison.Ordinal),
            ClauseOp.StartsWith => subject.Text.StartsWith(comparand.Text, StringComparison.Ordinal),
            ClauseOp.Less => subject.Number < comparand.Number,
            ClauseOp.AtMost => subject.Number <= comparand.Number,
            ClauseOp.AtLeast => subject.Number >= comparand.Number,
            ClauseOp.More => subject.Number > comparand.Number,
            _ => Comparand(code, 1) is { Kind: not OperandKind.Blank } upper
                && subject.Number >= comparand.Number && subject.Number <= upper.Number,
        };
    }

    private static bool AreEqual(Operand one, Operand other) =>
        one.Kind == other.Kind && one.Kind switch
        {
            OperandKind.Number => one.Number == other.Number,
            OperandKind.Text => string.Equals(one.Text, other.Text, StringComparison.Ordinal),
            _ => false,
        };

    private Operand Comparand(ClauseCode code, int i)
    {
        var place = clauses.Comparands[code.ComparandStart + i];
        return place >= 0 ? operands[place] : clauses.Literals[~place];
    }
}
