using System.Text;
using CsCheck;
using Dibujo.Core.Conditions;
using Dibujo.Core.Dmn;
using Dibujo.Core.Json;
using Dibujo.Core.Packs;
using Dibujo.Core.Rules;
using static Dibujo.Core.Tests.Small;

namespace Dibujo.Core.Tests.Dmn;

public class DmnTests
{
    [Fact]
    public void A_table_reads_back_from_DMN_as_it_was_written() => Gen.UInt.Sample(seed =>
    {
        var definition = new Chance(seed).Definition();
        var (document, leftOut) = DmnWriter.Write(definition);
        var (rules, problems) = DmnReader.Read(new MemoryStream(Encoding.UTF8.GetBytes(document.ToString())), definition.RecordType);

        var written = definition.Rules.Where(r => r.Table is not null && !leftOut.Any(l => l.StartsWith(r.Name + ":", StringComparison.Ordinal))).ToList();
        Assert.True(written.Count == 0 || problems.IsEmpty, string.Join('\n', problems) + document);
        Assert.Equal(written.Select(r => Json(Plain(r))), rules.Select(r => Json(Plain(r))));
    }, iter: 1500);

    [Fact]
    public void Tables_of_other_programs_are_read_as_far_as_they_say_what_we_know()
    {
        var (rules, problems) = Read("""
            <?xml version="1.0"?>
            <dmn:definitions xmlns:dmn="https://www.omg.org/spec/DMN/20230324/MODEL/">
              <dmn:decision id="crate" name="Crate by material">
                <dmn:decisionTable hitPolicy="FIRST">
                  <dmn:input><dmn:inputExpression><dmn:text>material</dmn:text></dmn:inputExpression></dmn:input>
                  <dmn:input><dmn:inputExpression><dmn:text>grossWeight</dmn:text></dmn:inputExpression></dmn:input>
                  <dmn:output name="state section:crate field:certificate"/>
                  <dmn:output name="value remarks"/>
                  <dmn:rule>
                    <dmn:inputEntry><dmn:text>"paper", "textile"</dmn:text></dmn:inputEntry><dmn:inputEntry><dmn:text>&gt;= 5</dmn:text></dmn:inputEntry>
                    <dmn:outputEntry><dmn:text>["shown", "requiredToSave"]</dmn:text></dmn:outputEntry><dmn:outputEntry><dmn:text>"heavy"</dmn:text></dmn:outputEntry>
                  </dmn:rule>
                  <dmn:rule>
                    <dmn:inputEntry><dmn:text>not("wax")</dmn:text></dmn:inputEntry><dmn:inputEntry><dmn:text>-</dmn:text></dmn:inputEntry>
                    <dmn:outputEntry><dmn:text>"hidden"</dmn:text></dmn:outputEntry><dmn:outputEntry><dmn:text>title</dmn:text></dmn:outputEntry>
                  </dmn:rule>
                </dmn:decisionTable>
              </dmn:decision>
            </dmn:definitions>
            """);

        Assert.Empty(problems);
        Assert.Equal(
            "By first table on Material | Gross weight for section Crate and Certificate | value of Remarks: is one of Work on paper or Textile | is at least 5 kg → shown, required to save | “heavy”; is not Wax | any → hidden | the value of Title.",
            Core.Sentences.Sentence.Plain(Core.Sentences.Sentence.Of(rules.Single(), Loan)));
        Assert.Empty(Core.Checking.DefinitionCheck.Of(Merge.Rules(NoRules(), rules)));
    }

    [Theory]
    [InlineData("", "/line/")]
    [InlineData("<a", "/line/")]
    [InlineData("<!DOCTYPE a [<!ENTITY x \"y\"><!ENTITY z \"&x;&x;&x;\">]><definitions>&z;</definitions>", "/line/")]
    [InlineData("<definitions/>", "")]
    [InlineData("<definitions><decision id='d'><decisionTable hitPolicy='COLLECT'/></decision></definitions>", "/decision/d")]
    [InlineData("<definitions><decision id='d'><decisionTable><input><inputExpression><text>colour</text></inputExpression></input></decisionTable></decision></definitions>", "/decision/d/input/1")]
    [InlineData("<definitions><decision id='d'><decisionTable><input><inputExpression><text>title</text></inputExpression></input><output name='value remarks'/><rule><inputEntry><text>&gt; 3 +</text></inputEntry><outputEntry><text>1</text></outputEntry></rule></decisionTable></decision></definitions>", "/decision/d/rule/1/1")]
    public void A_wrong_file_gets_a_message_with_the_place(string xml, string place)
    {
        var (rules, problems) = Read(xml);
        Assert.Empty(rules);
        Assert.StartsWith(place, problems[0].Place, StringComparison.Ordinal);
        Assert.NotEmpty(problems[0].Mend);
    }

    [Fact]
    public void Deep_nesting_is_a_problem_and_not_a_crash() => Assert.NotEmpty(Read(
        "<definitions><decision id='d'>" + string.Concat(Enumerable.Repeat("<a>", 100_000)) + string.Concat(Enumerable.Repeat("</a>", 100_000)) + "</decision></definitions>").Problems);

    private static (System.Collections.Immutable.ImmutableArray<Rule> Rules, System.Collections.Immutable.ImmutableArray<Core.Checking.Problem> Problems) Read(string xml) =>
        DmnReader.Read(new MemoryStream(Encoding.UTF8.GetBytes(xml)), Loan);

    /// <summary>One of a single value is the value itself, several choices at once are as many, and whether a rule is on does not travel.</summary>
    private static Rule Plain(Rule rule) => rule with
    {
        On = true,
        Table = rule.Table! with
        {
            Rows = [.. rule.Table!.Rows.Select(row => row with
            {
                If = [.. row.If.Select(cell => cell with
                {
                    Comparands = [.. cell.Comparands.SelectMany<Comparand, Comparand>(c => c is Literal { Value: Core.Values.Choices several } ? several.Keys.Select(key => new Literal(new Core.Values.Text(key))) : [c])],
                }).Select(cell => cell.Comparands.Length != 1 ? cell : cell with
                {
                    Test = cell.Test switch
                    {
                        Test.OneOf => Test.Is,
                        Test.NoneOf => Test.IsNot,
                        Test.IncludesAll => Test.IncludesAny,
                        Test.DoesNotIncludeAll => Test.IncludesNone,
                        var other => other,
                    },
                })],
            })],
        },
    };

    private static string Json(Rule rule) => System.Text.Json.JsonSerializer.Serialize(rule, CoreJson.Default.Rule);
}
