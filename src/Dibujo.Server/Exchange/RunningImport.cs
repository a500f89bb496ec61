using System.Security.Claims;
using Dibujo.Core.Csv;
using Dibujo.Store.Auditing;

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

    /// <summary>The rows as they came: all while it goes on, and those that were refused once it is through. None of an import of which the server was stopped on the way.</summary>
    internal RowsRead Table { get; private set; } = table;

    internal bool IsTrial => isTrial;

    /// <summary>How many rows there are.</summary>
    internal int Rows { get; init; } = table.Rows.Length;

    /// <summary>When it was begun, in UTC.</summary>
    internal DateTime BegunAt { get; init; }

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

    /// <summary>Forgets the rows but for those that were refused, which are handed out as they came.</summary>
    internal void KeepRefused()
    {
        var refused = Report?.Rows.Where(row => !row.Reasons.IsEmpty).Select(row => row.Line).ToHashSet() ?? [];
        Table = Table with { Rows = [.. Table.Rows.Where(row => refused.Contains(row.Line)).Select(row => row with { Values = row.Values.Clear() })] };
    }
}
