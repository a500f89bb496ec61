using CsCheck;
using Dibujo.Core.Conditions;
using Dibujo.Core.Listing;
using Dibujo.Core.Values;
using static Dibujo.Core.Tests.Small;

namespace Dibujo.Core.Tests.Listing;

/// <summary>Keys by which lists are sorted, and which filters make sense.</summary>
public class ListKeyTests
{
    private static readonly Gen<decimal> Amounts =
        Gen.Select(Gen.Long[-999_999_999_999, 999_999_999_999], Gen.Int[0, 9]).Select((digits, scale) => new decimal(digits) / (decimal)Math.Pow(10, scale));

    [Fact]
    public void Numbers_sort_by_size() => Gen.Select(Amounts, Amounts).Sample((one, other) =>
        Assert.Equal(Math.Sign(((decimal)(double)one).CompareTo((decimal)(double)other)), Math.Sign(Compare(new Number(one), new Number(other)))));

    [Fact]
    public void The_largest_numbers_that_there_are_sort_at_the_ends()
    {
        Assert.True(Compare(new Number(decimal.MinValue), new Number(-1)) < 0);
        Assert.True(Compare(new Number(decimal.MaxValue), new Number(1)) > 0);
    }

    [Fact]
    public void Days_sort_by_the_calendar() => Gen.Select(Gen.Int[0, 3_000_000], Gen.Int[0, 3_000_000]).Sample((one, other) =>
        Assert.Equal(Math.Sign(one.CompareTo(other)), Math.Sign(Compare(new Date(DateOnly.FromDayNumber(one)), new Date(DateOnly.FromDayNumber(other))))));

    [Theory]
    [InlineData("Amélie", " AME\u0301LIE ")]
    [InlineData("kite", "Kite")]
    public void Text_that_rules_take_for_equal_has_one_key(string one, string other) => Assert.Equal(0, Compare(new Text(one), new Text(other)));

    [Fact]
    public void A_bare_value_has_the_key_of_the_one_that_fits_its_field()
    {
        foreach (var (field, bare) in ((string, Value)[])[("startDate", new Text("2026-11-29")), ("material", new Text("paper")), ("insuredValue", new Number(3)), ("crateNeeded", Yes)])
        {
            Assert.Equal(0, Compare(bare, Loan.Find(field)!.Type.Fit(bare)!));
        }
    }

    [Fact]
    public void What_is_blank_has_no_key() => Assert.All((Value[])[Value.Blank, new Text("  "), new Choices([]), Compound.Empty], value => Assert.Null(ListKey.Of(value)));

    [Theory]
    [InlineData("colour", Core.Conditions.Test.Is, "red", "There is no column")]
    [InlineData("crateNeeded", Core.Conditions.Test.AtLeast, "3", "cannot be tested like that")]
    [InlineData("insuredValue", Core.Conditions.Test.Between, "3", "wrong number of values")]
    [InlineData("startDate", Core.Conditions.Test.Before, "soon", "cannot hold")]
    public void A_filter_that_makes_no_sense_is_told_what_is_wrong_with_it(string of, Test test, string value, string said) =>
        Assert.Contains(said, ListColumn.Mistake(Loan, new FilterGroup(Quantifier.AllOf, [new FilterClause(of, test) { Values = [new Text(value)] }])), StringComparison.Ordinal);

    private static int Compare(Value one, Value other) => ListKey.Of(one).AsSpan().SequenceCompareTo(ListKey.Of(other));
}
