using System.Collections.Immutable;
using System.Text.Json.Serialization;

namespace Dibujo.Core.Csv;

/// <summary>What came of importing records.</summary>
public sealed record ImportReport(int Imported, int Refused, ImmutableArray<RowReport> Rows)
{
    /// <summary>
    /// Where the file does not say from which versions its rows were made: the records among them that were changed last,
    /// each in words. Their later saves would be overwritten.
    /// </summary>
    public ImmutableArray<string> Latest { get; init => field = value.OrEmpty(); } = [];

    /// <summary>How many rows at the end of the file were not come to, since the import was ended before.</summary>
    public int NotReached { get; init; }

    /// <summary>Why it was ended before its end, as a sentence; null where it was not.</summary>
    public string? Ended { get; init; }

    /// <summary>Counts the rows that were come to.</summary>
    public static ImportReport Of(IEnumerable<RowReport> rows)
    {
        ImmutableArray<RowReport> all = [.. rows];
        return new(all.Count(r => r.Reasons.IsEmpty), all.Count(r => !r.Reasons.IsEmpty), all);
    }
}

/// <summary>What came of one row: the record it became, or all reasons why not.</summary>
public sealed record RowReport(int Line, int? Record, ImmutableArray<string> Reasons)
{
    /// <summary>What it does to its record; null for a row that is refused.</summary>
    public RowFate? Fate { get; init; }
}

/// <summary>What a row does to its record.</summary>
[JsonConverter(typeof(CamelCaseEnum<RowFate>))]
public enum RowFate
{
    /// <summary>It begins it.</summary>
    Begins,

    /// <summary>It changes it.</summary>
    Changes,

    /// <summary>It says what the record says already.</summary>
    Leaves,

    /// <summary>It takes it back.</summary>
    Removes,
}
