using System.Collections.Immutable;

namespace Dibujo.Core.Evaluation;

/// <summary>Everything that a condition may look at beside the values.</summary>
/// <param name="Workflow">Key of the workflow that the record is in.</param>
/// <param name="Stage">Key of the stage that it is in.</param>
/// <param name="IsNew">Whether the record has never been saved.</param>
/// <param name="Move">Key of the move that is being attempted; null where none is.</param>
public sealed record Setting(
    string Workflow, string Stage, bool IsNew = false, string? Move = null)
{
    /// <summary>Keys of the roles of the person who looks at the record.</summary>
    public ImmutableArray<string> Roles { get; init => field = value.OrEmpty(); } = [];
}
