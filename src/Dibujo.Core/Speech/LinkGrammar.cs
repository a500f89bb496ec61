using System.Collections.Immutable;
using Dibujo.Core.Conditions;
using Dibujo.Core.Forms;
using Dibujo.Core.Records;
using Dibujo.Core.Rules;

namespace Dibujo.Core.Speech;

/// <summary>What is taken over from a linked record: "the insured value comes from the object". What is called the same there is meant.</summary>
internal sealed class LinkGrammar(RecordType type, Comparison comparison)
{
    /// <summary>What one node may be besides.</summary>
    internal IEnumerable<Node> ByItself(Node node) =>
        node is Node.Said(Cue.FromLinked) && type.Fields.Where(field => !field.Retired && field.Type is LinkType).Select(field => field.Key).ToList() is [var only] ? [new Node.Linked(only)] : [];

    /// <summary>What two neighbours may make.</summary>
    internal IEnumerable<Node> Of(Node left, Node right) => (left, right) switch
    {
        (Node.Said(Cue.TakenFrom), Node.Targets { IsNegated: false, Of: [{ Kind: ElementKind.Field, Key: var key }] }) when type.Find(key)?.Type is LinkType => [new Node.Linked(key)],
        (Node.Targets { IsNegated: false } targets, Node.Linked linked) => Taken(targets.Of, linked.Link) is { IsEmpty: false } taken ? [new Node.Does(taken)] : [],
        (Node.Said(Cue.SetTo or Cue.TakeOver), Node.Does { If: null } does) when IsTaken(does) => [does with { Cost = -0.1 }],
        (Node.Said(Cue.Calculate), Node.Does { If: null } does) when IsTaken(does) => [does with { Effects = [.. does.Effects.Cast<SetValue>().Select(set => new Calculate(set.Field, set.To))] }],
        // "When an object is chosen, take over its material": the only record from which it can come.
        (Node.Said(Cue.TakeOver), Node.Targets { IsNegated: false } targets) => OnlyLink(targets.Of) is { } link ? [new Node.Does(Taken(targets.Of, link)) { Cost = 0.4 }] : [],
        _ => [],
    };

    private static bool IsTaken(Node.Does does) => does.Effects.All(effect => effect is SetValue { To: SubjectComparand { Subject: LinkedSubject } });

    private string? OnlyLink(ImmutableArray<Element> targets) =>
        type.Fields.Where(field => !field.Retired && field.Type is LinkType && !Taken(targets, field.Key).IsEmpty).Select(field => field.Key).ToList() is [var only] ? only : null;

    /// <summary>Each of them given what the linked record has under that name; none where it has not all of them.</summary>
    private ImmutableArray<Effect> Taken(ImmutableArray<Element> targets, string link)
    {
        var taken = targets.Select(target => target.Kind == ElementKind.Field && type.Find(target.Key) is { } field && There(field, link) is { } there ? new SetValue(field.Key, there) : null).ToList();
        return taken.Contains(null) ? [] : [.. taken.OfType<Effect>()];
    }

    private Comparand? There(Field field, string link) =>
        type.FieldsOf(((LinkType)type.Find(link)!.Type).RecordType)?.FirstOrDefault(other => !other.Retired && string.Equals(other.Label, field.Label, StringComparison.OrdinalIgnoreCase)) is { } there
            ? comparison.Value(new Node.Other(new SubjectComparand(new LinkedSubject([link], there.Key))), field.Type, new FieldSubject(field.Key))
            : null;
}
