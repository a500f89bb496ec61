using System.Collections.Immutable;
using Dibujo.Core.Conditions;
using Dibujo.Core.Forms;

namespace Dibujo.Core.Speech;

/// <summary>What things are called by their kind: "the crate section", "the stage Terms".</summary>
internal static class KindWords
{
    private static readonly string[] Sections = ["section", "sections", "group", "block", "part", "fields"];
    private static readonly string[] Tabs = ["tab", "tabs", "page", "pages"];
    private static readonly string[] Forms = ["form", "forms", "sheet"];

    /// <summary>Words behind a name that no field is called by.</summary>
    private static readonly string[] PlaceWords = [.. Sections.Take(2), .. Tabs.Take(2), .. Forms.Take(2)];

    /// <summary>A place with its kind before or behind it, and what a setting is called by; a form as a place and as a setting.</summary>
    internal static IEnumerable<Mention> Around(Mention mention, ImmutableArray<Word> words)
    {
        var kinds = Of(mention.Thing);
        bool IsKind(int at) => at >= 0 && at < words.Length && kinds.Contains(words[at].Text, StringComparer.Ordinal);
        // What is called by its kind is meant, though a field has that name.
        if (IsKind(mention.End))
        {
            yield return mention with { End = mention.End + 1, Cost = Math.Max(0, mention.Cost - 0.1) };
        }

        // "The crate section" is no field.
        if (mention.Thing is Thing.Field or Thing.Fields && mention.End < words.Length && PlaceWords.Contains(words[mention.End].Text, StringComparer.Ordinal))
        {
            mention = mention with { Cost = mention.Cost + 0.6 };
        }

        var before = mention.Start > 0 && words[mention.Start - 1].Text is "for" or "of" or "about" or "called" or "on" ? 2 : 1;
        if (mention.Thing is not Thing.Field and not Thing.Choice && IsKind(mention.Start - before))
        {
            yield return mention with { Start = mention.Start - before, Cost = Math.Max(0, mention.Cost - 0.1) };
        }

        if (mention.Thing is not Thing.Setting { Of: WorkflowSubject or FormSubject })
        {
            yield return mention.Thing is Thing.Place ? mention with { Cost = mention.Cost + 0.25 } : mention;
        }
    }

    private static string[] Of(Thing thing) => thing switch
    {
        Thing.Place { Element.Kind: ElementKind.Section } => Sections,
        Thing.Place { Element.Kind: ElementKind.Tab } => Tabs,
        Thing.Place => Forms,
        Thing.Setting { Of: StageSubject } => ["stage", "stages", "phase"],
        Thing.Setting { Of: RoleSubject } => ["role", "roles", "people", "staff"],
        Thing.Setting { Of: WorkflowSubject } => ["workflow"],
        Thing.Setting { Of: FormSubject } => ["form", "forms"],
        Thing.Setting { Of: MoveSubject } => ["move"],
        _ => ["field", "fields", "box"],
    };
}
