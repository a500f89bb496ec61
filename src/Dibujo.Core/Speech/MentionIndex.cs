using System.Collections.Concurrent;
using System.Collections.Immutable;
using System.Runtime.CompilerServices;
using Dibujo.Core.Conditions;
using Dibujo.Core.Forms;
using Dibujo.Core.Records;

namespace Dibujo.Core.Speech;

/// <summary>All names of a record type, for finding them in what is said.</summary>
internal sealed class MentionIndex
{
    /// <summary>What a name is not told by, and what may stand between its words.</summary>
    private static readonly HashSet<string> Small = new(
        ["of", "for", "on", "in", "by", "to", "from", "and", "or", "with", "as", "at", "is", "are", "was", "were", "been", "has", "have", "be", "not", "no", "than", "before", "after", "it", "its", "my", "their", "our", "&", "what", "where", "when", "who", "how", "why", "last", "next", "first"],
        StringComparer.Ordinal);

    private static readonly HashSet<string> Abbreviations = new(["no", "nr", "num"], StringComparer.Ordinal);

    private static readonly HashSet<string> Verbs = new(["is", "are", "was", "were", "been", "has", "have"], StringComparer.Ordinal);

    private static readonly ConditionalWeakTable<RecordType, MentionIndex> Made = [];

    private readonly List<(Thing Thing, string[] Words, double Extra)> names = [];

    /// <summary>Each word of a name, with its stem and where it stands in which names.</summary>
    private readonly Dictionary<string, (string Stem, List<(int Name, int Place)> Places)> vocabulary = new(StringComparer.Ordinal);

    /// <summary>Whole names of fields: who says "fee" where there is one means no "fee waived".</summary>
    private readonly HashSet<string> whole = new(StringComparer.Ordinal);

    /// <summary>Names of one word, whatever they name.</summary>
    private readonly HashSet<string> single = new(StringComparer.Ordinal);

    private readonly ConcurrentDictionary<string, Dictionary<int, List<(int Place, double Cost)>>> kept = new(StringComparer.Ordinal);

    private const int MostKept = 2000;

    /// <summary>How long a word must be that may stand for a part of a name with a slip in it.</summary>
    private const int ShortestSlippedPart = 6;

    private static readonly Dictionary<int, List<(int Place, double Cost)>> Nothing = [];

    private MentionIndex(RecordType type)
    {
        var lexicon = Lexicon.Of(type);
        foreach (var name in lexicon.Subjects.Names)
        {
            var field = name.Thing switch
            {
                FieldSubject { Field: var key } => type.Find(key),
                LinkedSubject { Via: [var key] } => type.Find(key),
                _ => null,
            };
            if (field is { Retired: false })
            {
                Element? element = name.Thing switch
                {
                    FieldSubject { Part: null } => Element.Field(field.Key),
                    FieldSubject { Part: { } part } => Element.Part(field.Key, part),
                    _ => null,
                };
                Add(new Thing.Field(field, name.Thing, element), name.Words, name.Thing is FieldSubject { Part: null } ? 0 : name.Thing is LinkedSubject ? 0.2 : 0.1);
            }
        }

        foreach (var alike in type.Fields.Where(field => !field.Retired)
            .Select(field => (Subject: (Subject)new FieldSubject(field.Key), Kind: field.Type.GetType().Name, Words: Words.Of(field.Label).Select(word => word.Text.ToLowerInvariant()).Where(word => !Small.Contains(word)).ToArray()))
            .Where(one => one.Words.Length > 0).GroupBy(one => $"{one.Kind} {string.Join(' ', one.Words)}", StringComparer.Ordinal).Where(group => group.Count() > 1))
        {
            Add(new Thing.Fields([.. alike.Select(one => one.Subject)]), alike.First().Words, -0.15);
        }

        foreach (var name in lexicon.Targets.Names.Where(name => name.Thing.Kind is ElementKind.Section or ElementKind.Tab or ElementKind.Form))
        {
            Add(new Thing.Place(name.Thing), name.Words, 0);
        }

        foreach (var field in type.Fields.Where(field => !field.Retired && field.Type is IOffersOptions))
        {
            foreach (var option in ((IOffersOptions)field.Type).Options.Where(option => !option.Retired))
            {
                Add(new Thing.Choice(field, option.Key), Words.Of(option.Label).Select(word => word.Text.ToLowerInvariant()), 0);
            }
        }

        Settings(new StageSubject(), lexicon.Stages);
        Settings(new RoleSubject(), lexicon.Roles);
        Settings(new MoveSubject(), lexicon.Moves);
        Settings(new FormSubject(), lexicon.Forms);
        foreach (var move in type.Workflows.SelectMany(workflow => workflow.Moves))
        {
            // A finished job is where "Finish" leads to.
            if (Words.Of(move.Label) is [{ Text: var verb }])
            {
                Add(new Thing.Setting(new StageSubject(), move.To), [verb.ToLowerInvariant().TrimEnd('e') + "ed"], 0.3);
            }
        }

        foreach (var workflow in type.Workflows)
        {
            Add(new Thing.Setting(new WorkflowSubject(), workflow.Key), Words.Of(workflow.Label).Select(word => word.Text.ToLowerInvariant()), 0);
        }

        foreach (var word in type.OtherWords.Where(word => word.IsIn(type)))
        {
            Add(Meant(word, type), Words.Of(word.Said).Select(one => one.Text.ToLowerInvariant()), 0);
        }

        Own = Filler.Own(type.Label);
        Index();
    }

