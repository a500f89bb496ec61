using System.Collections.Immutable;
using Dibujo.Core.Forms;
using Dibujo.Core.Notations;
using Dibujo.Core.Records;
using Dibujo.Core.Rules;
using Dibujo.Core.Sentences;

namespace Dibujo.Core.Speech;

/// <summary>
/// What may be meant by what somebody said in their own words. Each word of content stands for a part of the rule, or is told not to be understood; where
/// two rules are about as likely, both are offered.
/// </summary>
internal static class Understanding
{
    /// <summary>Two that differ by less than this are about as likely.</summary>
    private const double Near = 0.12;

    /// <summary>What it may cost at most, and for each word, to be taken without asking.</summary>
    private const double Unlikely = 1.6;
    private const double UnlikelyOfAWord = 0.13;

    /// <summary>Nobody says what can never be.</summary>
    private const double Never = 2;

    private const int MostWords = 60;

    /// <summary>How many sentences are offered where none was understood, and at most where several are about as likely.</summary>
    private const int MostOffered = 2;
    private const int MostNear = 9;

    internal static Hearing Of(string said, RecordType type, Rule like, Notation notation, IKnownNames known)
    {
        var words = Trimmed(Words.Of(said, notation));
        if (words.Length is 0 or > MostWords)
        {
            return new(null, null, [], null, new(0, words.Length == 0 ? "Nothing was said." : $"This is longer than {MostWords} words. Say it in several rules.", []));
        }

        var lexicon = Lexicon.Of(type);
        var comparison = new Comparison(lexicon.Names.Subjects);
        var conditions = new ConditionGrammar(type, comparison);
        var effects = new EffectGrammar(type, comparison);
        var rules = new RuleGrammar(lexicon, comparison);
        var links = new LinkGrammar(type, comparison);
        var names = MentionIndex.Of(type);
        var seeds = new Seeds(said, words, names, notation, known);
        var chart = KeptChart.Next(type, words, notation, known, (before, same) => new(
            seeds.All(),
            [.. words.Select((_, at) => Passed(words, at, names))],
            (left, right) => Together(Together(conditions.Of(left, right), effects.Of(left, right)), Together(links.Of(left, right), rules.Of(left, right))),
            node => conditions.ByItself(node).Concat(EffectGrammar.ByItself(node)).Concat(links.ByItself(node)),
            before,
            same));
        var shapes = new HashSet<string>(StringComparer.Ordinal);
        var found = new List<Meaning>();
        foreach (var entry in chart.Whole.OrderBy(entry => entry.Cost))
        {
            // What is much less likely than two that are known is never offered.
            if (found.Count >= MostOffered && entry.Cost > found[^1].Cost + 1)
            {
                break;
            }

            if (Finished(entry.Node, lexicon) is var (cases, isTaken) && shapes.Add(Shape.Of(cases)))
            {
                found.Add(new(cases, entry, entry.Cost + (entry.Node is Node.Does ? Bare(cases) : 0) + (cases.Any(one => Negation.IsNever(one.While)) ? Never : 0), entry.Unheard, isTaken));
            }
        }

        found.Sort((one, other) => one.Cost.CompareTo(other.Cost));
        var aligner = new Aligner(said, words, lexicon);
        var (answer, meant) = Answer(said, type, words, found, cases => like with { Where = null, Table = null, Cases = Worded(cases, type, like) });
        answer = answer with { Aligned = aligner.Of(meant is null ? seeds.Named() : chart.Parts(0, words.Length, meant.Of)) };
        return answer.Rule is null && Choiceless.Of(words, said, seeds, type) is { } choiceless ? answer with { Question = null, Misunderstanding = choiceless } : answer;
    }

    /// <summary>What to say, with the likeliest of what may be meant; null where nothing may.</summary>
    private static (Hearing Answer, Meaning? Meant) Answer(string said, RecordType type, ImmutableArray<Word> words, List<Meaning> found, Func<ImmutableArray<Case>, Rule> ruleOf)
    {
        if (found is not [var best, ..])
        {
            return (new(null, null, [], null, null), null);
        }

        string SentenceOf(Meaning meaning) => Sentence.Plain(Sentence.Of(ruleOf(meaning.Cases), type));
        if (best.Unheard == 0 && best.Cost <= Unlikely + (words.Length * UnlikelyOfAWord))
        {
            var near = Coherence.Closest([.. found.Where(one => one.Unheard == 0 && one.Cost - best.Cost < Near)], one => one.Cases, type);
            return (near.Count == 1
                ? new(ruleOf(near[0].Cases), SentenceOf(near[0]), near[0].IsTakenAsOnly ? [new(0, said.Length, "only while, since otherwise it is so at rest", [])] : [], null, null)
                : new(null, null, [], Asked(said, said, near.Take(MostNear).Select(SentenceOf)), null), near[0]);
        }

        var unheard = Enumerable.Range(0, words.Length).Where(at => (best.Unheard >> Math.Min(at, 63) & 1) == 1).Select(at => words[at]).ToList();
        var missed = unheard.Count == 0 ? said : string.Join(" … ", unheard.Select(word => said[word.Start..word.End]));
        // What leaves out a word such as "if" or "not" says something else, and is not offered.
        return (unheard.Count < 4 && !unheard.Exists(word => Filler.IsTurning(word.Text))
            ? new(null, null, [], Asked(said, missed, found.Take(MostOffered).Select(SentenceOf)), null)
            : new(null, null, [], null, new(unheard[0].Start, $"“{missed}” is not understood.", [])), best);
    }

