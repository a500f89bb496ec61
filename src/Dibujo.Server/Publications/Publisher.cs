using System.Collections.Concurrent;
using System.Collections.Immutable;
using Dibujo.Core.Drafts;
using Dibujo.Core.Records;
using Dibujo.Core.Rules;
using Dibujo.Server.Drafts;
using Dibujo.Server.Records;
using Dibujo.Server.RecordTypes;
using Dibujo.Store;
using Dibujo.Store.Definitions;
using Dibujo.Store.Writing;
using Microsoft.EntityFrameworkCore;

namespace Dibujo.Server.Publications;

/// <summary>
/// Publishes, one publication of a record type at a time. What becomes of the records is worked out and put beside them while
/// members go on; then edition, records, history and draft change in one transaction. Where the process ends before that,
/// nothing has happened.
/// </summary>
internal sealed partial class Publisher(IServiceScopeFactory scopes, Editions editions, RecordNews news, Restanding restanding, IHostApplicationLifetime lifetime, ILogger<Publisher> log)
{
    private readonly ConcurrentDictionary<string, Publication> latest = new();

    /// <summary>The publication of a record type that is going on, or the last one of this process; null for none.</summary>
    internal Publication? Of(string recordType) => latest.GetValueOrDefault(recordType);

    /// <summary>Begins a publication; false where one of that record type is going on.</summary>
    /// <param name="publication">What is to be published.</param>
    /// <param name="done">Through when it is in force, or has failed.</param>
    internal bool TryBegin(Publication publication, out Task done)
    {
        done = Task.CompletedTask;
        var before = Of(publication.RecordType);
        var isBegun = before is null
            ? latest.TryAdd(publication.RecordType, publication)
            : before is not { Number: null, Failure: null } && latest.TryUpdate(publication.RecordType, publication, before);
        if (isBegun)
        {
            done = Task.Run(() => RunAsync(publication, lifetime.ApplicationStopping));
        }

        return isBegun;
    }

    private async Task RunAsync(Publication publication, CancellationToken cancellation)
    {
        await using var scope = scopes.CreateAsyncScope();
        var db = scope.ServiceProvider.GetRequiredService<DibujoDb>();
        var unit = scope.ServiceProvider.GetRequiredService<UnitOfWork>();
        unit.Patience = Timeout.InfiniteTimeSpan;
        try
        {
            var staging = publication.Reshaping is { IsNeeded: true } ? new Staging(db, unit, publication, scope.ServiceProvider.GetRequiredService<RecordLookup>()) : null;
            if (staging is not null)
            {
                await staging.RunAsync(cancellation);
            }

            // Compiled before anybody can ask for it.
            var edition = new Edition(publication.Before + 1, publication.Definition);
            edition.Prepare();
            var change = scope.ServiceProvider.GetRequiredService<DraftChange>();
            List<StoredRecordType> followed = [];
            var type = await SwitchAsync(db, unit, change, publication, edition, staging, followed, cancellation);
            if (type is not null)
            {
                editions.Add(publication.RecordType, edition);
                publication.Version = type.DraftVersion;
                publication.Number = edition.Number;
                change.Tell(type);
                followed.ForEach(change.Tell);
                news.Published(publication.RecordType, edition.Number);
                restanding.Want();
            }
        }
        catch (Exception failure) when (failure is not OutOfMemoryException)
        {
            LogFailure(failure, publication.RecordType);
            publication.Failure = cancellation.IsCancellationRequested
                ? "The server was stopped before it was through. Nothing was published and no record changed; publish again."
                : "Something went wrong at the server. Nothing was published and no record changed; publish again.";
        }
    }

    /// <summary>The one moment at which everything changes; null where something else came before, which is said then.</summary>
    private static async Task<StoredRecordType?> SwitchAsync(
        DibujoDb db, UnitOfWork unit, DraftChange change, Publication publication, Edition edition, Staging? staging, List<StoredRecordType> followed, CancellationToken cancellation)
    {
        StoredRecordType? published = null;
        await unit.RunAsync(
            async () =>
            {
                var type = await db.RecordTypes.SingleAsync(t => t.Key == publication.RecordType, cancellation);
                var done = publication.Definition.RecordType.Reshaping;
                if ((type.Published ?? 0) != publication.Before || !type.Draft.RecordType.Reshaping.Take(done.Length).SequenceEqual(done))
                {
                    publication.Failure = "Somebody else has published, or taken back what records were to become. Nothing was published; look at the draft again.";
                    return;
                }

                var at = publication.Entry.At;
                if (staging is not null)
                {
                    await staging.ApplyAsync(edition.Number, at, cancellation);
                }

                db.Editions.Add(new StoredEdition
                {
                    RecordType = publication.RecordType,
                    Number = edition.Number,
                    Definition = publication.Definition,
                    Note = publication.Note,
                    By = publication.Entry.Who!,
                    At = at,
                });
                db.Audit.Add(publication.Entry);
                type.Published = edition.Number;
                UseUp(type, done, change, publication.Entry.Who!);
                await FollowAsync(db, change, type, publication, followed, cancellation);
                published = type;
            },
            cancellation);
        return published;
    }

    /// <summary>Record types whose links lead here know this one's fields: their drafts follow what has become of those.</summary>
    private static async Task FollowAsync(
        DibujoDb db, DraftChange change, StoredRecordType type, Publication publication, List<StoredRecordType> followed, CancellationToken cancellation)
    {
        followed.Clear();
        var there = publication.Definition.RecordType;
        var formerKeys = Core.Reshaping.FormerKeys.Of([.. Editions.ReshapingAfter(db, type.Key, 0), .. there.Reshaping]);
        foreach (var other in await db.RecordTypes.Where(one => one.Key != type.Key).ToListAsync(cancellation))
        {
            var draft = other.Draft.RecordType;
            if (draft.Linked.FirstOrDefault(linked => linked.Key == type.Key) is not { } known)
            {
                continue;
            }

            var step = DraftStep.Between(
                other.Draft, new Definition(draft with { Linked = draft.Linked.Replace(known, known.As(there, formerKeys)) }, other.Draft.Rules) { Examples = other.Draft.Examples }, other.DraftVersion);
            if (step.RecordType is not null)
            {
                change.Make(other, step, publication.Entry.Who!);
                followed.Add(other);
            }
        }
    }

    /// <summary>What records have become is no longer to be done; what was decided since still is.</summary>
    private static void UseUp(StoredRecordType type, ImmutableArray<Reshape> done, DraftChange change, string by)
    {
        var version = type.DraftVersion;
        if (!done.IsEmpty)
        {
            change.Make(type, new([], type.Draft.RecordType with { Reshaping = type.Draft.RecordType.Reshaping[done.Length..] }, version), by);
        }

        // The draft's version goes up as well, so that who has looked at it before looks again.
        type.DraftVersion = version + 1;
    }

    [LoggerMessage(LogLevel.Error, "The publication of {RecordType} failed.")]
    private partial void LogFailure(Exception failure, string recordType);
}
