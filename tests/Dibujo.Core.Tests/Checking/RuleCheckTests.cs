using Dibujo.Core.Checking;
using Dibujo.Core.Conditions;
using static Dibujo.Core.Tests.Small;

namespace Dibujo.Core.Tests.Checking;

public class RuleCheckTests
{
    [Fact]
    public void Every_problem_is_found_with_its_place()
    {
        var places = Places(Under(
            [While(Field("title", Test.AtLeast, 3), Hide("remarks"))],
            [While(All(), Hide("section attic"))],
            [Otherwise(Hide("remarks")), While(Field("material", Test.Is, "gold"), Hide("remarks"), Show("remarks"))],
            [While(Field("insuredValue", Test.AtLeast, Of("grossWeight")), Hide())],
            [While(Field("startDate", Test.Between, "2026-01-01"), Hide("remarks"))],
            [While(Role(Test.Is, "gardener"), Hide("remarks"))],
            []));

        Assert.Equal(
            [
                "/rules/0/cases/0/while/test", "/rules/0/cases/0/while/comparands/0/value",
                "/rules/1/cases/0/while/members", "/rules/1/cases/0/effects/0/targets/0",
                "/rules/2/cases/0/while", "/rules/2/cases/1/while/comparands/0/value", "/rules/2/cases/1/effects/1/targets/0",
                "/rules/3/cases/0/while/comparands/0/subject", "/rules/3/cases/0/effects/0/targets",
                "/rules/4/cases/0/while/comparands",
                "/rules/5/cases/0/while/comparands/0/value",
                "/rules/6/cases",
            ],
            places);
    }

    [Fact]
    public void A_rule_with_a_problem_is_left_out_and_the_others_go_on()
    {
        var definition = Under(Otherwise(Hide("section attic")), Otherwise(Hide("remarks")));
        var (program, problems) = Core.Compilation.ProgramCompiler.Compile(definition);

        Assert.Single(problems);
        var session = new Core.Evaluation.Session(program!, Core.Values.RecordValues.Empty, AtEnquiry);
        Assert.False(session.State("remarks").IsVisible);
        Assert.Equal(-1, session.CaseInForce(0));
    }

    [Fact]
    public void Deep_nesting_is_a_problem_and_not_a_crash()
    {
        Condition deep = Field("title", Test.FilledIn);
        for (var i = 0; i < 40; i++)
        {
            deep = All(deep);
        }

        Assert.Single(Places(Under(While(deep, Hide("remarks")))));
    }

    [Fact]
    public void A_record_type_that_does_not_fit_together_is_not_compiled()
    {
        var form = Loan.Forms[0];
        var broken = Loan with { TitleField = "nowhere", Forms = [form with { Tabs = [form.Tabs[0], form.Tabs[0]] }] };
        var (program, problems) = Core.Compilation.ProgramCompiler.Compile(new(broken, []));

        Assert.Null(program);
        Assert.Contains(problems, p => p.Place == "/recordType/titleField");
        Assert.Contains(problems, p => p.Place == "/recordType/forms/0/tabs/1/key");
        Assert.All(problems, p => Assert.NotEmpty(p.Mend));
    }

    private static IEnumerable<string> Places(Core.Rules.Definition definition) => DefinitionCheck.Of(definition).Select(p => p.Place);
}
