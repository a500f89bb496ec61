using System.Collections.Immutable;
using System.Text.Json;
using Dibujo.Core.Csv;

namespace Dibujo.Server.Exchange;

/// <summary>What came of an import, as it is kept for a day.</summary>
/// <param name="Report">What came of its rows; of those that were taken in only how many they were.</param>
/// <param name="Failure">Why it ended before it was through.</param>
internal sealed record ImportOutcome(ImportReport? Report, string? Failure)
{
    private static readonly JsonSerializerOptions Options = new(JsonSerializerDefaults.Web);

    /// <summary>The first row of the file.</summary>
    public ImmutableArray<string> Headers { get; init => field = value.IsDefault ? [] : value; } = [];

    /// <summary>The rows that were refused as they came.</summary>
    public ImmutableArray<RefusedCells> Refused { get; init => field = value.IsDefault ? [] : value; } = [];

    /// <summary>The encoding in which the file was taken to be, where it does not say so itself.</summary>
    public string? Encoding { get; init; }

    internal string Json => JsonSerializer.Serialize(
        Report is null ? this : this with { Report = Report with { Rows = [.. Report.Rows.Where(row => !row.Reasons.IsEmpty)] } }, Options);

    internal static ImportOutcome Of(string? json) => (json is null ? null : JsonSerializer.Deserialize<ImportOutcome>(json, Options)) ?? new(null, null);
}

/// <summary>A row that was refused, as it came.</summary>
/// <param name="Line">The line of the file on which it begins.</param>
/// <param name="Cells">What stood in it.</param>
internal sealed record RefusedCells(int Line, ImmutableArray<string> Cells);
