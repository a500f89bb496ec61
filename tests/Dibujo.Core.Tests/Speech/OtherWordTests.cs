using System.Text.Json.Nodes;
using Dibujo.Core.Checking;
using Dibujo.Core.Packs;
using Dibujo.Core.Records;
using Dibujo.Core.Reshaping;
using Dibujo.Core.Rules;
using Dibujo.Core.Speech;

namespace Dibujo.Core.Tests.Speech;

/// <summary>Words that people here use for something that has another name.</summary>
public class OtherWordTests
{
    private const string Made = "quorvex";

    private static readonly RecordType Loan = PackFile.Read(File.ReadAllBytes(Checkout.Path("src", "Dibujo.Server", "Demo", "object-loan.pack.json"))).Pack!.RecordType;

    [Fact]
    public void What_has_another_word_is_understood_by_it_as_by_its_name()
    {
        var (understood, all) = (0, 0);
        foreach (var (word, name) in Everything())
        {
            foreach (var sentence in word.Role is not null ? ["only a {0} may change the fee"] : word.Stage is not null ? ["lock the fee once {0}"] : word.Choice is not null ? ["hide the fee for {0}"] : (string[])["{0} must be filled in", "lock {0} for textiles"])
            {
                var byName = Heard(sentence, name, Loan);
                if (byName.Rule is null)
                {
                    continue;
                }

                all++;
                understood += Heard(sentence, Made, Loan with { OtherWords = [word] }).Sentence == byName.Sentence ? 1 : 0;
                Assert.Null(Heard(sentence, Made, Loan).Rule);
            }
        }

        Assert.True(all > 120 && understood == all, $"{understood} of {all}");
    }

    [Theory]
    [InlineData("hide the fee for ours", "hide the fee for us", "ours", "insuredBy", "us")]
    [InlineData("the surety must be filled in before saving", "the certificate number must be filled in before saving", "surety", "certificate", null)]
    [InlineData("lock the fee for nudes and paper", "lock the fee for oil on canvas and paper", "nudes", "material", "oil")]
    [InlineData("if it goes by lorry, require glazing", "if it goes by van, require glazing", "lorry", "mode", "van")]
    public void A_word_for_which_a_name_was_put_is_told(string said, string mended, string word, string field, string? choice)
    {
        // As it is typed, key by key.
        var misheard = Enumerable.Range(1, said.Length).Select(length => said[..length]).Where(text => Heard(text, "", Loan).Rule is null);

        Assert.Equal(new OtherWord(word, field, choice), MendedWord.Of(misheard, mended, Loan));
        Assert.Equal(Heard(mended, "", Loan).Sentence, Heard(said, "", Loan with { OtherWords = [new(word, field, choice)] }).Sentence);
    }

    [Theory]
    [InlineData("hide the fee for pap", "hide the fee for paper")]
    [InlineData("hide the cratte length", "hide the crate length")]
    [InlineData("hide the fee for", "hide the fee for textiles")]
    [InlineData("hide the fee for museums", "hide the fee for paper")]
    [InlineData("hide the fee for zebras", "hide the fee for paper and textiles")]
    [InlineData("zebras hide the fee", "lock the crate length for textiles")]
    public void What_was_typed_on_mended_or_said_of_something_else_is_no_word(string said, string mended) => Assert.Null(MendedWord.Of([said], mended, Loan));

    [Fact]
    public void It_follows_what_it_stands_for()
    {
        var definition = new Definition(Loan with { OtherWords = [new("charge", "fee"), new("cloth", "material", "textile"), new("back", Stage: "returned")] }, []);

        Assert.Equal("price", Reshaped.By(definition, new FieldRenamed("fee", "price")).Definition!.RecordType.OtherWords[0].Field);
        Assert.Equal("paper", Reshaped.By(definition, new ChoiceMerged("material", "textile", "paper")).Definition!.RecordType.OtherWords[1].Choice);
        var workflow = Loan.Workflows.First(one => one.Position("returned") >= 0);
        var without = Loan.Workflows.Aggregate(definition, (draft, one) => one.Position("returned") < 0 ? draft : Reshaped.By(draft, new StageRemoved(one.Key, "returned", one.Stages[0].Key)).Definition!);
        Assert.Equal(workflow.Stages[0].Key, without.RecordType.OtherWords[2].Stage);
        Assert.Empty(DefinitionCheck.OfRecordType(without.RecordType));
    }

    [Theory]
    [InlineData("""{ "said": "", "field": "fee" }""", "/recordType/otherWords/0/said")]
    [InlineData("""{ "said": "charge" }""", "/recordType/otherWords/0")]
    [InlineData("""{ "said": "charge", "field": "nothing" }""", "/recordType/otherWords/0")]
    [InlineData("""{ "said": "cloth", "field": "material", "choice": "nothing" }""", "/recordType/otherWords/0")]
    [InlineData("""{ "said": "both", "field": "fee", "stage": "returned" }""", "/recordType/otherWords/0")]
    public void One_that_stands_for_nothing_is_a_problem_of_the_pack(string word, string place)
    {
        var pack = JsonNode.Parse(File.ReadAllBytes(Checkout.Path("src", "Dibujo.Server", "Demo", "object-loan.pack.json")))!;
        pack["recordType"]!["otherWords"] = new JsonArray(JsonNode.Parse(word));

        var read = PackFile.Read(System.Text.Encoding.UTF8.GetBytes(pack.ToJsonString())).Pack!;

        Assert.Equal(place, Assert.Single(DefinitionCheck.OfRecordType(read.RecordType)).Place);
    }

    /// <summary>Everything that may have other words, with one for it and its name.</summary>
    private static IEnumerable<(OtherWord Word, string Name)> Everything() =>
        Loan.Fields.Where(field => !field.Retired).SelectMany(field => (field.Type is IOffersOptions { Options: var options }
                ? options.Where(option => !option.Retired).Select(option => (new OtherWord(Made, field.Key, option.Key), option.Label)) : [])
            .Append((new OtherWord(Made, field.Key), field.Label)))
        .Concat(Loan.Workflows.SelectMany(workflow => workflow.Stages).DistinctBy(stage => stage.Key).Select(stage => (new OtherWord(Made, Stage: stage.Key), stage.Label)))
        .Concat(Loan.Roles.Select(role => (new OtherWord(Made, Role: role.Key), role.Label)));

    private static Hearing Heard(string sentence, string name, RecordType type) => Hearing.Of(string.Format(null, sentence, name), type, [], new Rule("r", ""));
}
