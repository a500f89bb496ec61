using System.Collections.Immutable;
using Dibujo.Core.Json;
using Dibujo.Core.Records;
using Dibujo.Core.Rules;
using Dibujo.Core.Values;

namespace Dibujo.Core.Drafts;

/// <summary>Edits that are made together.</summary>
/// <param name="Edits">To rules, one for each. A rule that is placed after another comes after that one's own edit.</param>
/// <param name="RecordType">What the record type is from now on; null where that stays.</param>
/// <param name="RecordTypeBase">The draft's version by which the record type was last changed, as far as the editor knew.</param>
/// <param name="Examples">What the examples are from now on; null where they stay. They go with the record type: where that collides, they wait with it.</param>
/// <param name="RecordTypeWas">What the editor made the record type of: with it, what others did to other parts of it since stays. Null where that is not known.</param>
public sealed record DraftStep(ImmutableArray<RuleEdit> Edits, RecordType? RecordType = null, int RecordTypeBase = 0, ImmutableArray<Example>? Examples = null, RecordType? RecordTypeWas = null)
{
    /// <summary>The most edits in a step.</summary>
    public const int MostEdits = 5000;

    /// <summary>What makes no sense in it beside a draft of that version, with how to mend it; null for nothing.</summary>
    public string? Mistake(int version)
    {
        var keys = new HashSet<string>(StringComparer.Ordinal);
        return Edits.Length > MostEdits ? $"It has {Edits.Length} edits. Make at most {MostEdits} at once."
            : RecordTypeBase > version ? $"It was made on version {RecordTypeBase}, and the draft is at {version}. Read the draft again."
            : Edits.Select(edit =>
                edit.Base > version || edit.Base < 0 ? $"The edit of “{Excerpt.Of(edit.Key)}” was made on version {edit.Base}, and the draft is at {version}. Read the draft again."
                : edit.Rule is { } rule && rule.Key != edit.Key ? $"The edit of “{Excerpt.Of(edit.Key)}” holds a rule with the key “{Excerpt.Of(rule.Key)}”. Give both the same."
                : !keys.Add(edit.Key) ? $"There are two edits of “{Excerpt.Of(edit.Key)}”. Make them one."
                : null).FirstOrDefault(mistake => mistake is not null);
    }

    /// <summary>The step from one draft to another, made knowing everything that has been done to it up to that version.</summary>
    public static DraftStep Between(Definition before, Definition after, int version)
    {
        var old = before.Rules.DistinctBy(rule => rule.Key).ToDictionary(rule => rule.Key, StringComparer.Ordinal);
        var kept = after.Rules.Select(rule => rule.Key).ToHashSet(StringComparer.Ordinal);
        var staying = Order.Staying(before.Rules.Select(rule => rule.Key), after.Rules.Select(rule => rule.Key));
        var edits = ImmutableArray.CreateBuilder<RuleEdit>();
        edits.AddRange(before.Rules.Where(rule => !kept.Contains(rule.Key)).Select(rule => new RuleEdit(rule.Key, version, IsRemoved: true)));
        string? previous = null;
        foreach (var rule in after.Rules)
        {
            var isPlaced = !staying.Contains(rule.Key);
            var isChanged = !old.TryGetValue(rule.Key, out var known) || !known.Equals(rule);
            if (isPlaced || isChanged)
            {
                edits.Add(new(rule.Key, version, isChanged ? rule : null, IsPlaced: isPlaced, After: isPlaced ? previous : null));
            }

            previous = rule.Key;
        }

        return new(edits.ToImmutable(), IsSame(before.RecordType, after.RecordType) ? null : after.RecordType, version, IsSame(before.Examples, after.Examples) ? null : after.Examples);
    }

    /// <summary>By what is written in a file: lists of the model have no equality of their own.</summary>
    internal static bool IsSame(RecordType one, RecordType other) => ReferenceEquals(one, other) || JsonText.Write(one).SequenceEqual(JsonText.Write(other));

    private static bool IsSame(ImmutableArray<Example> one, ImmutableArray<Example> other) =>
        one == other || (one.Length == other.Length && one.Zip(other).All(pair => JsonText.Write(pair.First).SequenceEqual(JsonText.Write(pair.Second))));
}
