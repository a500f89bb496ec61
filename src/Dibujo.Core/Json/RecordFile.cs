using System.Collections.Immutable;
using Dibujo.Core.Records;
using Dibujo.Core.Values;

namespace Dibujo.Core.Json;

/// <summary>A record as a file, to be evaluated under a pack.</summary>
/// <param name="Setting">Stage, roles and so on; where it names no moment, the present one is meant.</param>
/// <param name="Values">Saved values by field key.</param>
/// <param name="Changes">Unsaved changes by field key.</param>
/// <param name="Form">Key of the form; null for the main form.</param>
public sealed record RecordFile(
    Setting Setting,
    ImmutableDictionary<string, Value> Values,
    ImmutableDictionary<string, Value>? Changes = null,
    string? Form = null)
{
    /// <summary>The records to which its links lead, as far as rules look at them.</summary>
    public ImmutableArray<GivenRecord> Linked { get; init => field = value.OrEmpty(); } = [];
}
