using Dibujo.Core.Analysis;
using Dibujo.Core.Workflows;

namespace Dibujo.Core.Tests.Analysis;

public class WaysTests
{
    [Theory]
    [InlineData("a>b b>c", "", "")]
    [InlineData("a>b", "c", "")]
    [InlineData("a>b b>a", "c", "a b")]
    [InlineData("a>c c>b", "", "")]
    [InlineData("b>c", "b c", "")]
    [InlineData("a>b b>c c>a", "", "")]
    [InlineData("a>x x>b b>c", "b c", "")]
    public void What_no_move_leads_to_and_what_none_leads_on_from_is_found(string moves, string unreached, string stuck)
    {
        var ways = Ways.Of(new("way", "Way", [new("a", "A"), new("b", "B"), new("c", "C")],
            [.. moves.Split(' ').Select(move => new Move(move, move, move[..1], move[2..]))]));

        Assert.Equal(unreached, string.Join(' ', ways.Unreached));
        Assert.Equal(stuck, string.Join(' ', ways.Stuck));
    }

    [Fact]
    public void Every_stage_of_the_demo_is_reached_and_every_record_can_end() =>
        Assert.All(LoanFile.Type.Workflows.Select(Ways.Of), ways => Assert.Empty(ways.Unreached.Concat(ways.Stuck)));
}
