using System.Collections.Immutable;
using Dibujo.Core.Records;

namespace Dibujo.Core.Speech;

/// <summary>A word that would have to be a choice of a field, and is none of them: "if decision is declined".</summary>
internal static class Choiceless
{
    private static readonly string[] Between = ["is", "are", "was", "be", "has", "not", "=", ":", "becomes", "set", "to", "as"];

    /// <summary>What to say of the first such word, with the choices that there are; null where there is none.</summary>
    internal static Misunderstanding? Of(ImmutableArray<Word> words, string said, Seeds seeds, RecordType type)
    {
        foreach (var (_, end, node) in seeds.Named())
        {
            if (node is not Node.Subjects { Of: [Conditions.FieldSubject { Part: null, Saved: false, Field: var key }] } || type.Find(key) is not { Type: IOffersOptions offering } field)
            {
                continue;
            }

            var at = end;
            while (at < words.Length && Between.Contains(words[at].Text, StringComparer.Ordinal))
            {
                at++;
            }

            if (at > end && at < words.Length && words[at].Kind == WordKind.Plain && !seeds.Stands(at) && Filler.Of(words, at, ImmutableHashSet<string>.Empty) >= Filler.Content && !Filler.IsTurning(words[at].Text))
            {
                var choices = offering.Options.Where(option => !option.Retired).Select(option => option.Label).ToImmutableArray();
                return new(words[at].Start, $"“{said[words[at].Start..words[at].End]}” is no choice of {field.Label}: {string.Join(", ", choices)}.", [.. choices.Select(choice => new Wordage(choice, choice))]) { IsTelling = true };
            }
        }

        return null;
    }
}
