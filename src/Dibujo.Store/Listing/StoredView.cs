namespace Dibujo.Store.Listing;

/// <summary>How somebody wants to see a list: columns, their widths, filter and order, under a name.</summary>
public sealed class StoredView
{
    /// <summary>Number of the view.</summary>
    public int Id { get; init; }

    /// <summary>Key of the record type whose records are listed.</summary>
    public required string RecordType { get; init; }

    /// <summary>Account name of whose view it is.</summary>
    public required string Owner { get; init; }

    /// <summary>What it is called; empty for how its owner left the list last.</summary>
    public required string Name { get; set; }

    /// <summary>Whether everybody may use it.</summary>
    public bool IsShared { get; set; }

    /// <summary>What it shows, as JSON that the list itself writes and reads.</summary>
    public required string Layout { get; set; }
}
