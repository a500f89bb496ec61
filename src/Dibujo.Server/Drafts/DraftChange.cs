using System.Collections.Immutable;
using Dibujo.Core.Drafts;
using Dibujo.Core.Rules;
using Dibujo.Server.Live;
using Dibujo.Store;
using Dibujo.Store.Definitions;

namespace Dibujo.Server.Drafts;

/// <summary>The one way in which drafts are changed: by steps, each noted with who and when, and told to all who have the draft open.</summary>
internal sealed class DraftChange(DibujoDb db, LiveConnections live, Sender sender, TimeProvider clock)
{
    /// <summary>Makes a step; what collides in it waits for a choice. Nothing is stored before the unit of work is.</summary>
    internal Drafting Make(StoredRecordType type, DraftStep step, string by)
    {
        var at = clock.GetUtcNow().UtcDateTime;
        var drafting = Drafting.Of(type.Draft, step, key => type.Revisions.GetValueOrDefault(key)?.Version ?? 0, type.TypeRevision);
        // Also where some of it waits, the rest of it is made.
        var isTypeChanged = step.RecordType is not null && (drafting.WaitingType is null || !ReferenceEquals(drafting.Definition.RecordType, type.Draft.RecordType));
        var examples = drafting.WaitingType is not null ? null : step.Examples;
        if (!drafting.Changed.IsEmpty || isTypeChanged || examples is not null)
        {
            type.Draft = drafting.Definition;
            type.DraftVersion++;
            type.Revisions = type.Revisions.SetItems(drafting.Changed.Select(key => KeyValuePair.Create(key, new Revision(type.DraftVersion, by, at))));
            type.TypeRevision = isTypeChanged ? type.DraftVersion : type.TypeRevision;
            var made = step.Edits.Where(edit => !drafting.Colliding.Contains(edit)).ToImmutableArray();
            db.DraftSteps.Add(new()
            {
                RecordType = type.Key,
                Version = type.DraftVersion,
                Step = new(made, isTypeChanged ? drafting.Definition.RecordType : null, step.RecordTypeBase, examples),
                By = by,
                At = at,
            });
        }

        foreach (var edit in drafting.Colliding)
        {
            db.Collisions.Add(new() { RecordType = type.Key, Step = new([edit]), By = by, At = at });
        }

        if (drafting.WaitingType is { } waiting)
        {
            db.Collisions.Add(new() { RecordType = type.Key, Step = new([], waiting, Examples: step.Examples), By = by, At = at });
        }

        return drafting;
    }

    /// <summary>Puts another definition in the place of the draft, as one step.</summary>
    internal Drafting Replace(StoredRecordType type, Definition then, string by)
    {
        var version = type.DraftVersion;
        var made = Make(type, DraftStep.Between(type.Draft, then, version), by);
        // Also where nothing is other than before.
        type.DraftVersion = version + 1;
        return made;
    }

    /// <summary>Tells everybody else who has the draft open, once it is stored.</summary>
    internal void Tell(StoredRecordType type) => live.Tell(sender, DraftHub.Of(type.Key), "Changed", type.DraftVersion);
}
