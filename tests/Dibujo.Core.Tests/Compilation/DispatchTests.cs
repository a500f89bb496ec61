using CsCheck;
using Dibujo.Core.Operands;
using Dibujo.Core.Programs;
using Dibujo.Core.Values;

namespace Dibujo.Core.Tests.Compilation;

public class DispatchTests
{
    private static readonly ClauseOp[] Comparing =
        [ClauseOp.Equal, ClauseOp.OneOf, ClauseOp.Less, ClauseOp.AtMost, ClauseOp.AtLeast, ClauseOp.More, ClauseOp.Between, ClauseOp.FilledIn];

    private static readonly ClauseOp[] Searching = [ClauseOp.Equal, ClauseOp.OneOf, ClauseOp.Contains, ClauseOp.StartsWith, ClauseOp.FilledIn];

    /// <summary>Many comparands, among them some that no double can tell from their neighbours.</summary>
    private static readonly decimal[] Numbers =
        [.. Enumerable.Range(-20, 41).Select(n => n / 4m), 0.1m, 0.1000000000000000000000000001m, decimal.MaxValue, decimal.MaxValue - 1, decimal.MinValue];

    private static readonly string[] Words = ["", "a", "A", " a ", "ab", "ba", "abc", "Ünder", "under", "a b"];

    [Fact]
    public void Deciding_clauses_on_a_number_at_once_is_as_deciding_each() =>
        Gen.Select(Clauses(Comparing, From(Numbers).Select(n => Operand.Of(new Number(n)))), From(Numbers))
            .Sample((clauses, number) => Agree(clauses, Operand.Of(new Number(number))), iter: 3000);

    [Fact]
    public void Deciding_clauses_on_text_at_once_is_as_deciding_each() =>
        Gen.Select(Clauses(Searching, From(Words).Select(w => Operand.Of(new Text(w)))), From(Words))
            .Sample((clauses, word) => Agree(clauses, Operand.Of(new Text(word))), iter: 3000);

    [Fact]
    public void A_blank_is_not_even_equal_to_nothing() =>
        Agree([new(0, ClauseOp.Equal, [default]), new(1, ClauseOp.FilledIn, [])], default);

    [Fact]
    public void So_many_classes_that_a_table_of_them_would_be_too_large_are_left_to_be_decided_one_by_one() =>
        Assert.Null(Dispatch.Of([.. Enumerable.Range(0, 1000).Select(i => new FixedClause(i, ClauseOp.AtLeast, [Operand.Of(i)]))]));

    private static void Agree(FixedClause[] clauses, Operand value)
    {
        if (Dispatch.Of(clauses) is not var (dispatch, order))
        {
            Assert.All(clauses, clause => Assert.True(clause.Op is ClauseOp.Contains or ClauseOp.StartsWith && clause.Comparands[0].Kind == OperandKind.Blank));
            return;
        }

        var decided = new bool[dispatch.Count];
        dispatch.Decide(in value, decided);

        foreach (var (i, number) in order.Index())
        {
            Assert.Equal(OperandTest.Holds(clauses[number].Op, value, clauses[number].Comparands), decided[i]);
        }
    }

    private static Gen<T> From<T>(T[] items) => Gen.Int[0, items.Length - 1].Select(i => items[i]);

    private static Gen<FixedClause[]> Clauses(ClauseOp[] ops, Gen<Operand> operand) => Gen.Select(From(ops), operand, operand)
        .Array[1, 60].Select(some => some.Select((clause, i) => new FixedClause(i, clause.Item1, clause.Item1 switch
        {
            ClauseOp.FilledIn => [],
            ClauseOp.Between or ClauseOp.OneOf => [clause.Item2, clause.Item3],
            _ => [clause.Item2],
        })).ToArray());
}
