using System.Collections.Immutable;
using Dibujo.Core.Saving;
using Dibujo.Server.RecordTypes;
using Dibujo.Store.Records;

namespace Dibujo.Server.Writing;

/// <summary>What came of a <see cref="WriteRequest"/>. All but <see cref="Stored"/> left everything as it was.</summary>
internal abstract record WriteOutcome
{
    private WriteOutcome()
    {
    }

    /// <summary>It is stored, and has reached the disk.</summary>
    internal sealed record Stored(JudgedWrite Write) : WriteOutcome;

    /// <summary>The rules speak against it.</summary>
    /// <param name="Edition">Under which it was judged.</param>
    /// <param name="Refusals">All reasons.</param>
    internal sealed record Refused(Edition Edition, ImmutableArray<Refusal> Refusals) : WriteOutcome;

    /// <summary>Others have saved the record since the version on which it was made.</summary>
    /// <param name="Now">The record as it is now.</param>
    /// <param name="By">Account name of who saved it last; a publication that came after is nobody's save.</param>
    /// <param name="Meanwhile">What was saved since, the latest first and no more than a page of it.</param>
    internal sealed record Overtaken(StoredRecord Now, string By, ImmutableArray<HistoryEntry> Meanwhile) : WriteOutcome;

    /// <summary>Another edition came into force after it had been judged. Only whoever judges and stores by turns is told.</summary>
    internal sealed record Superseded : WriteOutcome;

    /// <summary>There is no such record, or its record type has no edition.</summary>
    internal sealed record NoSuchRecord(int Record) : WriteOutcome;

    /// <summary>There is no such record type with an edition, or it has no such workflow.</summary>
    internal sealed record NoSuchRecordType(string Key) : WriteOutcome;

    /// <summary>The record type has no such form.</summary>
    internal sealed record NoSuchForm(Edition Edition, string? Form) : WriteOutcome;
}
