using System.Collections.Immutable;
using Dibujo.Core.Notations;
using Dibujo.Core.Records;
using Dibujo.Core.Rules;
using Dibujo.Core.Sentences;

namespace Dibujo.Core.Speech;

/// <summary>What came of a rule that was said as people say it.</summary>
/// <remarks>
/// Differs from <see cref="SentenceReading"/>, which reads the one canonical sentence and nothing else. A canonical
/// sentence is heard as exactly what it says.
/// </remarks>
/// <param name="Rule">The rule; null while a question is open, or where nothing can be made of it.</param>
/// <param name="Sentence">The rule's canonical sentence; null without a rule.</param>
/// <param name="Guesses">What was not said in so many words. Each can be changed.</param>
/// <param name="Question">What could mean several things; then there is no rule. Nothing is chosen silently.</param>
/// <param name="Misunderstanding">Why nothing can be made of it; null where something can.</param>
public sealed record Hearing(Rule? Rule, string? Sentence, ImmutableArray<Guess> Guesses, Question? Question, Misunderstanding? Misunderstanding)
{
    private const int MostCharacters = 2000;

    /// <summary>For which parts of the rule the words stand; of what is asked, for which they would in the likeliest. Empty for a canonical sentence.</summary>
    public ImmutableArray<Alignment> Aligned { get; init; } = [];

    /// <summary>What may stand at the end of what was said so far, the most likely first.</summary>
    public ImmutableArray<SentenceOffer> Offers { get; init; } = [];

    /// <summary>Hears a rule among others; key, reason and whether it is on are those of <paramref name="like"/>, and its name if that has one. What is said to be added to one of the others comes back as that one.</summary>
    /// <remarks>What is said means the same whatever other rules there are; they tell only to which of them something is added.</remarks>
    /// <param name="said">What was said.</param>
    /// <param name="type">The record type.</param>
    /// <param name="rules">The other rules.</param>
    /// <param name="like">What it is like otherwise.</param>
    /// <param name="notation">How whoever says it writes days and numbers, where it is no canonical sentence.</param>
    /// <param name="known">Who there is: a name of theirs is that person, and never a text.</param>
    public static Hearing Of(string said, RecordType type, IEnumerable<Rule> rules, Rule like, Notation? notation = null, IKnownNames? known = null)
    {
        var (hearing, listener) = Heard(said, type, rules, like, notation ?? Notation.Plain, known ?? NoNames.Instance);
        var offers = SentenceReading.Complete(said, said.Length, type);
        return offers.IsEmpty && listener is not null ? hearing with { Offers = Completion.Of(listener, Lexicon.Of(type)) } : hearing with { Offers = offers };
    }

    /// <summary>What came of it, with the listener that heard it as a plain sentence; null where nothing listened.</summary>
    private static (Hearing Hearing, Listener? Listener) Heard(string said, RecordType type, IEnumerable<Rule> rules, Rule like, Notation notation, IKnownNames known)
    {
        var (canonical, _) = SentenceReading.Of(said, type, like);
        if (canonical is not null)
        {
            return (Heard(canonical, type, []), null);
        }

        if (said.Length > MostCharacters)
        {
            return (new(null, null, [], null, new(MostCharacters, $"This is longer than {MostCharacters} characters. Say it in several rules.", [])), null);
        }

        var listener = new Listener(said, notation);
        ImmutableArray<Rule> all = [.. rules];
        var added = listener.First(() => new AdditionListener(listener, Lexicon.Of(type), all).Rule());
        if (added is null)
        {
            listener = new Listener(said, notation);
        }

        var rule = added ?? listener.First(() => new RuleListener(listener, Lexicon.Of(type)).Rule(like));
        if (rule is not null && !listener.Questions.IsEmpty)
        {
            return (new(null, null, listener.Guesses, listener.Questions[0], null), listener);
        }

        if (rule is not null && IsCertain(listener) && (added is not null || said.Contains('(', StringComparison.Ordinal)))
        {
            return (Heard(rule, type, listener.Guesses), listener);
        }

        // What is no plain sentence is understood by what its words may name and do.
        return (Judged(said, type, listener, rule, Understanding.Of(said, type, like, notation, known)), listener);
    }

    /// <summary>Of two ways of hearing it, what is to be said.</summary>
    private static Hearing Judged(string said, RecordType type, Listener listener, Rule? rule, Hearing understood)
    {
        if (rule is not null && IsCertain(listener))
        {
            // Two ways of hearing it that disagree are asked about.
            return understood.Rule is null || rule.Where is not null || Shape.IsSame(understood.Rule.Cases, rule.Cases) ? Heard(rule, type, listener.Guesses) with { Aligned = understood.Rule is null ? [] : understood.Aligned }
                : new(null, null, [], new(0, said.Length, said, [.. new[] { rule, understood.Rule }.Select(one => Written(one, type)).Select(sentence => new Wordage(sentence, sentence))]), null);
        }

        return understood.Rule is { } meant ? understood with { Rule = Named(meant, type), Guesses = rule is null ? understood.Guesses : [.. understood.Guesses, .. Same(understood, rule, type) ? listener.Guesses : []] }
            : rule is not null ? Heard(rule, type, listener.Guesses)
            : understood.Misunderstanding is { IsTelling: true } ? understood
            : Misunderstanding.Of(listener, Lexicon.Of(type)) is var unheard && (unheard.IsTelling || (understood.Question ?? (object?)understood.Misunderstanding) is null) ? new(null, null, [], null, unheard) { Aligned = understood.Aligned }
            : understood;
    }

    /// <summary>Whether both ways of hearing it came to the same: then what was guessed is worth saying.</summary>
    private static bool Same(Hearing understood, Rule rule, RecordType type) => understood.Sentence == Written(rule, type);

    /// <summary>Whether nothing is open, and nothing was guessed that could be something else.</summary>
    private static bool IsCertain(Listener listener) => listener.Questions.IsEmpty && listener.Guesses.All(guess => guess.Others.IsEmpty);

    private static Hearing Heard(Rule rule, RecordType type, ImmutableArray<Guess> guesses) => new(Named(rule, type), Written(rule, type), guesses, null, null);

    private static string Written(Rule rule, RecordType type) => Sentences.Sentence.Plain(Sentences.Sentence.Of(rule, type));

    private static Rule Named(Rule rule, RecordType type) => rule.Name.Length > 0 ? rule : rule with { Name = RuleName.For(rule, type) };
}

/// <summary>Words that stand for others.</summary>
/// <param name="Label">What people read who choose it.</param>
/// <param name="Text">What takes the place of the words that were said.</param>
public sealed record Wordage(string Label, string Text);

/// <summary>Something that was not said in so many words.</summary>
/// <param name="Start">Where it begins in what was typed.</param>
/// <param name="End">Where it ends there.</param>
/// <param name="Meant">What it was taken for.</param>
/// <param name="Others">What it could be instead.</param>
public sealed record Guess(int Start, int End, string Meant, ImmutableArray<Wordage> Others);

/// <summary>Something that could mean several things.</summary>
/// <param name="Start">Where it begins in what was typed.</param>
/// <param name="End">Where it ends there.</param>
/// <param name="Said">The words themselves.</param>
/// <param name="Options">What they can mean; one only where something was not understood.</param>
public sealed record Question(int Start, int End, string Said, ImmutableArray<Wordage> Options);
