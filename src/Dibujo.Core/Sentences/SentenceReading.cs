using System.Collections.Immutable;
using Dibujo.Core.Records;
using Dibujo.Core.Rules;
using Dibujo.Core.Values;

namespace Dibujo.Core.Sentences;

/// <summary>What came of reading a sentence: a rule, or the place from which it could not be read on.</summary>
/// <param name="Rule">The rule; null where the sentence could not be read.</param>
/// <param name="Problem">What was expected where; null where it could.</param>
public sealed record SentenceReading(Rule? Rule, SentenceProblem? Problem)
{
    private const int MostCharacters = 200_000;
    private const int MostExpected = 40;

    /// <summary>Reads a sentence as the body of a rule; key, name, reason and whether it is on are those of another rule.</summary>
    /// <remarks>Says nothing about whether the rule makes sense: that is <see cref="Checking.DefinitionCheck"/>.</remarks>
    public static SentenceReading Of(string sentence, RecordType type, Rule like)
    {
        if (sentence.Length > MostCharacters)
        {
            return new(null, new(MostCharacters, "a shorter sentence", ["the end of the sentence"]));
        }

        var reader = new SentenceReader(sentence);
        try
        {
            return new(new SentenceParser(reader, Names.Of(type)).Rule(like), null);
        }
        catch (SentenceException mistake)
        {
            var expected = reader.Expected.Where(e => e.Place == mistake.Place).Select(e => e.Text).Distinct(StringComparer.Ordinal).Take(MostExpected);
            return new(null, new(mistake.Place, Found(sentence, mistake.Place), [.. expected]));
        }
    }

    /// <summary>What may stand at the cursor of a half-typed sentence, the most likely first.</summary>
    /// <remarks>Only what stands before the cursor is read.</remarks>
    public static ImmutableArray<SentenceOffer> Complete(string sentence, int cursor, RecordType type)
    {
        var before = sentence[..Math.Clamp(cursor, 0, Math.Min(sentence.Length, MostCharacters))];
        var reader = new SentenceReader(before);
        try
        {
            new SentenceParser(reader, Names.Of(type)).Rule(new Rule("", ""));
        }
        catch (SentenceException)
        {
            // Half a sentence is what is expected here.
        }

        return
        [
            .. reader.Expected
                .Where(e => e.Text.Length > before.Length - e.Place
                    && (e.IsHint ? e.Place == before.Length : e.Text.StartsWith(before[e.Place..], StringComparison.OrdinalIgnoreCase)))
                .OrderByDescending(e => e.Place)
                .Select(e => new SentenceOffer(e.Text, e.Kind, e.Place, e.IsHint))
                .DistinctBy(o => o.Text),
        ];
    }

    private static string Found(string sentence, int place)
    {
        var rest = sentence[Math.Min(place, sentence.Length)..].Trim();
        return rest.Length == 0 ? "the end" : $"“{Excerpt.Of(rest)}”";
    }
}

/// <summary>Where a sentence could not be read on.</summary>
/// <param name="Place">Characters from its start, from 0.</param>
/// <param name="Found">What stands there.</param>
/// <param name="Expected">What could have stood there, the most likely first.</param>
public sealed record SentenceProblem(int Place, string Found, ImmutableArray<string> Expected)
{
    private const int MostNamed = 8;

    /// <summary>The whole as a message that says what is wrong and how to mend it.</summary>
    public string Message => $"At character {Place + 1} stands {Found}. Write {string.Join(", ", Expected.Take(MostNamed).Select(Marked))}{(Expected.Length > MostNamed ? " …" : "")} there.";

    /// <summary>A mark such as a comma would be lost in the sentence.</summary>
    private static string Marked(string expected) => expected.Any(char.IsLetterOrDigit) ? expected : $"“{expected}”";
}

/// <summary>Something that may stand at the cursor.</summary>
/// <param name="Text">The words, or a description of what may be written.</param>
/// <param name="Kind">What they stand for.</param>
/// <param name="Start">From where on they take the place of what was typed.</param>
/// <param name="IsHint">Whether it is only a description, such as "a number".</param>
public sealed record SentenceOffer(string Text, PartKind Kind, int Start, bool IsHint);
