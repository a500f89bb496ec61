using Dibujo.Core.Reshaping;
using Dibujo.Core.Rules;
using Dibujo.Store.Auditing;

namespace Dibujo.Server.Publications;

/// <summary>A draft on its way into force, with how far it is.</summary>
/// <param name="definition">The draft as it was when it was asked for.</param>
/// <param name="before">Number of the edition in force until then; 0 for none.</param>
/// <param name="reshaping">The way of the records; null where there can be none.</param>
/// <param name="note">What the publisher said about it.</param>
/// <param name="entry">What is noted of it: who, when, from where.</param>
internal sealed class Publication(Definition definition, int before, RecordReshaping? reshaping, string note, AuditEntry entry)
{
    private int looked;

    internal string RecordType => definition.RecordType.Key;

    internal Definition Definition => definition;

    internal int Before => before;

    internal RecordReshaping? Reshaping => reshaping;

    internal string Note => note;

    internal AuditEntry Entry => entry;

    /// <summary>How many records there are to be looked at.</summary>
    internal int Records { get; set; }

    /// <summary>How many of them have been looked at.</summary>
    internal int Looked => looked;

    /// <summary>How many of them change.</summary>
    internal int Changed { get; set; }

    /// <summary>The edition that came of it, once it is in force.</summary>
    internal int? Number { get; set; }

    /// <summary>The draft's version then.</summary>
    internal int? Version { get; set; }

    /// <summary>Why nothing came of it, as a sentence; null while it goes on, or when it is through.</summary>
    internal string? Failure { get; set; }

    internal void Look(int more) => Interlocked.Add(ref looked, more);
}

/// <summary>How far a publication is.</summary>
/// <param name="IsRunning">Whether it goes on.</param>
/// <param name="Records">How many records there are to be looked at.</param>
/// <param name="Looked">How many of them have been looked at.</param>
/// <param name="Changed">How many of them change, as far as is known.</param>
/// <param name="Number">The edition that came of it, once it is in force.</param>
/// <param name="Version">The draft's version then.</param>
/// <param name="Failure">Why nothing came of it; then everything is as before.</param>
internal sealed record PublicationView(bool IsRunning, int Records, int Looked, int Changed, int? Number, int? Version, string? Failure)
{
    internal static PublicationView Of(Publication publication) => new(
        publication is { Number: null, Failure: null }, publication.Records, publication.Looked, publication.Changed, publication.Number, publication.Version, publication.Failure);
}
