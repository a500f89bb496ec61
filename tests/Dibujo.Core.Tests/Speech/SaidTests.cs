using System.Text.RegularExpressions;
using Dibujo.Core.Notations;
using Dibujo.Core.Packs;
using Dibujo.Core.Rules;
using Dibujo.Core.Sentences;
using Dibujo.Core.Speech;

namespace Dibujo.Core.Tests.Speech;

/// <summary>Rules in the ways in which offices talk, with what each means: <c>said.tsv</c> beside this file. "ASK" is where only a question is right.</summary>
public sealed partial class SaidTests
{
    private static readonly (string Account, string Name)[] Folk =
        [("ada", "Ada Penhallow"), ("lorenz", "Lorenz Vahl"), ("rosa", "Rosa Okkema"), ("conrad", "Conrad Sill"), ("delphine", "Delphine Marrow")];

    private static readonly KnownPeople People = new(Folk);

    private static readonly Row[] Rows = [.. File.ReadLines(Checkout.Path("tests", "Dibujo.Core.Tests", "Speech", "said.tsv"))
        .Select(line => line.Split('\t')).Select(parts => new Row(PackOf(parts[1]), parts[2], parts[3].Split(" || ")))];

    private sealed record Row(Pack Pack, string Said, string[] Meant);

    /// <summary>What is not understood is asked for.</summary>
    [Fact]
    public void Nine_in_ten_are_understood_and_one_in_a_hundred_at_most_is_taken_for_something_else()
    {
        var heard = Rows.Select(row => (Row: row, Sentence: Heard(row))).ToList();

        var otherwise = heard.Where(one => one.Sentence is not null && !IsMeant(one.Row, one.Sentence)).Select(one => $"{one.Row.Said} → {one.Sentence}").ToList();
        Assert.True(otherwise.Count * 100 <= heard.Count, string.Join('\n', otherwise));
        var rules = heard.Where(one => one.Row.Meant is not ["ASK"]).ToList();
        Assert.True(rules.Count(one => one.Sentence is not null) * 10 >= rules.Count * 9, string.Join('\n', rules.Where(one => one.Sentence is null).Select(one => one.Row.Said)));
    }

    /// <summary>A word that turns a sentence round, a number or a quotation never goes without a trace.</summary>
    [Fact]
    public void Without_a_word_that_counts_another_rule_is_heard_or_it_is_asked()
    {
        var lost = new List<string>();
        foreach (var row in Rows)
        {
            var whole = Heard(row);
            foreach (Match word in Counting().Matches(row.Said))
            {
                var without = row with { Said = row.Said.Remove(word.Index, word.Length) };
                if (whole is not null && Heard(without) == whole && Told(without).IsEmpty && !IsSaidAgain(word.Value, without.Said, whole))
                {
                    lost.Add($"{row.Said}: without “{word.Value}” still {whole}");
                }
            }
        }

        Assert.Empty(lost);
    }

    /// <summary>Who says "otherwise" need not say "only", nor who says it twice, or of choices.</summary>
    private static bool IsSaidAgain(string word, string without, string whole) => string.Equals(word, "only", StringComparison.OrdinalIgnoreCase)
        && (without.Contains("only", StringComparison.OrdinalIgnoreCase) || without.Contains("otherwise", StringComparison.Ordinal) || whole.Contains(" narrow ", StringComparison.Ordinal));

    [Fact]
    public void A_sentence_means_the_same_whatever_other_rules_there_are() => Assert.All(Rows, row => Assert.Equal(
        Hearing.Of(row.Said, row.Pack.RecordType, [], new Rule("r", ""), null, People).Sentence,
        Hearing.Of(row.Said, row.Pack.RecordType, row.Pack.Rules, new Rule("r", ""), null, People).Sentence));

    /// <summary>The ten jobs of docs/effort.md, each in three further ways: <c>jobs.tsv</c>.</summary>
    [Fact]
    public void The_ten_jobs_are_understood_in_three_further_ways()
    {
        var pack = PackOf("object-loan");
        var wrong = File.ReadLines(Checkout.Path("tests", "Dibujo.Core.Tests", "Speech", "jobs.tsv")).Select(line => line.Split('\t'))
            .Select(parts => (Row: new Row(pack, parts[1], [parts[2]]), Sentence: Hearing.Of(parts[1], pack.RecordType, pack.Rules, new Rule("r", ""), null, People).Sentence ?? "not understood"))
            .Where(one => !one.Sentence.Contains(one.Row.Meant[0], StringComparison.Ordinal) && !IsMeant(one.Row, one.Sentence)).Select(one => $"{one.Row.Said} → {one.Sentence}");

        Assert.Empty(wrong);
    }