    /// <summary>What it costs to pass over a word. A name says something, but for what the record itself is called.</summary>
    private static double Passed(ImmutableArray<Word> words, int at, MentionIndex names)
    {
        var word = words[at].Text;
        var cost = Filler.Of(words, at, names.Own);
        return cost >= Filler.Content || Filler.IsPaired(words, at) || !names.IsName(word) ? cost
            : !names.Own.Contains(word) ? Filler.Content
            : Filler.IsRecord(word) ? cost
            : 0.9;
    }

    /// <summary>All of three, of which most are none.</summary>
    private static IEnumerable<Node> Together(IEnumerable<Node> one, IEnumerable<Node> other) => IsNone(one) ? other : IsNone(other) ? one : one.Concat(other);

    private static bool IsNone(IEnumerable<Node> nodes) => nodes is Node[] { Length: 0 };

    private static Question Asked(string said, string about, IEnumerable<string> sentences) =>
        new(0, said.Length, about, [.. sentences.Select(sentence => new Wordage(sentence, sentence))]);

    /// <summary>The full stop at the end says nothing.</summary>
    private static ImmutableArray<Word> Trimmed(ImmutableArray<Word> words)
    {
        var end = words.Length;
        while (end > 0 && words[end - 1] is { Kind: WordKind.Mark, Text: "." or "!" or "?" or "," or ";" })
        {
            end--;
        }

        return words[..end];
    }

    /// <summary>What holds always is seldom what somebody says: a value, or a need for a move, may be.</summary>
    private static double Bare(ImmutableArray<Case> cases) => cases[0].Effects.All(effect => effect is Calculate or SetValue or Require { Moves.IsEmpty: false } or Require { Level: Requirement.ToSave } or ResetValue) ? 0.2 : 1;

    /// <param name="Cases">What the rule says; messages may have no words yet.</param>
    /// <param name="Of">The entry that says it.</param>
    /// <param name="Cost">How unlikely it is.</param>
    /// <param name="Unheard">A bit for each word of content that stands for nothing in it.</param>
    /// <param name="IsTakenAsOnly">Whether showing what rests shown was taken for showing it only then.</param>
    private sealed record Meaning(ImmutableArray<Case> Cases, Chart.Entry Of, double Cost, ulong Unheard, bool IsTakenAsOnly);

    private static (ImmutableArray<Case> Cases, bool IsTakenAsOnly)? Finished(Node node, Lexicon lexicon)
    {
        switch (node)
        {
            case Node.Whole { Cases: var cases, IsOnly: var isOnly }:
                if (cases is [{ While: not null } only])
                {
                    // To show what rests shown is to show it only then.
                    var shown = only.Effects.OfType<Show>().Where(show => show.Targets.All(target => lexicon.RestOf(target).Visibility == Visibility.Shown)).ToList();
                    var otherwise = OnlyWhile.Otherwise(isOnly ? only.Effects : [.. shown]);
                    return otherwise.IsEmpty ? (cases, false) : ([only, new(otherwise)], !isOnly);
                }

                return (cases, false);
            case Node.Does { If: { } condition } does:
                return Complete(does) && RuleGrammar.Of(condition, does.Effects, does.IsOnly) is var whole ? Finished(whole, lexicon) : null;
            case Node.Does does:
                return Complete(does) ? ([new(does.Effects)], false) : null;
            default:
                return null;
        }
    }

    private static bool Complete(Node.Does does) => does.Effects.All(effect => effect is not StateEffect { Targets.IsEmpty: true } and not FieldEffect { Field: "" });

    /// <summary>A message that was given no words says what is so.</summary>
    private static ImmutableArray<Case> Worded(ImmutableArray<Case> cases, RecordType type, Rule like) => [.. cases.Select(@case => @case with
    {
        Effects = [.. @case.Effects.Select(effect => effect switch
        {
            Message { Text: EffectGrammar.NoWords } message => message with { Text = Says(@case, type, like) },
            Suggest { Reason: EffectGrammar.NoWords } suggest => suggest with { Reason = Says(@case, type, like) },
            _ => effect,
        })],
    })];

    /// <summary>The condition as words: it is what the sentence of a rule has between its first word and its verb.</summary>
    private static string Says(Case @case, RecordType type, Rule like)
    {
        const string Verb = ", tell ";
        if (@case.While is null)
        {
            return "Look at this again.";
        }

        var sentence = Sentence.Plain(Sentence.Of(like with { Where = null, Table = null, Cases = [@case with { Effects = [new Message(Severity.Note, "")] }] }, type));
        var end = sentence.LastIndexOf(Verb, StringComparison.Ordinal);
        return end < 0 ? "Look at this again." : sentence["While ".Length..end].Replace("“", "", StringComparison.Ordinal).Replace("”", "", StringComparison.Ordinal) + ".";
    }
}
