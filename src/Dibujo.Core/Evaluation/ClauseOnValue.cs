using System.Collections.Immutable;
using Dibujo.Core.Compilation;
using Dibujo.Core.Conditions;
using Dibujo.Core.Records;
using Dibujo.Core.Values;

namespace Dibujo.Core.Evaluation;

/// <summary>Decides a test with fixed comparands on a value at hand, without a session.</summary>
internal static class ClauseOnValue
{
    /// <param name="subject">Whose value it is.</param>
    /// <param name="test">What is asked.</param>
    /// <param name="comparands">Literals, as many as the test takes.</param>
    /// <param name="value">A value of the subject's type; for a stage, its key as a choice.</param>
    /// <param name="type">Where the stages and types are found.</param>
    internal static bool Holds(Subject subject, Test test, ImmutableArray<Comparand> comparands, Value value, RecordType type)
    {
        var subjectType = new SubjectTypes(type).Of(subject)!;
        var (op, negated) = ClauseTable.Op(subject, test);
        var operand = Operand.Of(value);
        Operand[] others = [.. comparands.OfType<Literal>().Select(l => Operand.Of(subjectType.Fit(l.Value) ?? Value.Blank))];
        var holds = op switch
        {
            ClauseOp.Complete => subjectType.IsComplete(value),
            ClauseOp.Changed => false,
            >= ClauseOp.StageIs => comparands.OfType<Literal>().Any(l => StageHolds(op, value.Plain, l.Value.Plain, type)),
            _ => OperandTest.Holds(op, operand, others),
        };
        return holds != negated;
    }

    /// <summary>Whether it holds in some workflow that has both stages.</summary>
    private static bool StageHolds(ClauseOp op, string stage, string comparand, RecordType type) => type.Workflows.Any(workflow =>
        (workflow.Position(stage), workflow.Position(comparand)) is ( >= 0, >= 0) and var (here, there) && op switch
        {
            ClauseOp.StageIs => here == there,
            ClauseOp.StageBefore => here < there,
            ClauseOp.StageAfter => here > there,
            _ => here >= there,
        });
}
