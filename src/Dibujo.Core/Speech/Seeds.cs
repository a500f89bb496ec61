using System.Collections.Immutable;
using System.Globalization;
using Dibujo.Core.Conditions;
using Dibujo.Core.Forms;
using Dibujo.Core.Notations;
using Dibujo.Core.Records;
using Dibujo.Core.Rules;
using Dibujo.Core.Values;

namespace Dibujo.Core.Speech;

/// <summary>What each stretch of the words may be by itself: a name, a cue, a number, a day, a person.</summary>
internal sealed class Seeds(string said, ImmutableArray<Word> words, MentionIndex names, Notation notation, IKnownNames known)
{
    private const int LongestName = 4;

    /// <summary>How many words a phrase has that says what it says and names nothing: "make no sense".</summary>
    private const int Phrase = 3;

    /// <summary>What is far from a name and part of a phrase is not that name.</summary>
    private const double Far = 0.3;

    private readonly List<Mention> mentions = Telling([.. names.In(words)], words);

    /// <summary>Without those that only end a phrase: what comes further behind a mention must not tell whether it is one.</summary>
    private static List<Mention> Telling(List<Mention> all, ImmutableArray<Word> words)
    {
        var phrases = Enumerable.Range(0, words.Length).SelectMany(at => CueBook.At(words, at).Where(one => one.Length >= Phrase).Select(one => (Start: at, End: at + one.Length))).ToList();
        all.RemoveAll(mention => mention.Cost >= Far && phrases.Exists(phrase => phrase.Start <= mention.Start && mention.End <= phrase.End && phrase.End <= mention.End + 1));
        return all;
    }

    private static readonly Dictionary<string, decimal> Numerals = new(StringComparer.Ordinal)
    {
        ["zero"] = 0,
        ["nought"] = 0,
        ["nil"] = 0,
        ["one"] = 1,
        ["two"] = 2,
        ["three"] = 3,
        ["four"] = 4,
        ["five"] = 5,
        ["six"] = 6,
        ["seven"] = 7,
        ["eight"] = 8,
        ["nine"] = 9,
        ["ten"] = 10,
        ["eleven"] = 11,
        ["twelve"] = 12,
        ["fifteen"] = 15,
        ["twenty"] = 20,
        ["thirty"] = 30,
        ["forty"] = 40,
        ["fifty"] = 50,
        ["sixty"] = 60,
        ["ninety"] = 90,
        ["hundred"] = 100,
        ["half"] = 0.5m,
        ["dozen"] = 12,
    };

    private static readonly Dictionary<string, decimal> Times = new(StringComparer.Ordinal) { ["hundred"] = 100, ["thousand"] = 1000, ["million"] = 1_000_000, ["mio"] = 1_000_000, ["grand"] = 1000, ["dozen"] = 12 };

    private static readonly HashSet<string> Spans = new(["day", "week", "month", "year"], StringComparer.Ordinal);

    /// <summary>What is named for sure, from the first word on: the longest and closest names that do not overlap.</summary>
    internal IEnumerable<(int Start, int End, Node Node)> Named()
    {
        var from = 0;
        foreach (var mention in mentions.Where(mention => mention.Cost < 0.35).OrderBy(mention => mention.Start).ThenByDescending(mention => mention.End).ThenBy(mention => mention.Cost))
        {
            if (mention.Start >= from && Of(mention).FirstOrDefault() is { } node)
            {
                yield return (mention.Start, mention.End, node);
                from = mention.End;
            }
        }
    }

    /// <summary>Whether that word may be part of a name, or of what people say for a part of a rule.</summary>
    internal bool Stands(int at) =>
        mentions.Exists(mention => mention.Start <= at && at < mention.End) || Enumerable.Range(Math.Max(0, at - 5), Math.Min(at, 5) + 1).Any(start => CueBook.At(words, start, names.Own).Any(one => start + one.Length > at))
        || CueBook.Slipped(words, at).Any() || words[at].Kind != WordKind.Plain;

    /// <summary>Every such stretch, with what it costs to take it so.</summary>
    internal IEnumerable<(int Start, int End, Node Node, double Cost)> All()
    {
        for (var at = 0; at < words.Length; at++)
        {
            foreach (var (cue, length) in CueBook.At(words, at, names.Own))
            {
                // What is said in more words is meant by all of them.
                foreach (var one in OfCue(cue, at, length, -0.05 * (length - 1)))
                {
                    yield return one;
                }
            }

            if (names.Own.Contains(words[at].Text))
            {
                yield return (at, at + 1, new Node.Targets([Element.Record]), 0.8);
            }

            foreach (var one in Measured(at).Concat(Group(at)))
            {
                yield return one;
            }

            // "Take them away": what is done to it stands between the two words of the verb.
            if (at + 2 < words.Length && words[at + 1].Text is "it" or "them" or "this" or "that")
            {
                foreach (var cue in CueBook.Around(words[at].Text, words[at + 2].Text))
                {
                    yield return (at, at + 1, new Node.Said(cue), 0);
                    yield return (at + 1, at + 3, new Node.Said(Cue.Itself), 0);
                }
            }

            foreach (var one in Single(at).Concat(Freely(at)))
            {
                yield return one;
            }
        }

        foreach (var mention in mentions)
        {
            foreach (var node in Of(mention))
            {
                yield return (mention.Start, mention.End, node.Cost == 0 ? node : node with { Cost = 0 }, mention.Cost + node.Cost);
            }
        }
    }

