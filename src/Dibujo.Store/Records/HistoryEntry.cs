using Dibujo.Core.Values;

namespace Dibujo.Store.Records;

/// <summary>One save of a record: who, when, and what was before and after. Only ever added, but for records that an import began and that are taken back with it.</summary>
public sealed class HistoryEntry
{
    /// <summary>Number of the entry.</summary>
    public int Id { get; init; }

    /// <summary>Number of the record that was saved.</summary>
    public int RecordId { get; init; }

    /// <summary>The record that was saved, where it is at hand: a new one has no number until it is stored along with this.</summary>
    public StoredRecord? Record { get; init; }

    /// <summary>The version that came of it.</summary>
    public required int Version { get; init; }

    /// <summary>Who saved it.</summary>
    public required string By { get; init; }

    /// <summary>When, in UTC.</summary>
    public required DateTime At { get; init; }

    /// <summary>The edition under which it was saved.</summary>
    public required int Edition { get; init; }

    /// <summary>Values of the changed fields before; a field that is missing was blank.</summary>
    public required RecordValues Before { get; init; }

    /// <summary>Values of the changed fields after; a field that is missing is blank.</summary>
    public required RecordValues After { get; init; }

    /// <summary>By which way it came, as a channel's key; null for what no person or program asked for, and for what is older than this note.</summary>
    public string? Channel { get; init; }

    /// <summary>Key of the form through which it came; null where it came through none.</summary>
    public string? Form { get; init; }

    /// <summary>
    /// By which whoever asked for it knows the request: one whose answer was lost is sent again, and answered as it was then. Null where it
    /// did not say.
    /// </summary>
    public Guid? Ticket { get; init; }

    /// <summary>The import that it came by; null for any other way.</summary>
    public Guid? Import { get; init; }

    /// <summary>The stage before.</summary>
    public required string FromStage { get; init; }

    /// <summary>The stage after.</summary>
    public required string ToStage { get; init; }
}
