using System.Collections.Immutable;
using Dibujo.Core.Conditions;
using Dibujo.Core.Forms;
using Dibujo.Core.Records;

namespace Dibujo.Core.Speech;

/// <summary>Tells which word of theirs people put a name for, where a rule that was not understood was said again and then was.</summary>
public static class MendedWord
{
    /// <summary>More words than these are no word for something, but another way of saying it.</summary>
    private const int MostWords = 4;

    /// <summary>How close to a name what was said the second time has to be.</summary>
    private const double Certain = 0.1;

    /// <summary>The word, with what was said in its place; null where nothing was put for a word, or more than one thing could be meant.</summary>
    /// <remarks>The beginnings of a word that were heard while it was typed, and slips that were mended, are no words of people.</remarks>
    /// <param name="misheard">What was said before and not understood, in any order.</param>
    /// <param name="mended">What was said in the end.</param>
    /// <param name="type">The record type.</param>
    public static OtherWord? Of(IEnumerable<string> misheard, string mended, RecordType type)
    {
        var names = MentionIndex.Of(type);
        var after = Words.Of(mended);
        return misheard.Select(said => Of(said, mended, after, names)).OfType<OtherWord>().OrderByDescending(word => word.Said.Length).FirstOrDefault();
    }

    private static OtherWord? Of(string said, string mended, ImmutableArray<Word> after, MentionIndex names)
    {
        var before = Words.Of(said);
        var start = before.Zip(after).TakeWhile(pair => IsSame(pair.First, pair.Second)).Count();
        var behind = before.Skip(start).Reverse().Zip(after.Skip(start).Reverse()).TakeWhile(pair => IsSame(pair.First, pair.Second)).Count();
        var (old, put) = (before[start..^behind], after[start..^behind]);
        if (old.Length is 0 or > MostWords || put.IsEmpty || mended.StartsWith(said.TrimEnd(), StringComparison.OrdinalIgnoreCase) || !IsWord(old, put) || IsKnown(before, start, start + old.Length, names))
        {
            return null;
        }

        return Meant(after, start, start + put.Length, names) is { } thing ? Named(said[old[0].Start..old[^1].End], thing) : null;
    }

    private static bool IsSame(Word one, Word other) => one.Kind == other.Kind && one.Text == other.Text;

    /// <summary>Whether it is neither small words, nor what was put for it with a slip or half typed.</summary>
    private static bool IsWord(ImmutableArray<Word> old, ImmutableArray<Word> put) =>
        old.All(word => word.Kind == WordKind.Plain) && !old.All(word => Filler.IsCheap(word.Text))
        && !put.Any(word => word.Text.StartsWith(old[^1].Text, StringComparison.Ordinal) || Stem.Distance(old[^1].Text, word.Text) is not null);

    /// <summary>Whether it says something already: a name, or part of one, or what is done.</summary>
    private static bool IsKnown(ImmutableArray<Word> words, int start, int end, MentionIndex names) =>
        Enumerable.Range(start, end - start).Any(at => Filler.IsTurning(words[at].Text) || CueBook.At(words, at, names.Own).Any() || CueBook.Slipped(words, at).Any())
        || names.In(words).Any(mention => mention.Start < end && start < mention.End && mention.Cost <= Certain);

    /// <summary>The one thing that is named there, beside small words.</summary>
    private static Thing? Meant(ImmutableArray<Word> words, int start, int end, MentionIndex names)
    {
        var named = names.In(words).Where(mention => start <= mention.Start && mention.End <= end && mention.Cost <= Certain && Named("", mention.Thing) is not null).ToList();
        var longest = named.Where(mention => !named.Exists(other => other.Start <= mention.Start && mention.End <= other.End && other.End - other.Start > mention.End - mention.Start)).ToList();
        var isAll = Enumerable.Range(start, end - start).All(at => longest.Exists(mention => mention.Start <= at && at < mention.End) || Filler.IsCheap(words[at].Text) || names.Own.Contains(words[at].Text));
        return isAll && longest.Select(mention => Named("", mention.Thing)).Distinct().Count() == 1 ? longest[0].Thing : null;
    }

    /// <summary>That word for that thing; null for what has no other words.</summary>
    private static OtherWord? Named(string said, Thing thing) => thing switch
    {
        Thing.Field { Of: var field, Element.Kind: ElementKind.Field } => new(said, Field: field.Key),
        Thing.Choice { Of: var field, Key: var choice } => new(said, Field: field.Key, Choice: choice),
        Thing.Setting { Of: StageSubject, Key: var stage } => new(said, Stage: stage),
        Thing.Setting { Of: RoleSubject, Key: var role } => new(said, Role: role),
        _ => null,
    };
}
