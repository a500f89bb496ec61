using System.Collections.Immutable;
using Dibujo.Core.Records;
using Dibujo.Core.Rules;

namespace Dibujo.Core.Drafts;

/// <summary>What came of a step.</summary>
/// <param name="Definition">The draft after it.</param>
/// <param name="Changed">Keys of the rules that are other than before, or gone.</param>
/// <param name="Colliding">Edits that were not made, since the rule was changed by somebody else in the meantime.</param>
/// <param name="WaitingType">The record type as the step would have it, where somebody else made something different of the same part of it; null where nothing of it waits.</param>
public sealed record Drafting(Definition Definition, ImmutableArray<string> Changed, ImmutableArray<RuleEdit> Colliding, RecordType? WaitingType)
{
    /// <summary>Makes the edits of a step that collide with nothing; edits of different rules never do.</summary>
    /// <param name="draft">The draft as it is.</param>
    /// <param name="step">What is to be done to it.</param>
    /// <param name="revision">The version by which a rule was last changed, by its key; 0 for one that never was.</param>
    /// <param name="typeRevision">The same for the record type.</param>
    /// <remarks>
    /// To do twice what is done already changes nothing and collides with nothing, so that a step whose answer was lost can
    /// be sent again. A rule's place is nobody's: of two who move it the last one counts.
    /// </remarks>
    public static Drafting Of(Definition draft, DraftStep step, Func<string, int> revision, int typeRevision)
    {
        var rules = draft.Rules.ToBuilder();
        var changed = new HashSet<string>(StringComparer.Ordinal);
        var colliding = ImmutableArray.CreateBuilder<RuleEdit>();
        foreach (var edit in step.Edits)
        {
            var at = PlaceOf(rules, edit.Key);
            var before = at < 0 ? null : rules[at];
            var saysSomething = edit.IsRemoved || edit.Rule is not null;
            var isDone = edit.IsRemoved ? before is null : edit.Rule is null || edit.Rule == before;
            if (saysSomething && !isDone && revision(edit.Key) > edit.Base)
            {
                colliding.Add(edit);
                continue;
            }

            if (!isDone)
            {
                changed.Add(edit.Key);
                Put(rules, at, edit);
            }

            if (!edit.IsRemoved && (edit.IsPlaced || (before is null && edit.Rule is not null)) && Place(rules, edit.Key, edit.After))
            {
                changed.Add(edit.Key);
            }
        }

        var (recordType, waiting) = TypeAfter(draft, step, typeRevision);
        var definition = new Definition(recordType, rules.ToImmutable())
        {
            Examples = waiting is not null ? draft.Examples : step.Examples ?? draft.Examples,
        };
        return new(definition, [.. changed], colliding.ToImmutable(), waiting);
    }

    /// <summary>The record type after the step, and what waits of it: that has all of both, and where they collide what the step says.</summary>
    private static (RecordType RecordType, RecordType? Waiting) TypeAfter(Definition draft, DraftStep step, int typeRevision)
    {
        if (step.RecordType is not { } type || DraftStep.IsSame(type, draft.RecordType) || typeRevision <= step.RecordTypeBase)
        {
            return (step.RecordType ?? draft.RecordType, null);
        }

        if (step.RecordTypeWas is not { } was)
        {
            return (draft.RecordType, type);
        }

        var (merged, collides) = RecordTypeMerge.Of(was, type, draft.RecordType);
        return collides ? (RecordTypeMerge.Of(was, draft.RecordType, type).Merged, merged) : (merged, null);
    }

    private static void Put(ImmutableArray<Rule>.Builder rules, int at, RuleEdit edit)
    {
        if (edit.IsRemoved)
        {
            rules.RemoveAt(at);
        }
        else if (at < 0)
        {
            rules.Add(edit.Rule!);
        }
        else
        {
            rules[at] = edit.Rule!;
        }
    }

    /// <summary>Whether it stood elsewhere before. What it is to stand after may be gone: then it stays.</summary>
    private static bool Place(ImmutableArray<Rule>.Builder rules, string key, string? after)
    {
        var from = PlaceOf(rules, key);
        var other = after is null ? -1 : PlaceOf(rules, after);
        if (from < 0 || (after is not null && other < 0))
        {
            return false;
        }

        var to = other < from ? other + 1 : other;
        if (to == from)
        {
            return false;
        }

        var rule = rules[from];
        rules.RemoveAt(from);
        rules.Insert(to, rule);
        return true;
    }

    private static int PlaceOf(ImmutableArray<Rule>.Builder rules, string key)
    {
        for (var i = 0; i < rules.Count; i++)
        {
            if (rules[i].Key == key)
            {
                return i;
            }
        }

        return -1;
    }
}
