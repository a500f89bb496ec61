using System.Collections.Immutable;
using Dibujo.Core.Conditions;
using Dibujo.Core.Operands;
using Dibujo.Core.Records;
using Dibujo.Core.Values;

namespace Dibujo.Core.Checking;

/// <summary>A test whose comparands are all fixed, prepared to be asked about many values, without a session.</summary>
internal sealed class FixedTest
{
    private readonly FieldType type;
    private readonly ClauseOp op;
    private readonly bool isNegated;
    private readonly ImmutableArray<Value> comparands;
    private readonly Operand[] operands;

    internal FixedTest(Subject subject, FieldType type, Test test, ImmutableArray<Comparand> comparands)
    {
        this.type = type;
        Subject = subject;
        Test = test;
        (op, isNegated) = ClauseOps.Of(subject, test);
        this.comparands = [.. comparands.Cast<Literal>().Select(literal => type.Fit(literal.Value) ?? Value.Blank)];
        operands = [.. this.comparands.Select(Operand.Of)];
    }

    internal Subject Subject { get; }

    internal Test Test { get; }

    /// <summary>What the value is compared with.</summary>
    internal ImmutableArray<Value> Comparands => comparands;

    internal bool Holds(Candidate candidate) => isNegated != op switch
    {
        ClauseOp.Complete => type.IsComplete(candidate.Value),
        ClauseOp.Changed => candidate.HasChanged,
        >= ClauseOp.StageIs => comparands.Any(comparand => StageHolds(candidate.Position, candidate.In!.Position(comparand.Plain))),
        // Asked about every cell of long tables.
        not ClauseOp.FilledIn when operands.Length == 1 => OperandTest.Holds(op, candidate.Operand, operands[0]),
        _ => OperandTest.Holds(op, candidate.Operand, operands),
    };

    private bool StageHolds(int here, int there) => here >= 0 && there >= 0 && op switch
    {
        ClauseOp.StageIs => here == there,
        ClauseOp.StageBefore => here < there,
        ClauseOp.StageAfter => here > there,
        _ => here >= there,
    };
}
