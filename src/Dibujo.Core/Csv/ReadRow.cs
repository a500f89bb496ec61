using System.Collections.Immutable;
using Dibujo.Core.Records;
using Dibujo.Core.Values;
using Dibujo.Core.Workflows;

namespace Dibujo.Core.Csv;

/// <summary>A row as it was read.</summary>
/// <param name="Line">The line of the file on which it begins, from 1.</param>
/// <param name="Id">The record's number; null for a record to be begun.</param>
/// <param name="Version">The version that the record had when the file was made; null where the file does not say.</param>
/// <param name="Workflow">Key of the workflow, where the file names it.</param>
/// <param name="Stage">Key of the stage, where the file names it.</param>
/// <param name="Values">The values of all columns that are there.</param>
/// <param name="Mistakes">What in it cannot be read, each as a sentence.</param>
public sealed record ReadRow(
    int Line, int? Id, int? Version, string? Workflow, string? Stage, ImmutableDictionary<string, Value> Values, ImmutableArray<string> Mistakes)
{
    /// <summary>Its cells as they came.</summary>
    public ImmutableArray<string> Cells { get; init => field = value.OrEmpty(); } = [];

    /// <summary>Whether its record is to be removed: so a row that began one is taken back. No file can say that.</summary>
    public bool Removes { get; init; }

    /// <summary>The values of the cells that are not blank. In a record that is begun a blank cell says nothing, so that defaults stay.</summary>
    public ImmutableDictionary<string, Value> Filled => Values.Where(v => !v.Value.IsBlank).ToImmutableDictionary(StringComparer.Ordinal);

    /// <summary>The workflow that the row names, or the record type's first; null for one that it does not have.</summary>
    public Workflow? WorkflowIn(RecordType type) => Workflow is null ? type.Workflows[0] : type.FindWorkflow(Workflow);

    /// <summary>What speaks against the workflow and stage that it names, as a sentence; null for nothing.</summary>
    /// <param name="type">The record type.</param>
    /// <param name="stored">Keys of the workflow and stage in which the record is; null for a record that is begun.</param>
    public string? Misplaced(RecordType type, (string Workflow, string Stage)? stored)
    {
        if (WorkflowIn(type) is not { } named)
        {
            return $"There is no workflow “{Workflow}”. Name one of the record type, or leave it blank.";
        }

        if (stored is var (workflow, stage))
        {
            return (Workflow is not null && Workflow != workflow) || (Stage is not null && Stage != stage)
                ? $"The record is at the stage {Label(stage)}, not {Label(Stage ?? stage)}{(Workflow is null || Workflow == workflow ? "" : " of another workflow")}. An import does not move records: leave the stage blank."
                : null;
        }

        return Stage is null || Stage == named.Stages[0].Key ? null
            : named.Position(Stage) < 0 ? $"{named.Label} has no stage “{Stage}”. Name one of its stages."
            : $"A record begins at the stage {named.Stages[0].Label} and comes to {Label(Stage)} by moves. Leave the stage blank.";

        string Label(string key) => type.FindStage(key)?.Label ?? $"“{key}”";
    }
}
