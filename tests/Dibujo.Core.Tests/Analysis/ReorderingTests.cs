using System.Collections.Immutable;
using Dibujo.Core.Analysis;
using Dibujo.Core.Conditions;
using Dibujo.Core.Rules;
using static Dibujo.Core.Tests.Small;

namespace Dibujo.Core.Tests.Analysis;

/// <summary>What another order of rules changes.</summary>
public class ReorderingTests
{
    [Fact]
    public void Rules_that_disagree_on_some_record_are_told_with_it() => Assert.Equal(
        "“Hides” now wins over “Shows” on showing Crate length, as for Gross weight 10.1 kg, Crate needed yes.",
        Assert.Single(Swapped(
            new("a", "Shows") { Cases = [While(Field("crateNeeded", Test.Is, true), Show("crateLength"))] },
            new("b", "Hides") { Cases = [While(Field("grossWeight", Test.MoreThan, 10), Hide("crateLength"))] })).What);

    [Fact]
    public void Rules_that_are_never_in_force_together_may_change_places() => Assert.Empty(Swapped(
        new("a", "Heavy") { Cases = [While(Field("grossWeight", Test.AtLeast, 10), Show("crateLength"))] },
        new("b", "Light") { Cases = [While(Field("grossWeight", Test.LessThan, 10), Hide("crateLength"))] }));

    [Fact]
    public void Rules_that_say_the_same_or_speak_of_different_things_may_change_places()
    {
        Assert.Empty(Swapped(new("a", "One") { Cases = [Otherwise(Lock("title"))] }, new("b", "Other") { Cases = [Otherwise(Lock("title"))] }));
        Assert.Empty(Swapped(new("a", "One") { Cases = [Otherwise(Lock("title"))] }, new("b", "Other") { Cases = [Otherwise(Hide("title"))] }));
    }

    [Fact]
    public void A_rule_that_is_off_wins_over_nothing() =>
        Assert.Empty(Swapped(new("a", "One") { Cases = [Otherwise(Lock("title"))] }, new("b", "Other", On: false) { Cases = [Otherwise(Unlock("title"))] }));

    [Fact]
    public void A_clause_that_compares_with_another_field_may_hold() => Assert.Single(Swapped(
        new("a", "One") { Cases = [While(new Clause(new FieldSubject("grossWeight"), Test.MoreThan) { Comparands = [Of("crateLength")] }, Lock("title"))] },
        new("b", "Other") { Cases = [Otherwise(Unlock("title"))] }));

    private static ImmutableArray<Reordering> Swapped(Rule upper, Rule lower) => Reordering.Between([upper, lower], [lower, upper], Loan);
}
