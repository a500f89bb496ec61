using System.Collections.Immutable;
using Dibujo.Core.Notations;

namespace Dibujo.Core.Csv;

/// <summary>A table of records as it was read.</summary>
/// <param name="Rows">Its rows; none where it cannot be read.</param>
/// <param name="Mistake">What keeps it from being read, and how to mend that; null for nothing.</param>
public sealed record RowsRead(ImmutableArray<ReadRow> Rows, string? Mistake)
{
    /// <summary>The encoding in which it was taken to be, where the file does not say so itself; null where it does.</summary>
    public string? Encoding { get; init; }

    /// <summary>The first row, which names the columns.</summary>
    public ImmutableArray<string> Headers { get; init => field = value.OrEmpty(); } = [];

    internal static RowsRead No(string mistake) => new([], mistake);
}

/// <summary>How a table is read, or written for people.</summary>
/// <param name="Notation">How whoever sends it writes, or whoever asks for it.</param>
/// <param name="Names">What people and records are called.</param>
/// <param name="Today">The day on which it is read.</param>
public sealed record TableReading(Notation Notation, IKnownNames Names, DateOnly Today)
{
    /// <summary>Of whoever says nothing of how they write.</summary>
    public static readonly TableReading Plain = new(Notation.Plain, NoNames.Instance, new(2000, 1, 1));
}
