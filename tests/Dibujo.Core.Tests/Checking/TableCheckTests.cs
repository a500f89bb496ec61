using CsCheck;
using Dibujo.Core.Checking;
using Dibujo.Core.Conditions;
using Dibujo.Core.Evaluation;
using Dibujo.Core.Rules;
using Dibujo.Core.Sentences;
using static Dibujo.Core.Tests.Small;

namespace Dibujo.Core.Tests.Checking;

public class TableCheckTests
{
    [Theory]
    [InlineData("By unique table on Gross weight for Remarks: is less than 5 kg → shown; is at least 5 kg → hidden.", null)]
    [InlineData("By unique table on Gross weight for Remarks: is at most 5 kg → shown; is at least 5 kg → hidden.", "Gross weight 5 kg")]
    [InlineData("By unique table on Gross weight for Remarks: is more than 5 kg → shown; is less than 5.1 kg → hidden.", null)]
    [InlineData("By unique table on Gross weight for Remarks: is more than 5 kg → shown; is less than 5.2 kg → hidden.", "Gross weight 5.1 kg")]
    [InlineData("By unique table on Gross weight for Remarks: is more than 5,000 kg → shown; is filled in → hidden.", null)]
    [InlineData("By unique table on Insured value for Remarks: is less than EUR 10 → shown; is more than EUR 9.99 → hidden.", null)]
    [InlineData("By unique table on Insured value for Remarks: is less than EUR 10 → shown; is more than EUR 9.98 → hidden.", "Insured value EUR 9.99")]
    [InlineData("By unique table on Material | Crate needed for Remarks: is Textile | any → shown; is one of Textile or Work on paper | is yes → hidden.", "Material Textile, Crate needed yes")]
    [InlineData("By unique table on Material | Crate needed for Remarks: is Textile | is no → shown; is one of Textile or Work on paper | is yes → hidden.", null)]
    [InlineData("By unique table on Material for Remarks: is not Textile → shown; is blank → hidden.", "Material blank")]
    [InlineData("By unique table on Start date for Remarks: is before 1 Feb 2026 → shown; is between 1 Feb 2026 and 3 Feb 2026 → hidden; is after 3 Feb 2026 → locked.", null)]
    [InlineData("By unique table on Title for Remarks: starts with “a” → shown; contains “b” → hidden.", "Title a b")]
    [InlineData("By unique table on Stage for Remarks: is before Terms → shown; is from Terms on → hidden.", null)]
    [InlineData("By unique table on Title for Remarks: starts with “a” → shown; does not start with “a b” → hidden.", "Title a")]
    [InlineData("By unique table on Title for Remarks: is “a” → shown; does not contain “a” → hidden.", null)]
    [InlineData("By unique table on Title for Remarks: is not “a” → shown; contains “a” → hidden.", "Title a something else")]
    [InlineData("By unique table on Role for Remarks: is Director → shown; is Registrar → hidden.", "Role Director and Registrar")]
    [InlineData("By unique table on Role for Remarks: is Director → shown; is not Director → hidden.", null)]
    [InlineData("By unique table on Workflow for Remarks: is not Short → shown; is Short → hidden.", null)]
    [InlineData("By any table on Gross weight for Remarks: is at most 5 kg → shown; is at least 5 kg → shown.", null)]
    [InlineData("By any table on Gross weight for Remarks: is at most 5 kg → shown; is at least 5 kg → hidden.", "Gross weight 5 kg")]
    [InlineData("By first table on Gross weight for Remarks: is at most 5 kg → shown; is at least 5 kg → hidden.", null)]
    public void Rows_that_match_the_same_record_are_found_with_such_a_record(string sentence, string? example)
    {
        var rule = SentenceReading.Of(sentence, Loan, new Rule("t", "Table")).Rule!;

        var problems = DefinitionCheck.Of(new(Loan, [rule]));

        Assert.Equal(example is not null, problems.Length == 1);
        Assert.Contains(example ?? "", problems.FirstOrDefault()?.What ?? "", StringComparison.Ordinal);
    }

    [Theory]
    [InlineData("includes all of Mould & Sharp edges", "includes none of Loose parts", "Mould, Sharp edges")]
    [InlineData("includes all of Mould & Sharp edges", "includes none of Mould or Loose parts", null)]
    [InlineData("does not include all of Mould & Sharp edges", "includes all of Mould & Loose parts", "Mould, Loose parts")]
    [InlineData("includes all of Mould & Sharp edges", "does not include all of Mould & Sharp edges", null)]
    public void Rows_on_several_choices_that_match_the_same_record_are_found(string upper, string lower, string? example)
    {
        var definition = LoanFile.Under($"By unique table on Kinds of hazard for Fee: {upper} → locked; {lower} → open.");

        var problems = DefinitionCheck.Of(definition);

        Assert.Equal(example is not null, problems.Length == 1);
        Assert.Contains(example is null ? "" : $"Kinds of hazard {example}", problems.FirstOrDefault()?.What ?? "", StringComparison.Ordinal);
    }

    [Fact]
    public void No_record_matches_two_rows_of_a_unique_table_without_a_finding() => Gen.UInt.Sample(seed =>
    {
        var chance = new Chance(seed);
        var type = chance.Definition().RecordType;
        var table = chance.Table() with { Hit = HitPolicy.Unique, Outputs = [new MessageOutput(Severity.Note)] };
        table = table with { Rows = [.. table.Rows.Select(row => row with { Then = [new TextAnswer("Matches.")] })] };
        if (table.Rows.SelectMany(row => row.If).SelectMany(cell => cell.Comparands).Any(c => c is not Literal)
            || !DefinitionCheck.Of(new(type, [new Rule("t", "Table", Table: table)])).IsEmpty)
        {
            return;
        }

        var program = Chance.Compile(new(type, [.. table.Rows.Select((row, i) => new Rule($"r{i}", "Row", Table: table with { Rows = [row] }))]));
        for (var i = 0; i < 20; i++)
        {
            var session = new Session(program, chance.Record(), chance.Setting(), chance);
            session.Change(chance.Edits());
            Assert.True(table.Rows.Index().Count(row => session.CaseInForce(row.Index) >= 0) <= 1, Sentence.Plain(Sentence.Of(new Rule("t", "Table", Table: table), type)) + session.Setting + string.Join(",", session.Values().ByField));
        }
    }, iter: 2000);

    [Fact]
    public void A_table_is_no_longer_than_can_be_checked_at_once()
    {
        var row = new Row([new(Test.Is) { Comparands = [new Literal(ValueOf("a"))] }], [new StateAnswer([State.Hidden])]);
        var table = new DecisionTable(HitPolicy.Unique, [new FieldSubject("title")], [new StateOutput([Element("remarks")])], [.. Enumerable.Repeat(row, 1001)]);

        Assert.Equal("/rules/0/table/rows", Assert.Single(DefinitionCheck.Of(new(Loan, [new Rule("t", "Table", Table: table)]))).Place);
    }

    [Fact]
    public void A_table_has_as_many_cells_as_columns()
    {
        var table = new DecisionTable(HitPolicy.First, [new StageSubject()], [new StateOutput([Element("title")])],
            [new([], [new NoAnswer()]), new([new()], [new TextAnswer("x")])]);

        Assert.Equal(
            ["/rules/0/table/rows/0", "/rules/0/table/rows/1/then/0"],
            DefinitionCheck.Of(new(Loan, [new Rule("t", "Table", Table: table)])).Select(p => p.Place));
    }
}
