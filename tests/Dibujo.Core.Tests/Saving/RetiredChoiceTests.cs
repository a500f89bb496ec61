using System.Collections.Immutable;
using Dibujo.Core.Records;
using Dibujo.Core.Values;

namespace Dibujo.Core.Tests.Saving;

/// <summary>A choice that is retired may stay but not be chosen.</summary>
public class RetiredChoiceTests
{
    private static readonly ImmutableArray<Option> Options = [new("p", "P"), new("q", "Q", Retired: true), new("r", "R")];

    [Theory]
    [InlineData("q p", "q p r", true)]
    [InlineData("q p", "q", true)]
    [InlineData("q p", "p", true)]
    [InlineData("p", "p q", false)]
    [InlineData("", "q", false)]
    public void Of_several_choices_those_that_are_held_stay(string saved, string now, bool fits) =>
        Assert.Equal(fits, new ChoicesType(Options).Violation(Keys(now), Keys(saved)) is null);

    [Theory]
    [InlineData("q", "q", true)]
    [InlineData("p", "q", false)]
    public void A_choice_that_is_held_stays(string saved, string now, bool fits) =>
        Assert.Equal(fits, new ChoiceType(Options).Violation(new Choice(now), new Choice(saved)) is null);

    [Fact]
    public void More_keys_than_there_are_choices_are_not_looked_at() =>
        Assert.Null(new ChoicesType(Options).Fit(new Choices([.. Enumerable.Range(0, 100_000).Select(i => $"k{i}")])));

    [Fact]
    public void What_can_be_chosen_is_named_without_retired_choices_and_not_without_end()
    {
        Assert.Equal("one of P, R", new ChoiceType(Options).Noun);
        Assert.EndsWith("and 80 more", new ChoiceType([.. Enumerable.Range(0, 100).Select(i => new Option($"k{i}", "K"))]).Noun, StringComparison.Ordinal);
    }

    private static Value Keys(string keys) => keys.Length == 0 ? Value.Blank : new Choices([.. keys.Split(' ')]);
}
