using System.Collections.Immutable;
using Dibujo.Core.Records;
using Dibujo.Core.Values;
using Dibujo.Core.Workflows;

namespace Dibujo.Core.Exchange;

/// <summary>A row as it was read.</summary>
/// <param name="Line">The line of the file on which it begins, from 1.</param>
/// <param name="Id">The record's number; null for a record to be begun.</param>
/// <param name="Workflow">Key of the workflow, where the file names it.</param>
/// <param name="Stage">Key of the stage, where the file names it; a record that is imported comes to a stage by moves all the same.</param>
/// <param name="Values">The values of all columns that are there.</param>
/// <param name="Mistakes">What in it cannot be read, each as a sentence.</param>
public sealed record ReadRow(
    int Line, int? Id, string? Workflow, string? Stage, ImmutableDictionary<string, Value> Values, ImmutableArray<string> Mistakes)
{
    /// <summary>The values of the cells that are not blank. In a record that is begun a blank cell says nothing, so that defaults stay.</summary>
    public ImmutableDictionary<string, Value> Filled => Values.Where(v => !v.Value.IsBlank).ToImmutableDictionary(StringComparer.Ordinal);

    /// <summary>The workflow that the row names, or the record type's first; null for one that it does not have.</summary>
    public Workflow? WorkflowIn(RecordType type) => Workflow is null ? type.Workflows[0] : type.FindWorkflow(Workflow);
}