    private IEnumerable<(int Start, int End, Node Node, double Cost)> OfCue(Cue cue, int at, int length, double cost)
    {
        yield return (at, at + length, new Node.Said(cue), cost);
        switch (cue)
        {
            case Cue.Me:
                yield return (at, at + length, new Node.Other(new SubjectComparand(new PersonSubject())), cost);
                break;
            case Cue.Today:
                yield return (at, at + length, new Node.Other(new RelativeDay(0)), cost);
                break;
            case Cue.Tomorrow or Cue.Yesterday:
                yield return (at, at + length, new Node.Other(new RelativeDay(cue == Cue.Tomorrow ? 1 : -1)), cost);
                break;
            case Cue.Everything:
                yield return (at, at + length, new Node.Targets([Element.Record]), cost + 0.1);
                break;
            case Cue.EverythingAbout when at + length < words.Length && names.About(words[at + length].Text) is { IsEmpty: false } about:
                yield return (at, at + length + 1, new Node.Targets(about), cost);
                break;
        }
    }

    /// <summary>"Heavier than" asks for a weight.</summary>
    private IEnumerable<(int Start, int End, Node Node, double Cost)> Measured(int at)
    {
        if (Measure.At(words, at) is var (noun, test, length))
        {
            foreach (var element in names.About(noun))
            {
                yield return (at, at + length, new Node.Measured(new FieldSubject(element.Key), test), 0);
            }
        }

        if (Measure.Before(words, at) is { } asked)
        {
            foreach (var element in names.About(asked))
            {
                yield return (at, at + 1, new Node.Subjects([new FieldSubject(element.Key)]), 0);
            }
        }
    }

    /// <summary>"The crate measures", "both humidity fields", "south rooms": all whose names have that word.</summary>
    private IEnumerable<(int Start, int End, Node Node, double Cost)> Group(int at)
    {
        if (at + 1 >= words.Length)
        {
            yield break;
        }

        if (Measure.IsPlural(words[at + 1].Text) && names.About(words[at].Text) is { Length: > 1 } about)
        {
            var some = words[at + 1].Text is "fields" or "values" or "entries" ? about : names.Lengths(about);
            if (some.Length > 1)
            {
                yield return (at, at + 2, new Node.Targets(some, IsListed: true), 0);
                yield return (at, at + 2, new Node.Subjects([.. some.Select(one => new FieldSubject(one.Key))]), 0);
            }
        }

        foreach (var (field, keys) in names.Several(words[at].Text, words[at + 1].Text))
        {
            yield return (at, at + 2, new Node.Choices(field, keys), 0.05);
        }
    }

    private IEnumerable<(int Start, int End, Node Node, double Cost)> Single(int at)
    {
        var word = words[at];
        switch (word.Kind)
        {
            case WordKind.Quoted:
                yield return (at, at + 1, new Node.Quoted(word.Text), 0);
                break;
            case WordKind.Day:
                foreach (var day in word.Others.IsDefaultOrEmpty ? [word.Text] : word.Others.Prepend(word.Text))
                {
                    yield return (at, at + 1, new Node.Other(new Literal(new Text(day))), 0);
                }

                break;
            default:
                foreach (var amount in Amounts(at))
                {
                    yield return amount;
                }

                foreach (var one in CueBook.Slipped(words, at).SelectMany(slip => OfCue(slip.Cue, at, slip.Length, 0.4)))
                {
                    yield return one;
                }

                for (var length = 1; length <= LongestName && at + length <= words.Length && words[at + length - 1].Kind == WordKind.Plain; length++)
                {
                    var name = said[word.Start..words[at + length - 1].End];
                    if (char.IsUpper(name[0]) || length == 1)
                    {
                        foreach (var account in known.PeopleCalled(name))
                        {
                            // What is the name of something here is no person.
                            if (!mentions.Exists(mention => mention.Start == at && mention.End == at + length && mention.Cost < 0.2))
                            {
                                yield return (at, at + length, new Node.Settings(new PersonSubject(), [account]), 0);
                            }
                        }
                    }
                }

                break;
        }
    }