    /// <summary>That for which people here have another word.</summary>
    private static Thing Meant(OtherWord word, RecordType type) => word switch
    {
        { Stage: { } stage } => new Thing.Setting(new StageSubject(), stage),
        { Role: { } role } => new Thing.Setting(new RoleSubject(), role),
        { Field: { } field, Choice: { } choice } => new Thing.Choice(type.Find(field)!, choice),
        _ => new Thing.Field(type.Find(word.Field!)!, new FieldSubject(word.Field!), Element.Field(word.Field!)),
    };

    /// <summary>What a record is called here.</summary>
    internal IReadOnlySet<string> Own { get; }

    private void Index()
    {
        for (var name = 0; name < names.Count; name++)
        {
            if (names[name].Thing is Thing.Field { Element.Kind: ElementKind.Field })
            {
                whole.Add(string.Join(' ', names[name].Words));
            }

            if (names[name].Words is [var only])
            {
                single.Add(only);
            }

            for (var place = 0; place < names[name].Words.Length; place++)
            {
                var word = names[name].Words[place];
                (vocabulary.TryGetValue(word, out var known) ? known : vocabulary[word] = (Stem.Of(word), [])).Places.Add((name, place));
            }
        }
    }

    internal static MentionIndex Of(RecordType type) => Made.GetValue(type, made => new(made));

    /// <summary>Every field in whose name such a word stands.</summary>
    internal ImmutableArray<Element> About(string word) =>
        [.. names.Where(name => name.Thing is Thing.Field { Element.Kind: ElementKind.Field } && name.Words.Any(one => Stem.Distance(word, one) < 0.1)).Select(name => ((Thing.Field)name.Thing).Element!.Value)];

    /// <summary>Those among them that are lengths.</summary>
    internal ImmutableArray<Element> Lengths(ImmutableArray<Element> all) =>
        [.. names.Select(name => name.Thing).OfType<Thing.Field>().Where(field => field is { Of.Type: NumberType { Unit: "cm" or "m" or "mm" or "in" or "ft" }, Element: { } element } && all.Contains(element)).Select(field => field.Element!.Value).Distinct()];

    /// <summary>"South rooms": the choices of a field with that word, where the next is the field's and in the plural.</summary>
    internal IEnumerable<(Field Field, ImmutableArray<string> Keys)> Several(string word, string plural) =>
        plural.Length > 3 && plural[^1] == 's'
            ? names.Where(name => name.Thing is Thing.Choice && name.Words.Length > 1 && Stem.Distance(word, name.Words[0]) is < 0.1).Select(name => (Thing.Choice)name.Thing).GroupBy(choice => choice.Of)
                .Where(group => group.Count() > 1 && Words.Of(group.Key.Label).Any(one => Stem.Distance(plural, one.Text.ToLowerInvariant()) is < 0.1))
                .Select(group => (group.Key, group.Select(choice => choice.Key).ToImmutableArray()))
            : [];

    /// <summary>Whether that word is the whole name of a choice, a stage or the like.</summary>
    internal bool IsName(string word) => single.Contains(word);

    /// <summary>Every stretch of the words that may name something.</summary>
    internal IEnumerable<Mention> In(ImmutableArray<Word> words)
    {
        var like = words.Select(word => word.Kind is WordKind.Quoted or WordKind.Braced ? Nothing : Like(word.Text)).ToArray();
        for (var start = 0; start < words.Length; start++)
        {
            foreach (var name in like[start].Keys)
            {
                foreach (var mention in From(start, name, words, like))
                {
                    yield return mention;
                }
            }
        }
    }

    /// <summary>Where the word could stand in each name. Kept, since all but the last word are said again at each key.</summary>
    private Dictionary<int, List<(int Place, double Cost)>> Like(string word)
    {
        if (kept.Count > MostKept)
        {
            kept.Clear();
        }

        return kept.GetOrAdd(word, said =>
        {
            var found = new Dictionary<int, List<(int Place, double Cost)>>();
            var stem = Stem.Of(said);
            foreach (var (meant, (its, places)) in vocabulary)
            {
                // "Could" is no slip for "mould".
                if ((meant == "number" && Abbreviations.Contains(said) ? 0.1 : Stem.Distance(said, stem, meant, its)) is { } cost && (cost <= 0.1 || !Filler.IsCheap(said)))
                {
                    foreach (var (name, place) in places)
                    {
                        // Who borrows is not "Borrower", who directs no director.
                        if (names[name].Thing is not Thing.Field && meant.Length == stem.Length + 2 && meant[^2..] is "er" or "or" && meant.StartsWith(stem, StringComparison.Ordinal))
                        {
                            continue;
                        }

                        (found.TryGetValue(name, out var others) ? others : found[name] = []).Add((place, cost));
                    }
                }
            }

            return found;
        });
    }

