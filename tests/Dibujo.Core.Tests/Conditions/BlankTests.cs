using Dibujo.Core.Conditions;
using Dibujo.Core.Values;
using static Dibujo.Core.Tests.Small;

namespace Dibujo.Core.Tests.Conditions;

public class BlankTests
{
    public static TheoryData<string, Test, object[]> Positive => new()
    {
        { "title", Test.Is, ["x"] },
        { "title", Test.OneOf, ["x", "y"] },
        { "title", Test.Contains, ["x"] },
        { "title", Test.StartsWith, ["x"] },
        { "grossWeight", Test.AtLeast, [3] },
        { "grossWeight", Test.LessThan, [3] },
        { "grossWeight", Test.AtMost, [3] },
        { "grossWeight", Test.MoreThan, [-1] },
        { "grossWeight", Test.Between, [0, 5] },
        { "startDate", Test.Before, ["2026-01-01"] },
        { "startDate", Test.FromOn, ["2026-01-01"] },
        { "startDate", Test.After, [Of("endDate")] },
        { "material", Test.Is, ["textile"] },
        { "crateNeeded", Test.Is, [false] },
        { "title", Test.Is, [Of("remarks")] },
    };

    [Theory]
    [MemberData(nameof(Positive))]
    public void A_positive_test_on_a_blank_is_false(string field, Test test, object[] comparands) =>
        Assert.Equal(-1, Under(While(Field(field, test, comparands), Hide("remarks"))).Open().CaseInForce(0));

    [Theory]
    [InlineData("title", Test.IsNot, "x")]
    [InlineData("title", Test.NoneOf, "x")]
    [InlineData("title", Test.DoesNotContain, "x")]
    [InlineData("title", Test.DoesNotStartWith, "x")]
    [InlineData("material", Test.IsNot, "textile")]
    public void A_negative_test_on_a_blank_is_true(string field, Test test, string comparand) =>
        Assert.Equal(0, Under(While(Field(field, test, comparand), Hide("remarks"))).Open().CaseInForce(0));

    [Fact]
    public void White_space_is_blank() =>
        Assert.Equal(0, Under(While(Field("title", Test.Blank), Hide("remarks"))).Open(Record(("title", "x"))).After(s => s.Type("title", "  \t")).CaseInForce(0));

    [Theory]
    [InlineData("\u200B")]
    [InlineData("\u200D\uFEFF\u2060")]
    [InlineData("\u00AD \u180E")]
    [InlineData("\u3164\u115F\u2800")]
    [InlineData("\uFE0F")]
    [InlineData("\u0000")]
    [InlineData("\uDB40\uDC41")]
    public void What_nobody_can_see_is_blank(string text)
    {
        Assert.True(new Text(text).IsBlank);
        Assert.True(Compound.Empty.With("given", new Text(text)).IsBlank);
        Assert.True(new Compound(Compound.Empty.Parts.Add("given", text)).IsBlank);
        Assert.Equal(0, Under(While(Field("title", Test.Blank), Hide("remarks"))).Open(Record(("title", "x"))).After(s => s.Type("title", text)).CaseInForce(0));
    }

    [Theory]
    [InlineData("x")]
    [InlineData("\u200Bé")]
    [InlineData("木")]
    [InlineData("🏛")]
    [InlineData("…")]
    public void What_anybody_can_see_is_not_blank(string text) => Assert.False(new Text(text).IsBlank);

    [Theory]
    [InlineData("  KREIDE ", true)]
    [InlineData("kreide", true)]
    [InlineData("kre\u0301ide", false)]
    public void Text_compares_without_case_and_surrounding_space(string typed, bool holds) =>
        Assert.Equal(holds, Under(While(Field("title", Test.Is, "Kreide"), Hide("remarks"))).Open().After(s => s.Type("title", typed)).CaseInForce(0) == 0);

    [Fact]
    public void Text_compares_without_regard_to_unicode_composition() =>
        Assert.Equal(0, Under(While(Field("title", Test.Contains, "É"), Hide("remarks"))).Open().After(s => s.Type("title", "Cafe\u0301")).CaseInForce(0));

    [Theory]
    [InlineData("0.1", "0.2", "0.3")]
    [InlineData("1.10", "2.20", "3.3")]
    public void Numbers_are_decimal(string one, string other, string sum)
    {
        var culture = System.Globalization.CultureInfo.InvariantCulture;
        var total = decimal.Parse(one, culture) + decimal.Parse(other, culture);
        var session = Under(While(Field("grossWeight", Test.Is, decimal.Parse(sum, culture)), Hide("remarks"))).Open();
        session.Type("grossWeight", total);
        Assert.Equal(0, session.CaseInForce(0));
    }

    [Fact]
    public void None_of_is_the_negation_of_any_of_and_empty_text_groups_nest()
    {
        var session = Under(
            While(None(Field("crateNeeded", Test.Is, true), All(Field("title", Test.FilledIn), Field("remarks", Test.FilledIn))), Hide("material")))
            .Open();

        Assert.Equal(0, session.CaseInForce(0));
        session.Type("title", "a");
        Assert.Equal(0, session.CaseInForce(0));
        session.Type("remarks", "b");
        Assert.Equal(-1, session.CaseInForce(0));
    }

    [Fact]
    public void A_stage_that_the_workflow_lacks_makes_positive_tests_false()
    {
        var definition = Under(While(Stage(Test.Before, "terms"), Hide("title")), While(Stage(Test.IsNot, "terms"), Hide("remarks")));
        var session = definition.Open(setting: AtEnquiry with { Workflow = "short" });

        Assert.Equal(-1, session.CaseInForce(0));
        Assert.Equal(0, session.CaseInForce(1));
        session.Enter(AtEnquiry);
        Assert.Equal(0, session.CaseInForce(0));
    }
}

internal static class Chaining
{
    internal static T After<T>(this T subject, Action<T> step)
    {
        step(subject);
        return subject;
    }
}
