using System.Collections.Immutable;
using Dibujo.Core.Records;
using Dibujo.Core.Rules;
using Dibujo.Core.Workflows;

namespace Dibujo.Core.Reshaping;

/// <summary>Takes a stage out of a workflow. Moves that led to it lead to the stage in its place; those that led away from it go.</summary>
/// <remarks>Rules that name the stage are left as they are, to be mended by whoever knows what they are for; the check names them.</remarks>
internal static class StageRemoval
{
    internal static Definition Of(Definition definition, StageRemoved removed)
    {
        var type = definition.RecordType with
        {
            Workflows = [.. definition.RecordType.Workflows.Select(workflow => workflow.Key == removed.Workflow ? Of(workflow, removed) : workflow)],
        };
        return definition with
        {
            // A workflow that still has the stage keeps its other words as well.
            RecordType = type with { OtherWords = [.. type.OtherWords.Select(word => word.Stage == removed.From && type.FindStage(removed.From) is null ? word with { Stage = removed.To } : word)] },
            Examples = [.. definition.Examples.Select(example => example.Setting.Workflow == removed.Workflow && example.Setting.Stage == removed.From
                ? example with { Setting = example.Setting with { Stage = removed.To } }
                : example)],
        };
    }

    private static Workflow Of(Workflow workflow, StageRemoved removed)
    {
        var moves = ImmutableArray.CreateBuilder<Move>();
        foreach (var move in workflow.Moves.Where(move => move.From != removed.From))
        {
            var then = move.To == removed.From ? move with { To = removed.To } : move;
            var isParallel = then != move && workflow.Moves.Any(other => (other.From, other.To) == (then.From, then.To));
            if (then.From != then.To && !isParallel)
            {
                moves.Add(then);
            }
        }

        return workflow with { Stages = [.. workflow.Stages.Where(stage => stage.Key != removed.From)], Moves = moves.ToImmutable() };
    }
}
