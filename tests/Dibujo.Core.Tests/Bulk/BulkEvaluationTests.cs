using CsCheck;
using Dibujo.Core.Bulk;
using Dibujo.Core.Conditions;
using Dibujo.Core.Evaluation;
using Dibujo.Core.Records;
using Dibujo.Core.Values;
using static Dibujo.Core.Tests.Small;

namespace Dibujo.Core.Tests.Bulk;

public class BulkEvaluationTests
{
    [Theory]
    [InlineData(false)]
    [InlineData(true)]
    public void Many_records_at_once_are_as_each_is_in_a_session(bool withValueEffects) => Gen.UInt.Sample(seed =>
    {
        var chance = new Chance(seed) { HasValueEffects = withValueEffects };
        var definition = chance.Definition();
        var program = Chance.Compile(definition);
        var setting = chance.Setting();
        List<RecordValues> records = [.. Enumerable.Range(0, (int)(seed % 140)).Select(_ => chance.Record())];

        var bulk = new BulkEvaluation(program, new RecordColumns(definition.RecordType, records), setting, chance);

        for (var record = 0; record < records.Count; record++)
        {
            var session = new Session(program, records[record], setting, chance);
            for (var rule = 0; rule < definition.Rules.Length; rule++)
            {
                Assert.Equal(session.CaseInForce(rule), bulk.CaseInForce(rule, record));
            }
        }
    }, iter: 150);

    [Fact]
    public void A_case_is_counted_in_the_records_in_which_it_is_in_force()
    {
        var definition = Under(While(Field("grossWeight", Test.AtLeast, 100), Hide("remarks")));
        var records = new RecordColumns(definition.RecordType, Enumerable.Range(0, 200).Select(weight => Record(("grossWeight", weight))));
        var bulk = new BulkEvaluation(definition.Compiled(), records, AtEnquiry);

        Assert.Equal(100, bulk.CountOf(0, 0));
        Assert.Equal((-1, 0), (bulk.CaseInForce(0, 99), bulk.CaseInForce(0, 100)));
    }

    [Fact]
    public void Columns_give_back_the_records_that_they_took_in() => Gen.UInt.Sample(seed =>
    {
        var chance = new Chance(seed);
        var type = chance.Definition().RecordType;
        List<RecordValues> records = [.. Enumerable.Range(0, 20).Select(_ => chance.Record().FittedTo(type))];
        var columns = new RecordColumns(type, records);

        Assert.Equal(records, Enumerable.Range(0, columns.Count).Select(i => columns[i]));
    }, iter: 100);
}
