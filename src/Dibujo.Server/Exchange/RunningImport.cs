using Dibujo.Core.Csv;

namespace Dibujo.Server.Exchange;

/// <summary>An import on its way, or through.</summary>
internal sealed class RunningImport(Guid id, string recordType, string by, int rows, CancellationTokenSource cancellation)
{
    internal Guid Id => id;

    /// <summary>Key of the record type.</summary>
    internal string RecordType => recordType;

    /// <summary>Account name of who began it.</summary>
    internal string By => by;

    /// <summary>How many rows there are.</summary>
    internal int Rows => rows;

    /// <summary>Ends it before it is through; what has been stored by then stays.</summary>
    internal CancellationTokenSource Cancellation => cancellation;

    /// <summary>What takes the rows in, once that has begun.</summary>
    internal RecordImport? Work { get; set; }

    /// <summary>What came of it, once it is through.</summary>
    internal ImportReport? Report { get; set; }

    /// <summary>Why it ended before it was through, as a sentence.</summary>
    internal string? Failure { get; set; }
}
