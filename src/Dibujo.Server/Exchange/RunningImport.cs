using System.Collections.Immutable;
using System.Security.Claims;
using Dibujo.Core.Csv;
using Dibujo.Store.Auditing;
using Dibujo.Store.Records;

namespace Dibujo.Server.Exchange;

/// <summary>An import on its way, or through.</summary>
/// <param name="id">By which it is asked for.</param>
/// <param name="recordType">Key of the record type.</param>
/// <param name="by">Whose records they are.</param>
/// <param name="table">What is taken in.</param>
/// <param name="isTrial">Whether nothing is stored.</param>
/// <param name="entry">What is noted of it once it is through.</param>
/// <param name="cancellation">Ends it before it is through; what has been stored by then stays.</param>
internal sealed class RunningImport(Guid id, string recordType, ClaimsPrincipal by, RowsRead table, bool isTrial, AuditEntry entry, CancellationTokenSource cancellation)
{
    internal Guid Id => id;

    internal string RecordType => recordType;

    internal ClaimsPrincipal By => by;

    /// <summary>The rows as they came: all while it goes on, and those that were refused once it is through.</summary>
    internal RowsRead Table { get; private set; } = table;

    internal bool IsTrial => isTrial;

    /// <summary>How many rows there are.</summary>
    internal int Rows { get; init; } = table.Rows.Length;

    /// <summary>When it was begun, in UTC.</summary>
    internal DateTime BegunAt { get; init; }

    /// <summary>The import that is taken back by it; null for one from a file.</summary>
    internal Guid? TakesBack { get; init; }

    internal AuditEntry Entry => entry;

    internal CancellationTokenSource Cancellation => cancellation;

    /// <summary>What takes the rows in, once that has begun.</summary>
    internal RecordImport? Work { get; set; }

    /// <summary>What came of it, once it is through.</summary>
    internal ImportReport? Report { get; set; }

    /// <summary>Why it ended before it was through, as a sentence.</summary>
    internal string? Failure { get; set; }

    /// <summary>When it was through, in UTC; null while it goes on.</summary>
    internal DateTime? ThroughAt { get; set; }

    /// <summary>Whether the store tells of it by now.</summary>
    internal bool IsKept { get; set; }

    /// <summary>How many rows have been stored, as far as it is known here.</summary>
    internal int Stored { get; init; }

    /// <summary>The cells of the rows that were refused, once it is through.</summary>
    internal ImmutableArray<RefusedCells> RefusedCells => [.. Table.Rows.Select(row => new RefusedCells(row.Line, row.Cells))];

    /// <summary>An import that is through, as it is kept.</summary>
    internal static RunningImport Of(StoredImport stored, ClaimsPrincipal by)
    {
        var outcome = ImportOutcome.Of(stored.Details ?? stored.Outcome);
        var refused = outcome.Refused.Select(row => new ReadRow(row.Line, null, null, null, null, ImmutableDictionary<string, Core.Values.Value>.Empty, []) { Cells = row.Cells });
        var entry = new AuditEntry { At = stored.BegunAt, Event = AuditEvent.RecordsImported, Who = stored.By, About = "" };
        return new(stored.Id, stored.RecordType, by, new([.. refused], null) { Headers = outcome.Headers, Encoding = outcome.Encoding }, false, entry, new())
        {
            Rows = stored.Rows,
            BegunAt = stored.BegunAt,
            TakesBack = stored.TakesBack,
            Report = outcome.Report,
            Failure = outcome.Failure,
            ThroughAt = stored.ThroughAt,
            Stored = stored.Stored,
        };
    }

    /// <summary>Forgets the rows but for those that were refused, which are handed out as they came.</summary>
    internal void KeepRefused(ImportReport report)
    {
        var refused = report.Rows.Where(row => !row.Reasons.IsEmpty).Select(row => row.Line).ToHashSet();
        Table = Table with { Rows = [.. Table.Rows.Where(row => refused.Contains(row.Line)).Select(row => row with { Values = row.Values.Clear() })] };
    }
}
