using System.Collections.Immutable;
using System.Text.Json;
using Dibujo.Core.Csv;

namespace Dibujo.Server.Exchange;

/// <summary>What came of an import, as it is kept for a day.</summary>
/// <param name="Report">What came of its rows.</param>
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

    /// <summary>It as a whole, without its rows.</summary>
    internal string Short => JsonSerializer.Serialize(this with { Report = Report is null ? null : Report with { Rows = [] }, Headers = [], Refused = [] }, Options);

    /// <summary>All of it.</summary>
    internal string Long => JsonSerializer.Serialize(this, Options);

    /// <summary>As it was written; what says nothing where it was not.</summary>
    internal static ImportOutcome Of(string? json) => (json is null ? null : JsonSerializer.Deserialize<ImportOutcome>(json, Options)) ?? new(null, null);
}

/// <summary>A row that was refused, as it came.</summary>
/// <param name="Line">The line of the file on which it begins.</param>
/// <param name="Cells">What stood in it.</param>
internal sealed record RefusedCells(int Line, ImmutableArray<string> Cells);
