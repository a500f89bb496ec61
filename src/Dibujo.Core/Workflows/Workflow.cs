using System.Collections.Immutable;

namespace Dibujo.Core.Workflows;

/// <summary>Ordered stages and the moves between them.</summary>
public sealed record Workflow(string Key, string Label, ImmutableArray<Stage> Stages, ImmutableArray<Move> Moves)
{
    /// <summary>Where the stage stands in this workflow's order, from 0; -1 when this workflow lacks it.</summary>
    public int Position(string stage)
    {
        for (var i = 0; i < Stages.Length; i++)
        {
            if (string.Equals(Stages[i].Key, stage, StringComparison.Ordinal))
            {
                return i;
            }
        }

        return -1;
    }

    /// <summary>The moves that lead away from the stage, whoever may make them.</summary>
    public IEnumerable<Move> From(string stage) => Moves.Where(m => string.Equals(m.From, stage, StringComparison.Ordinal));
}

/// <summary>A station on a record's way. The same key in two workflows is the same stage.</summary>
public sealed record Stage(string Key, string Label);

/// <summary>A step from one stage to another.</summary>
/// <param name="Key">Unique within the workflow.</param>
/// <param name="Label">What the button says.</param>
/// <param name="From">Key of the stage it leaves.</param>
/// <param name="To">Key of the stage it enters.</param>
public sealed record Move(string Key, string Label, string From, string To)
{
    /// <summary>Who may make it; empty: everyone who may edit the record.</summary>
    public ImmutableArray<string> Roles { get; init => field = value.OrEmpty(); } = [];

    /// <summary>Whether a person with these roles may make the move.</summary>
    public bool IsOpenTo(IEnumerable<string> roles) => Roles.IsEmpty || Roles.Intersect(roles, StringComparer.Ordinal).Any();
}
