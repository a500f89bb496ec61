using Dibujo.Core.Operands;
using Dibujo.Core.Values;
using Dibujo.Core.Workflows;

namespace Dibujo.Core.Checking;

/// <summary>A value that might pass a test.</summary>
/// <param name="Value">A value of the subject's type; for a stage, its key as a choice.</param>
/// <param name="In">For a stage, the workflow by whose order it compares.</param>
/// <param name="HasChanged">Whether it is another than was saved.</param>
internal sealed record Candidate(Value Value, Workflow? In = null, bool HasChanged = false)
{
    internal Operand Operand { get; } = Operand.Of(Value);

    internal int Position { get; } = In?.Position(Value.Plain) ?? -1;
}
