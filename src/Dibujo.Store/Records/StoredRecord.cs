using Dibujo.Core.Values;

namespace Dibujo.Store.Records;

/// <summary>A record as it was last saved.</summary>
public sealed class StoredRecord
{
    /// <summary>Number by which people refer to it.</summary>
    public int Id { get; init; }

    /// <summary>Key of its record type.</summary>
    public required string RecordType { get; init; }

    /// <summary>Key of its workflow.</summary>
    public required string Workflow { get; init; }

    /// <summary>Key of the stage that it is in.</summary>
    public required string Stage { get; set; }

    /// <summary>What it is called in lists; a copy of its title field.</summary>
    public required string Title { get; set; }

    /// <summary>Its values, bare as in JSON: to be fitted to the record type's fields.</summary>
    public required RecordValues Values { get; set; }

    /// <summary>How it stood when it was last looked at: see <see cref="Core.Listing.Standing"/>.</summary>
    public RecordValues Standing { get; set; } = RecordValues.Empty;

    /// <summary>Number of the edition under which it was looked at; 0 for none.</summary>
    public int StandingEdition { get; set; }

    /// <summary>The day on which it was looked at, by the site's clock.</summary>
    public DateOnly StandingDay { get; set; }

    /// <summary>Counts its saves; a save based on another version is refused.</summary>
    public int Version { get; set; } = 1;

    /// <summary>When it was last saved, in UTC.</summary>
    public required DateTime ChangedAt { get; set; }

    /// <summary>Who saved it last.</summary>
    public required string ChangedBy { get; set; }
}