    private IEnumerable<Mention> From(int start, int name, ImmutableArray<Word> words, Dictionary<int, List<(int Place, double Cost)>>[] like)
    {
        var (thing, called, extra) = names[name];
        var taken = new List<int>();
        var (cost, between, verb, denied) = (extra, 0.0, false, false);
        var slipped = false;
        var passed = 0;
        for (var at = start; at < words.Length && at < start + called.Length + 3; at++)
        {
            if (like[at].TryGetValue(name, out var places) && places.Where(one => !taken.Contains(one.Place)).OrderBy(one => one.Cost).ThenBy(one => Math.Abs(one.Place - taken.Count)).ToList() is [var best, ..])
            {
                // "Flight nr." is no name by its "nr." alone.
                if (taken.Count == 0 && called[best.Place] == "number" && Abbreviations.Contains(words[at].Text))
                {
                    yield break;
                }

                // A choice in another kind of word: "photos" for "Photography".
                cost += best.Cost + (thing is Thing.Choice && best.Cost is 0.3 or 0.35 ? 0.3 : 0) + (taken.Count > 0 && best.Place < taken[^1] ? 0.15 : 0) + between;
                (between, passed) = (0, 0);
                slipped |= best.Cost >= Stem.Slip;
                taken.Add(best.Place);
                if (thing is Thing.Fields && Missing(thing, called, taken) is { } part && at + 3 < words.Length && words[at + 1].Text is "from" or "to" && words[at + 2].Text is "and" && words[at + 3].Text is "from" or "to")
                {
                    // "Humidity from and to".
                    yield return new(start, at + 4, cost + part - 0.1, thing, null);
                }

                // What is only like a part of a name names nothing: "sense" is no "send to assessment".
                if (slipped && taken.Count < called.Length && words[at].Text.Length < ShortestSlippedPart)
                {
                    continue;
                }

                if (Missing(thing, called, taken) is { } missing && !(thing is Thing.Fields && at + 1 < words.Length && words[at + 1].Text is "from" or "to" or "by" or "on" or "at"))
                {
                    missing += missing > 0 && thing is Thing.Field && whole.Contains(string.Join(' ', words.Skip(start).Take(at + 1 - start).Select(word => word.Text))) ? 0.35 : 0;
                    // A tour guide is no "tour".
                    missing += thing is Thing.Setting { Of: RoleSubject } && !taken.Contains(called.Length - 1) ? 0.6 : 0;
                    bool? isAnswered = missing > 0 ? null : denied ? false : verb ? true : null;
                    var isOwn = (missing > 0 || thing is Thing.Place) && Enumerable.Range(start, at + 1 - start).All(i => Own.Contains(words[i].Text) || Small.Contains(words[i].Text));
                    foreach (var mention in KindWords.Around(new(start, at + 1, cost + missing + (isOwn ? thing is Thing.Place ? 0.3 : 0.8 : 0), thing, denied && missing > 0 ? null : isAnswered), words))
                    {
                        yield return mention;
                    }
                }
            }
            else if (taken.Count > 0 && passed < 2 && words[at].Text is not ("and" or "or") && (Small.Contains(words[at].Text) || IsAbbreviated(words, at)))
            {
                passed++;
                between += 0.05;
                verb |= Verbs.Contains(words[at].Text);
                denied |= words[at].Text is "not" or "no";
            }
            else
            {
                yield break;
            }
        }
    }

    /// <summary>"Rel. humidity": a point behind a short word ends no sentence.</summary>
    private static bool IsAbbreviated(ImmutableArray<Word> words, int at) => words[at].Text == "." && words[at - 1].Text.Length <= 4 && words[at - 1].End == words[at].Start;

    /// <summary>What it costs that words of the name are left out; null where those that are there tell nothing.</summary>
    private static double? Missing(Thing thing, string[] called, List<int> taken)
    {
        if (taken.Count == called.Length)
        {
            return 0;
        }

        // "Groups" is no "Adult group" where what is asked is the kind of group.
        if (thing is Thing.Choice { Of.Label: var label } && Words.Of(label).Select(word => Stem.Of(word.Text.ToLowerInvariant())).ToHashSet(StringComparer.Ordinal) is var asked && taken.All(place => asked.Contains(Stem.Of(called[place]))))
        {
            return null;
        }

        // "No lunch" is not named by "lunch".
        if (taken.All(place => Small.Contains(called[place])) || called.Where((word, place) => !taken.Contains(place)).Any(Filler.IsDenying))
        {
            return null;
        }

        var left = Enumerable.Range(0, called.Length).Where(place => !taken.Contains(place)).Sum(place => Small.Contains(called[place]) ? 0.05 : 0.2);
        return 0.2 + Math.Min(left, 0.6);
    }

    private void Settings(Subject subject, NameIndex<string> index)
    {
        foreach (var name in index.Names)
        {
            Add(new Thing.Setting(subject, name.Thing), name.Words, 0);
        }
    }

    private void Add(Thing thing, IEnumerable<string> words, double extra) => names.Add((thing, [.. words.Where(word => word != Sentences.Names.Step)], extra));
}
