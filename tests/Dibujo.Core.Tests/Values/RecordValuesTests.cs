using Dibujo.Core.Records;
using Dibujo.Core.Values;

namespace Dibujo.Core.Tests.Values;

public class RecordValuesTests
{
    private static readonly RecordValues Lantern = LoanFile.Saved(("title", "Lantern"), ("fee", 3));

    [Fact]
    public void Records_with_the_same_values_are_equal_in_whatever_order_they_came()
    {
        var other = LoanFile.Saved(("fee", 3.0m), ("title", "Lantern"));

        Assert.Equal(Lantern, other);
        Assert.Equal(Lantern.GetHashCode(), other.GetHashCode());
        Assert.NotEqual(Lantern, Lantern.With("fee", new Number(4)));
        Assert.NotEqual(Lantern, Lantern.With("fee", Value.Blank));
    }

    [Theory]
    [InlineData("STRAẞE", "Straße")]
    [InlineData("ΟΔΟΣ", "οδος")]
    [InlineData("Ǆ", "ǆ")]
    [InlineData("ÉTÉ ", "été")]
    public void Text_is_the_same_in_capitals(string capitals, string small) => Assert.Equal(FoldedText.Of(capitals), FoldedText.Of(small));

    [Fact]
    public void Changing_one_leaves_the_other_as_it_was()
    {
        var changed = Lantern.With("title", new Text("Kite")).With("fee", Value.Blank);

        Assert.Equal(new Text("Lantern"), Lantern["title"]);
        Assert.Equal((new Text("Kite"), Value.Blank), (changed["title"], changed["fee"]));
        Assert.Equal(["title"], changed.ByField.Keys);
    }

    [Fact]
    public void Fitting_leaves_out_what_no_field_holds()
    {
        var raw = new RecordValues([
            KeyValuePair.Create<string, Value>("title", new Text("Kite")), KeyValuePair.Create<string, Value>("material", new Text("paper")),
            KeyValuePair.Create<string, Value>("fee", new Text("dear")), KeyValuePair.Create<string, Value>("vault", new Number(1)), KeyValuePair.Create<string, Value>("valuer", new Text(" ")),
        ]);

        Assert.Equal(LoanFile.Saved(("title", "Kite"), ("material", "paper")), raw.FittedTo(LoanFile.Type));
    }

    [Theory]
    [InlineData("a; b", "b; a", true)]
    [InlineData("a; b", "a", false)]
    [InlineData("a; b", "a; c", false)]
    public void Several_choices_are_a_set(string one, string other, bool equal)
    {
        var (a, b) = (new Choices([.. one.Split("; ")]), new Choices([.. other.Split("; ")]));

        Assert.Equal(equal, a.Equals(b));
        Assert.True(!equal || a.GetHashCode() == b.GetHashCode());
    }

    [Fact]
    public void A_value_of_parts_that_are_all_blank_is_blank()
    {
        var name = Compound.Empty.With("given", new Text("Mara"));

        Assert.False(name.IsBlank);
        Assert.True(name.With("given", new Text("  ")).IsBlank);
        Assert.Equal(Compound.Empty, name.With("given", Value.Blank));
        Assert.Equal(Value.Blank, name["family"]);
    }
}
