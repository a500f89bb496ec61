using CsCheck;
using Dibujo.Core.Json;
using Dibujo.Core.Rules;
using Dibujo.Core.Sentences;
using static Dibujo.Core.Tests.Small;

namespace Dibujo.Core.Tests.Sentences;

public class SentenceReadingTests
{
    [Fact]
    public void A_sentence_reads_back_as_the_rule_it_was_written_from() => Gen.UInt.Sample(seed =>
    {
        var definition = new Chance(seed) { HasOddLabels = true }.Definition();
        foreach (var rule in definition.Rules)
        {
            var sentence = Sentence.Plain(Sentence.Of(rule, definition.RecordType));
            var (read, problem) = SentenceReading.Of(sentence, definition.RecordType, rule with { Cases = [], Table = null, Where = null });

            Assert.True(problem is null, $"{sentence}\n{problem?.Message}");
            Assert.Equal(Json(rule), Json(read!));
        }
    }, iter: 2000);

    [Theory]
    [InlineData("While Crate needed is yes, require Gross weight to save.")]
    [InlineData("While Stage is from Terms on and (Insured value is at least EUR 50,000 or Material is one of Work on paper or Textile), show section Crate and lock tab Transport; otherwise hide Remarks and clear.")]
    [InlineData("While Start date is before today minus 15 years, warn with “Is this right?” at Start date and suggest setting End date to 24 Nov 2026 because “a loan has an end”.")]
    [InlineData("Only on Quick enquiry through an import: always stop saving with “Not this way.”.")]
    [InlineData("By unique table on Material | Crate needed for Gross weight | value of Crate length: is Textile | is yes → shown, required to save | 12 cm; is not Textile | any → hidden | —.")]
    [InlineData("While Title has changed, calculate Gross weight as {«Crate length» * 2} and jump ahead to section Insurance.")]
    [InlineData("While Move is Approve, require Certificate for Approve saying “No certificate, no loan.” and end the form with “Thank you.”.")]
    public void What_one_says_is_what_one_reads(string sentence)
    {
        var (rule, problem) = SentenceReading.Of(sentence, Loan, new Rule("r", "Rule"));

        Assert.Null(problem);
        Assert.Equal(sentence, Sentence.Plain(Sentence.Of(rule!, Loan)));
    }

    [Theory]
    [InlineData("While Crate needed is ", 0, "yes")]
    [InlineData("While Ins", 0, "Insured value")]
    [InlineData("While Crate needed ", 0, "is")]
    [InlineData("While Material is ", 0, "Work on paper")]
    [InlineData("While Crate needed is yes, ", 0, "require")]
    [InlineData("While Crate needed is yes, require Gross weight ", 2, "to save")]
    [InlineData("", 0, "only")]
    public void The_likely_next_words_are_offered(string half, int most, string offer)
    {
        var offers = SentenceReading.Complete(half, half.Length, Loan);
        Assert.Contains(offer, offers.Select(o => o.Text).Take(most + 4), StringComparer.OrdinalIgnoreCase);
    }

    [Fact]
    public void An_offer_takes_the_place_of_the_word_half_typed()
    {
        const string Half = "While Title is “x”, require Gro";
        var offer = SentenceReading.Complete(Half, Half.Length, Loan)[0];

        Assert.Equal("Gross weight", offer.Text);
        Assert.Equal("Gro", Half[offer.Start..]);
    }

    [Theory]
    [InlineData("While Crate needed is perhaps, show Title.", 22, "yes")]
    [InlineData("While Colour is red, show Title.", 6, "Title")]
    [InlineData("While Crate needed is yes, destroy Title.", 27, "require")]
    [InlineData("While Gross weight is at least heavy, show Title.", 31, "a number")]
    [InlineData("While Title is “open, show Title.", 33, "”")]
    [InlineData("While Title is at least 3, show Title.", 15, "text in quotation marks")]
    public void A_wrong_sentence_is_told_what_was_expected_where(string sentence, int place, string expected)
    {
        var (rule, problem) = SentenceReading.Of(sentence, Loan, new Rule("r", "Rule"));

        Assert.Null(rule);
        Assert.Equal(place, problem!.Place);
        Assert.Contains(expected, problem.Expected);
        Assert.NotEmpty(problem.Message);
    }

    [Fact]
    public void Too_many_parentheses_in_each_other_are_told_and_marks_stand_in_quotation_marks()
    {
        var deep = SentenceReading.Of($"While {new string('(', 30)}Title is “a”", Loan, new Rule("r", "Rule")).Problem!;
        var open = SentenceReading.Of("While Title is “a” show Title.", Loan, new Rule("r", "Rule")).Problem!;

        Assert.EndsWith("Write at most 24 parentheses in each other there.", deep.Message, StringComparison.Ordinal);
        Assert.Contains("“,”", open.Message, StringComparison.Ordinal);
    }

    [Fact]
    public void A_table_of_a_thousand_rows_reads_back_from_its_sentence()
    {
        var rows = Enumerable.Range(0, 1000).Select(i => new Row(
            [new(Core.Conditions.Test.Is) { Comparands = [new Core.Conditions.Literal(new Core.Values.Text($"Lantern {i}"))] }], [new StateAnswer([State.Hidden])]));
        var rule = new Rule("r", "Rule", Table: new(HitPolicy.First, [new Core.Conditions.FieldSubject("title")], [new StateOutput([Element("remarks")])], [.. rows]));

        Assert.Equal(Json(rule), Json(SentenceReading.Of(Sentence.Plain(Sentence.Of(rule, Loan)), Loan, rule).Rule!));
    }

    private static string Json(Rule rule) => System.Text.Json.JsonSerializer.Serialize(rule, CoreJson.Default.Rule);

    [Theory]
    [InlineData("While Title is filled in, set Kinds of hazard to just Mould.")]
    [InlineData("While Kinds of hazard includes all of Mould & Sharp edges & Loose parts or Fee is blank, lock the record.")]
    [InlineData("Always require the record to move on.")]
    public void What_is_one_of_its_kind_reads_back_as_it_was(string sentence)
    {
        var rule = LoanFile.Under(sentence.Replace("& Sharp edges & L", ", Sharp edges & L", StringComparison.Ordinal)).Rules[0];

        Assert.Equal(rule, LoanFile.Under(Sentence.Plain(Sentence.Of(rule, LoanFile.Type))).Rules[0]);
    }

    [Fact]
    public void The_apostrophe_of_the_keyboard_is_taken_for_the_one_in_the_label()
    {
        var label = LoanFile.Type.Fields.First(f => f.Label.Contains('’', StringComparison.Ordinal)).Label;

        var rules = LoanFile.Under($"Always lock {label}.", $"Always lock {label.Replace('’', '\'')}.").Rules;

        Assert.Equal(rules[0], rules[1] with { Key = rules[0].Key });
    }
}