    /// <summary>What is kept from key to key changes nothing.</summary>
    [Fact]
    public void A_sentence_means_the_same_however_it_was_typed()
    {
        var random = new Random(7);
        foreach (var row in Rows.Where((_, at) => at % 9 == 0))
        {
            // Another record type of the same content knows nothing of what was typed before.
            var (typed, fresh) = (row.Pack.RecordType with { }, row.Pack.RecordType with { });
            for (var end = 1; end < row.Said.Length; end += random.Next(1, 6))
            {
                Hearing.Of(row.Said[..end] + (random.Next(9) == 0 ? " not" : ""), typed, [], new Rule("r", ""), null, People);
            }

            Assert.Equal(Hearing.Of(row.Said, fresh, [], new Rule("r", ""), null, People), Hearing.Of(row.Said, typed, [], new Rule("r", ""), null, People), (one, other) =>
                one.Sentence == other.Sentence && (one.Question?.Options ?? []).SequenceEqual(other.Question?.Options ?? []) && one.Misunderstanding?.Message == other.Misunderstanding?.Message);
        }
    }

    [Fact]
    public void To_show_what_rests_shown_is_to_show_it_only_then_and_it_is_said()
    {
        var heard = Hearing.Of("When there's a needed by date the details should appear", PackOf("gallery-works").RecordType, [], new Rule("r", ""));

        Assert.Equal("While Needed by is filled in, show Details; otherwise hide Details.", heard.Sentence);
        Assert.Contains(heard.Guesses, guess => guess.Meant.StartsWith("only while", StringComparison.Ordinal));
    }

    [Fact]
    public void A_name_is_one_of_those_who_are_there_or_is_asked_for()
    {
        var type = PackOf("object-loan").RecordType;

        Assert.Contains("“rosa”", Hearing.Of("Rosa Okkema can't see the fee", type, [], new Rule("r", ""), null, People).Sentence, StringComparison.Ordinal);
        Assert.Null(Hearing.Of("Mallory Grue can't see the fee", type, [], new Rule("r", ""), null, People).Sentence);
        Assert.Null(Hearing.Of("if requested by is Mallory, hide the fee", type, [], new Rule("r", ""), null, People).Sentence);
    }

    [Fact]
    public void What_is_not_understood_is_named()
    {
        var heard = Hearing.Of("If the climate class is B, the light limit must be filled in", PackOf("object-loan").RecordType, [], new Rule("r", ""));

        Assert.Null(heard.Rule);
        Assert.DoesNotContain("Always", heard.Misunderstanding?.Message ?? "", StringComparison.Ordinal);
        Assert.Contains("class", heard.Question?.Said ?? heard.Misunderstanding!.Message, StringComparison.Ordinal);
    }

    /// <summary>Those of the demo, and one that is only spoken about here.</summary>
    private static Pack PackOf(string key) => PackFile.Read(File.ReadAllBytes(key == "tour-booking"
        ? Checkout.Path("tests", "Dibujo.Core.Tests", "Speech", $"{key}.pack.json")
        : Checkout.Path("src", "Dibujo.Server", "Demo", $"{key}.pack.json"))).Pack!;

    private static string? Heard(Row row) => Hearing.Of(row.Said, row.Pack.RecordType, [], new Rule("r", ""), null, People).Sentence;

    private static System.Collections.Immutable.ImmutableArray<Guess> Told(Row row) => Hearing.Of(row.Said, row.Pack.RecordType, [], new Rule("r", ""), null, People).Guesses;

    /// <summary>Whatever stands in quotation marks may be said in other words, and the order of what is said does not matter.</summary>
    private static bool IsMeant(Row row, string sentence) => row.Meant.Any(meant => meant != "ASK" && ShapeOf(row, meant, sentence) == ShapeOf(row, sentence, meant));

    private static string ShapeOf(Row row, string sentence, string other)
    {
        foreach (var (account, name) in Folk)
        {
            sentence = sentence.Replace(name, account, StringComparison.Ordinal);
        }

        // Where only one of two was given words of its own, any do.
        var text = sentence.Contains("“…”", StringComparison.Ordinal) || other.Contains("“…”", StringComparison.Ordinal) ? Quotations().Replace(sentence, "“…”") : sentence;
        return SentenceReading.Of(text, row.Pack.RecordType, new Rule("r", "")).Rule is { } rule ? Shape.Of(rule.Cases) : text;
    }

    [GeneratedRegex("“[^”]*”", RegexOptions.None, 1000)]
    private static partial Regex Quotations();

    [GeneratedRegex("""\b(not|no(?!\.)|never|only|unless|except|otherwise|nobody|neither|or)\b|\d+|"[^"]*"|n't\b""", RegexOptions.IgnoreCase | RegexOptions.ExplicitCapture, 1000)]
    private static partial Regex Counting();
}
