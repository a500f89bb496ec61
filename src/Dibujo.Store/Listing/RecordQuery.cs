using System.Collections.Immutable;
using Dibujo.Core.Listing;
using Dibujo.Core.Records;

namespace Dibujo.Store.Listing;

/// <summary>Which records of a type are wanted, in which order.</summary>
/// <param name="Type">The record type as the edition in force has it.</param>
/// <param name="Filter">Which; null for all.</param>
/// <param name="Search">What one of their texts contains; null for anything.</param>
/// <param name="SortBy">Key of the column by which they are sorted: see <see cref="ListColumn"/>.</param>
/// <param name="Descending">Whether the last comes first. What is blank comes last either way.</param>
public sealed record RecordQuery(RecordType Type, Filter? Filter = null, string? Search = null, string SortBy = ListColumn.ChangedAt, bool Descending = false)
{
    /// <summary>The site's time, in which days and moments are asked for: records are saved by UTC.</summary>
    public TimeZoneInfo Zone { get; init; } = TimeZoneInfo.Utc;

    /// <summary>The fields whose texts are searched.</summary>
    internal IEnumerable<string> Searched => Type.Fields.Where(one => one.Type is TextType or LongTextType or CompoundType).Select(one => one.Key);
}

/// <summary>Some records in the order of a query.</summary>
/// <param name="Ids">Their numbers.</param>
/// <param name="Next">From where the next ones go on; null where these are the last.</param>
public sealed record QueriedRecords(ImmutableArray<int> Ids, string? Next);

/// <summary>How many records a query finds.</summary>
/// <param name="Records">How many.</param>
/// <param name="Tallies">By column, how many hold which choice, by the choice's folded key.</param>
public sealed record RecordCounts(int Records, ImmutableDictionary<string, ImmutableDictionary<string, int>> Tallies);
