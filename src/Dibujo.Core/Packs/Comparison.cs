using System.Collections.Immutable;
using System.Text.Json.Serialization;
using Dibujo.Core.Analysis;
using Dibujo.Core.Checking;
using Dibujo.Core.Drafts;
using Dibujo.Core.Json;
using Dibujo.Core.Records;
using Dibujo.Core.Reshaping;
using Dibujo.Core.Rules;
using Dibujo.Core.Sentences;

namespace Dibujo.Core.Packs;

/// <summary>What an import would change, to be looked at before it is applied.</summary>
/// <param name="Differences">Everything that would be other than now.</param>
/// <param name="Problems">What cannot be applied and why, with places in what comes in.</param>
public sealed record Comparison(ImmutableArray<Difference> Differences, ImmutableArray<Problem> Problems)
{
    /// <summary>Compares what is there with what would come in its place.</summary>
    public static Comparison Between(Definition now, Definition then)
    {
        // A field with another key is the same field, and rules that follow it say what they said.
        var (followed, renamed) = Followed(now, then.RecordType);
        return new(
            [.. renamed, .. All(followed, then)],
            PublicationCheck.Of(then).All());
    }

    private static (Definition Now, ImmutableArray<Difference> Renamed) Followed(Definition now, RecordType then)
    {
        var renamed = ImmutableArray.CreateBuilder<Difference>();
        foreach (var one in then.Reshaping.OfType<FieldRenamed>())
        {
            if (now.RecordType.Find(one.From) is { } field && Reshaped.By(now, one).Definition is { } followed)
            {
                now = followed;
                renamed.Add(new(Change.Changed, "field", one.To, field.Label) { Beside = [$"Its key was {one.From}."] });
            }
        }

        return (now, renamed.ToImmutable());
    }

    private static IEnumerable<Difference> All(Definition now, Definition then) =>
        [
            .. List("record type", [Head(now.RecordType)], [Head(then.RecordType)], t => t.Key, t => t.Label),
            .. List("field", now.RecordType.Fields, then.RecordType.Fields, f => f.Key, f => f.Label),
            .. List("form", now.RecordType.Forms, then.RecordType.Forms, f => f.Key, f => f.Label),
            .. List("workflow", now.RecordType.Workflows, then.RecordType.Workflows, w => w.Key, w => w.Label),
            .. List("role", now.RecordType.Roles, then.RecordType.Roles, r => r.Key, r => r.Label),
            .. List("linked record type", now.RecordType.Linked, then.RecordType.Linked, l => l.Key, l => l.Label),
            .. Rules(now, then),
            .. List("example", now.Examples, then.Examples, e => e.Name, e => e.Name),
        ];

    private static RecordType Head(RecordType type) => new(type.Key, type.Label, type.TitleField, [], [], []);

    private static IEnumerable<Difference> Rules(Definition now, Definition then)
    {
        foreach (var difference in List("rule", now.Rules, then.Rules, r => r.Key, r => r.Name))
        {
            yield return difference with
            {
                Before = Words(now, difference.Key),
                After = Words(then, difference.Key),
                Beside = [.. Beside(now.Rules.FirstOrDefault(r => r.Key == difference.Key), then.Rules.FirstOrDefault(r => r.Key == difference.Key))],
            };
        }

        var moved = DraftStep.Between(now, then, 0).Edits.Where(edit => edit.IsPlaced && now.Rules.Any(rule => rule.Key == edit.Key)).ToList();
        if (moved.Count > 0)
        {
            yield return new(Change.Changed, "order", "", "Order of the rules")
            {
                Beside = [.. moved.Select(edit => Place(then, edit)), .. Reordering.Between(now.Rules, then.Rules, then.RecordType).Select(one => one.What)],
            };
        }
    }

    private static string Place(Definition then, RuleEdit edit) => edit.After is { } above
        ? $"“{Name(then, edit.Key)}” stands below “{Name(then, above)}”."
        : $"“{Name(then, edit.Key)}” stands first.";

    private static string Name(Definition definition, string key) => definition.Rules.First(rule => rule.Key == key).Name;

    /// <summary>What is other about a rule than what its sentence says.</summary>
    private static IEnumerable<string> Beside(Rule? now, Rule? then)
    {
        if (then is null)
        {
            yield break;
        }

        if (now is not null && now.Name != then.Name)
        {
            yield return $"It was called “{now.Name}”.";
        }

        if (now is null ? !then.On : now.On != then.On)
        {
            yield return then.On ? "It was off and is on." : now is null ? "It is off." : "It was on and is off.";
        }

        if (now is not null && now.Reason != then.Reason)
        {
            yield return then.Reason is null ? "It has no reason any more." : $"Its reason: {then.Reason}";
        }

        if (now is not null && now.Group != then.Group)
        {
            yield return then.Group is null ? "It is in no group any more." : $"It is in the group {then.Group}.";
        }
    }

    private static string? Words(Definition definition, string key) =>
        definition.Rules.FirstOrDefault(r => r.Key == key) is { } rule ? Sentence.Plain(Sentence.Of(rule, definition.RecordType)) : null;

    private static IEnumerable<Difference> List<T>(
        string what, ImmutableArray<T> now, ImmutableArray<T> then, Func<T, string> key, Func<T, string> label)
    {
        var before = now.DistinctBy(key).ToDictionary(key, StringComparer.Ordinal);
        var after = then.DistinctBy(key).ToDictionary(key, StringComparer.Ordinal);
        return then.DistinctBy(key).Where(item => !before.ContainsKey(key(item))).Select(item => new Difference(Change.Added, what, key(item), label(item)))
            .Concat(then.DistinctBy(key).Where(item => before.TryGetValue(key(item), out var old) && !IsSame(old, item))
                .Select(item => new Difference(Change.Changed, what, key(item), label(item))))
            .Concat(now.DistinctBy(key).Where(item => !after.ContainsKey(key(item))).Select(item => new Difference(Change.Removed, what, key(item), label(item))));
    }

    /// <summary>By what is written in a file: lists of the model have no equality of their own.</summary>
    private static bool IsSame<T>(T one, T other) => JsonText.Write(one).SequenceEqual(JsonText.Write(other));
}

/// <summary>One thing that would be other than now.</summary>
/// <param name="Change">In which way.</param>
/// <param name="What">What kind of thing: "rule", "field".</param>
/// <param name="Key">Its key.</param>
/// <param name="Label">What people call it.</param>
/// <param name="Before">For a rule, its sentence now; null where there is none.</param>
/// <param name="After">For a rule, its sentence then; null where there is none.</param>
public sealed record Difference(Change Change, string What, string Key, string Label, string? Before = null, string? After = null)
{
    /// <summary>For a rule, what else is other about it: its name, its reason, its group, whether it is on. A sentence each.</summary>
    public ImmutableArray<string> Beside { get; init => field = value.OrEmpty(); } = [];
}

/// <summary>In which way something differs.</summary>
[JsonConverter(typeof(CamelCaseEnum<Change>))]
public enum Change
{
    /// <summary>It would be new.</summary>
    Added,

    /// <summary>It is there now and would be otherwise.</summary>
    Changed,

    /// <summary>It would be gone.</summary>
    Removed,
}
