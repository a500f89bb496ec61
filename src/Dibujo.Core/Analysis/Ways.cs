using System.Collections.Immutable;
using Dibujo.Core.Workflows;

namespace Dibujo.Core.Analysis;

/// <summary>Where the moves of a workflow lead, whoever may make them and whatever rules ask for.</summary>
/// <param name="Unreached">Keys of the stages to which no way leads from the first.</param>
/// <param name="Stuck">Keys of the stages from which no way leads to an end: to the last stage, or to one that no move leaves.</param>
public sealed record Ways(ImmutableArray<string> Unreached, ImmutableArray<string> Stuck)
{
    /// <summary>The ways of one workflow; moves from or to a stage that it lacks lead nowhere.</summary>
    public static Ways Of(Workflow workflow)
    {
        var stages = workflow.Stages.Select(stage => stage.Key).ToList();
        var steps = workflow.Moves.Where(move => stages.Contains(move.From) && stages.Contains(move.To)).Select(move => (move.From, move.To)).ToList();
        var reached = From(stages.Take(1), steps);
        var ends = stages.Except(steps.Select(step => step.From), StringComparer.Ordinal).Concat(stages.TakeLast(1));
        var ending = From(ends, steps.Select(step => (step.To, step.From)));
        return new([.. stages.Where(stage => !reached.Contains(stage))], [.. stages.Where(stage => !ending.Contains(stage))]);
    }

    private static HashSet<string> From(IEnumerable<string> starts, IEnumerable<(string From, string To)> steps)
    {
        var next = steps.ToLookup(step => step.From, step => step.To, StringComparer.Ordinal);
        var found = new HashSet<string>(starts, StringComparer.Ordinal);
        var waiting = new Queue<string>(found);
        while (waiting.TryDequeue(out var stage))
        {
            foreach (var other in next[stage].Where(found.Add))
            {
                waiting.Enqueue(other);
            }
        }

        return found;
    }
}
