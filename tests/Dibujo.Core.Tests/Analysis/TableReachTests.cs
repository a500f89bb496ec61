using CsCheck;
using Dibujo.Core.Analysis;
using Dibujo.Core.Conditions;
using Dibujo.Core.Evaluation;
using Dibujo.Core.Rules;
using Dibujo.Core.Values;
using static Dibujo.Core.Tests.Small;

namespace Dibujo.Core.Tests.Analysis;

/// <summary>Rows that are never reached, that overlap, and what none covers.</summary>
public class TableReachTests
{
    [Fact]
    public void A_row_below_one_that_takes_everything_is_never_reached()
    {
        var reach = Of(Row(Cell(Test.AtLeast, 10), Any), Row(Any, Any), Row(Cell(Test.LessThan, 5), Any));

        Assert.Equal<int>([2], reach.Unreached);
        Assert.Empty(reach.Gaps);
    }

    [Fact]
    public void A_row_that_two_others_cover_together_is_never_reached() =>
        Assert.Equal<int>([2], Of(Row(Cell(Test.LessThan, 10), Any), Row(Cell(Test.AtLeast, 10), Any), Row(Cell(Test.Between, 5, 20), Any)).Unreached);

    [Fact]
    public void What_no_row_covers_is_named_by_a_value() =>
        Assert.Equal<string>(["Gross weight 10 kg, Material Work on paper"], Of(
            Row(Cell(Test.LessThan, 10), Any), Row(Cell(Test.MoreThan, 10), Any), Row(Any, Cell(Test.IsNot, "paper"))).Gaps);

    [Fact]
    public void Rows_that_take_a_part_of_each_other_are_told_and_exceptions_from_a_general_row_are_not()
    {
        var overlapping = Of(Row(Cell(Test.LessThan, 10), Any, State.Hidden), Row(Cell(Test.AtLeast, 5), Any, State.Shown));
        var exception = Of(Row(Cell(Test.LessThan, 10), Any, State.Hidden), Row(Cell(Test.LessThan, 50), Any, State.Shown));

        Assert.Equal<RowPair>([new(0, 1)], overlapping.Overlaps);
        Assert.Empty(exception.Overlaps);
    }

    [Fact]
    public void Nothing_is_said_where_a_cell_compares_with_another_field() =>
        Assert.Empty(Of(Row(Any, Any), Row(new Cell(Test.Is) { Comparands = [Small.Of("insuredValue")] }, Any)).Unreached);

    [Fact]
    public void Without_a_row_that_is_never_reached_every_record_is_as_before()
    {
        var cell = Gen.OneOf(Gen.Const(Any), Gen.Select(OneOf(Test.LessThan, Test.AtLeast, Test.MoreThan), Gen.Int[0, 6]).Select((test, amount) => Cell(test, amount)));
        var other = Gen.OneOf(Gen.Const(Any), Gen.Select(OneOf(Test.Is, Test.IsNot), OneOf("paper", "textile")).Select((test, key) => Cell(test, key)));
        var row = Gen.Select(cell, other, OneOf(State.Hidden, State.Locked, State.RequiredToSave)).Select((a, b, state) => Row(a, b, state));
        Gen.Select(row.Array[1, 6], Gen.Int[0, 7], OneOf<string?>("paper", "textile", null)).Sample((some, weight, material) =>
        {
            Row[] rows = [.. some, Row(Any, Any, State.Optional)];
            var reached = rows.Where((_, i) => !Of(rows).Unreached.Contains(i)).ToArray();
            var record = material is null ? Record(("grossWeight", weight)) : Record(("grossWeight", weight), ("material", new Choice(material)));

            Assert.Equal(Title(rows, record), Title(reached, record));
        });
    }

    private static readonly Cell Any = new();

    private static Gen<T> OneOf<T>(params T[] all) => Gen.Int[0, all.Length - 1].Select(i => all[i]);

    private static Cell Cell(Test test, params object[] comparands) => new(test) { Comparands = Field("title", test, comparands).Comparands };

    private static Row Row(Cell weight, Cell material, State state = State.Hidden) => new([weight, material], [new StateAnswer([state])]);

    private static DecisionTable Table(params Row[] rows) =>
        new(HitPolicy.First, [new FieldSubject("grossWeight"), new FieldSubject("material")], [new StateOutput(Hide("title").Targets)], [.. rows]);

    private static TableReach Of(params Row[] rows) => TableReach.Of(Table(rows), Loan);

    private static ElementState Title(Row[] rows, RecordValues record) =>
        new Definition(Loan, [new("table", "Table", Table: Table(rows))]).Open(record).State("title");
}
