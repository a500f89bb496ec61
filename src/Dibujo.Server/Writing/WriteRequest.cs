using System.Collections.Immutable;
using Dibujo.Core.Values;

namespace Dibujo.Server.Writing;

/// <summary>What somebody asks to be written.</summary>
/// <param name="By">Who asks, and by which way.</param>
/// <param name="Changes">The changed fields with their new values, bare as they came.</param>
/// <param name="Move">Key of the move to be made with it; null for none.</param>
/// <param name="Form">Key of the form through which it comes; null for the first that applies.</param>
internal abstract record WriteRequest(Author By, ImmutableDictionary<string, Value> Changes, string? Move, string? Form)
{
    /// <summary>By which the sender knows it: where it comes once more, since the answer was lost, nothing is done twice. Null for one that is never sent again.</summary>
    public Guid? Ticket { get; init; }

    /// <summary>The import by which it comes; null for any other way.</summary>
    public Guid? Import { get; init; }
}

/// <summary>A record to be begun, in a workflow by its key; null for the record type's first.</summary>
internal sealed record RecordToBegin(Author By, ImmutableDictionary<string, Value> Changes, string? Workflow = null, string? Move = null, string? Form = null)
    : WriteRequest(By, Changes, Move, Form);

/// <summary>A record to be changed, moved on, or both: by its number, with the version on which the changes were made.</summary>
internal sealed record RecordToSave(Author By, int Record, int Version, ImmutableDictionary<string, Value> Changes, string? Move = null, string? Form = null)
    : WriteRequest(By, Changes, Move, Form);
