using System.Collections.Immutable;
using Dibujo.Core.Examples;
using Dibujo.Core.Forms;
using Dibujo.Core.Packs;
using static Dibujo.Core.Tests.Small;

namespace Dibujo.Core.Tests.Packs;

public class ComparisonTests
{
    [Fact]
    public void An_import_is_shown_before_it_is_applied()
    {
        var now = Under(Otherwise(Hide("remarks")), Otherwise(Lock("title")), Otherwise(Require("material")));
        var then = now with
        {
            RecordType = Loan with { Fields = Loan.Fields.RemoveAt(9), Forms = [Loan.Forms[1]] },
            Rules = [now.Rules[2], now.Rules[0] with { Cases = [Otherwise(Show("remarks"))] }, new("new", "New") { Cases = [Otherwise(Hide("nowhere"))] }],
        };

        var comparison = Comparison.Between(now, then);

        Assert.Equal(
            [
                "Removed field endDate", "Removed form file", "Added rule new", "Changed rule r0", "Removed rule r1", "Changed order ",
            ],
            comparison.Differences.Select(d => $"{d.Change} {d.What} {d.Key}"));
        Assert.Equal("Always hide Remarks.", comparison.Differences.Single(d => d.Key == "r0").Before);
        Assert.Equal("Always show Remarks.", comparison.Differences.Single(d => d.Key == "r0").After);
        Assert.Equal("/rules/2/cases/0/effects/0/targets/0", Assert.Single(comparison.Problems).Place);
    }

    [Fact]
    public void Another_name_or_title_of_the_record_type_is_a_difference()
    {
        var now = Under(Otherwise(Hide("remarks")));

        var comparison = Comparison.Between(now, now with { RecordType = Loan with { Label = "Lending" } });

        Assert.Equal("Changed record type loan Lending", Assert.Single(comparison.Differences.Select(d => $"{d.Change} {d.What} {d.Key} {d.Label}")));
    }

    [Fact]
    public void The_same_is_no_difference() => Assert.Empty(Comparison.Between(Under(Otherwise(Hide("title"))), Under(Otherwise(Hide("title")))).Differences);

    [Fact]
    public void Examples_say_what_is_otherwise_than_expected()
    {
        var definition = Under(While(Field("crateNeeded", Core.Conditions.Test.Is, false), Hide("section crate"), RequireToSave("title"))) with
        {
            Examples =
            [
                new("a loan without a crate shows no crate measures", AtEnquiry)
                {
                    Values = Record(("crateNeeded", false)).ByField.ToImmutableDictionary(),
                    Expect = [new(Element("grossWeight"), Visible: false), new(Element("title"), Requirement: Requirement.ToSave)],
                },
                new("wrong", AtEnquiry)
                {
                    Expect = [new(Element("grossWeight"), Visible: false, Value: new Core.Values.Number(3)), new(Element("section attic"), Visible: true)],
                },
            ],
        };

        var runs = ExampleRun.Of(definition);

        Assert.True(runs[0].Holds);
        Assert.Equal(
            ["Gross weight is shown, not hidden.", "Gross weight holds nothing, not 3 kg.", "There is no section “attic” on the form."], runs[1].Failures.AsEnumerable());
    }
}