    private IEnumerable<(int Start, int End, Node Node, double Cost)> Amounts(int at)
    {
        var end = at;
        while (end < words.Length && Comparison.Unit(words[end].Text) == "money")
        {
            end++;
        }

        decimal? read = null;
        if (end < words.Length && words[end].Kind == WordKind.Number && AmountReader.Read(words[end].Text, notation, 28) is [var amount])
        {
            // Who writes 50.000 means thousands more often than three digits after the point.
            read = words[end].Text is [.., '.', _, _, _] said && !said.Contains(',', StringComparison.Ordinal) ? decimal.Parse(said.Replace(".", "", StringComparison.Ordinal), CultureInfo.InvariantCulture) : amount.Amount;
            end++;
            // "50 000": what is written in groups.
            while (end < words.Length && words[end] is { Kind: WordKind.Number, Text: { Length: 3 } group } && words[end].Start == words[end - 1].End + 1 && group.All(char.IsAsciiDigit) && read is >= 1 and < 1000)
            {
                read = (read * 1000) + int.Parse(group, CultureInfo.InvariantCulture);
                end++;
            }
        }
        else if (end == at && Numerals.TryGetValue(words[at].Text, out var numeral))
        {
            read = numeral;
            end++;
        }
        else if (end == at && Spans.Contains(words[at].Text))
        {
            // Articles are not words here: "within a week".
            yield return (at, at + 1, new Node.Amount(1, Comparison.Unit(words[at].Text)), 0.1);
        }

        if (read is not { } number)
        {
            yield break;
        }

        if (end < words.Length && Times.TryGetValue(words[end].Text, out var times))
        {
            number *= times;
            end++;
        }

        yield return (at, end, new Node.Amount(number, null), 0);
        if (end < words.Length && words[end].Kind != WordKind.Quoted && Comparison.Unit(words[end].Text) is var unit && (unit != words[end].Text || unit is "days" or "weeks" or "months" or "years" or "lux" or "%" or "cm" or "kg" or "m" or "money"))
        {
            yield return (at, end + 1, new Node.Amount(number, unit), -0.05);
        }
    }

    /// <summary>"Remind them to tape the glass", "because it is dry there": words of one's own without quotation marks.</summary>
    private IEnumerable<(int Start, int End, Node Node, double Cost)> Freely(int at)
    {
        foreach (var (cue, length) in CueBook.At(words, at).Where(one => one.Cue is Cue.Tell or Cue.Warn or Cue.Suggest || (one.Cue == Cue.Saying && words[at].Text == "because")))
        {
            var from = at + length;
            while (from < words.Length && words[from].Text is "that" or "to" or "about" or ":" or "them" or "people" or "user")
            {
                from++;
            }

            if (cue != Cue.Saying && from == at + length && words[from - 1].Text != "that")
            {
                continue;
            }

            for (var end = from + 2; end <= words.Length && !CueBook.At(words, end - 2).Any(one => one.Cue is Cue.If or Cue.OnlyIf or Cue.Unless); end++)
            {
                if (!IsEnd(end) || words.Skip(from).Take(end - from).Any(word => word.Kind == WordKind.Quoted))
                {
                    continue;
                }

                var text = said[words[from].Start..words[end - 1].End];
                text = char.ToUpperInvariant(text[0]) + text[1..] + ".";
                if (cue == Cue.Saying)
                {
                    yield return (at, end, new Node.Words(text), 0.4);
                }
                else if (cue != Cue.Suggest)
                {
                    yield return (at, end, new Node.Does([new Message(cue == Cue.Warn ? Severity.Warning : Severity.Note, text)]), 1.1);
                }
            }
        }
    }

    /// <summary>Whether there may be words of somebody's own without quotation marks.</summary>
    internal static bool HasFree(ImmutableArray<Word> words) =>
        Enumerable.Range(0, words.Length).Any(at => words[at].Text == "because" || CueBook.At(words, at).Any(one => one.Cue is Cue.Tell or Cue.Warn or Cue.Suggest));

    private bool IsEnd(int at) => at == words.Length || words[at].Text is "." or "!" or "," or ";" || CueBook.At(words, at).Any(one => one.Cue is Cue.If or Cue.OnlyIf or Cue.Unless);

    private static IEnumerable<Node> Of(Mention mention)
    {
        switch (mention.Thing)
        {
            case Thing.Field field:
                if (mention.IsAnswered is { } answer)
                {
                    if (answer && field.Element is { } asked)
                    {
                        // "It must say whether damage was found."
                        yield return new Node.Targets([asked]) { Cost = 0.3 };
                    }

                    if (field.Of.Type is YesNoType && field.Element is { Kind: ElementKind.Field })
                    {
                        yield return new Node.Holds(new Clause(field.Subject, Test.Is) { Comparands = [new Literal(new YesNo(answer))] });
                        // "Then a crate is needed": the answer itself may be what follows.
                        yield return new Node.Does([new SetValue(field.Of.Key, new Literal(new YesNo(answer)))]) { Cost = 0.25 };
                    }
                }
                else
                {
                    yield return new Node.Subjects([field.Subject]);
                    if (field.Element is { } element)
                    {
                        yield return new Node.Targets([element]);
                    }
                }

                break;
            case Thing.Fields fields:
                yield return new Node.Subjects(fields.Subjects);
                yield return new Node.Targets([.. fields.Subjects.Select(subject => Element.Field(((FieldSubject)subject).Field))], IsListed: true);
                break;
            case Thing.Place place:
                yield return new Node.Targets([place.Element]);
                break;
            case Thing.Choice choice:
                yield return new Node.Choices(choice.Of, [choice.Key]);
                break;
            case Thing.Setting setting:
                yield return new Node.Settings(setting.Of, [setting.Key]);
                break;
        }
    }
}
