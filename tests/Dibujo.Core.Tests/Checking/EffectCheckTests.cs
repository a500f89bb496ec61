using System.Collections.Immutable;
using Dibujo.Core.Checking;
using Dibujo.Core.Conditions;
using Dibujo.Core.Forms;
using Dibujo.Core.Rules;
using Dibujo.Core.Values;

namespace Dibujo.Core.Tests.Checking;

/// <summary>Every mistake in what a rule does is named with its place and its mend.</summary>
public class EffectCheckTests
{
    private static readonly Literal Three = new(new Number(3));
    private static readonly ImmutableArray<Element> Fee = [Element.Field("fee")];

    public static TheoryData<string, string, Effect> Mistakes => new()
    {
        { "", "names no field", new Hide([]) },
        { "/targets/0", "attic", new Show([Element.Section("attic")]) },
        { "/targets/0", "borrowerContact.middle", new Core.Rules.Lock([Element.Part("borrowerContact", "middle")]) },
        { "/field", "There is no field “vault”", new ClearValue("vault") },
        { "/field", "does not say on which field", new ClearValue("") },
        { "/field", "Fee offers no choices", new Narrow("fee", ["a"]) },
        { "/options/1", "Material has no choice “wax”", new Narrow("material", ["oil", "wax"]) },
        { "/text", "There is no text", new Message(Severity.Note, " ") },
        { "/text", "too long", new Message(Severity.Note, new string('a', 5000)) },
        { "/from", "cannot be calculated from itself", new Calculate("fee", new ExpressionComparand("fee + 1")) },
        { "/to", "only jump ahead to", new JumpAhead(Element.Form("loanFile")) },
        { "/level", "asks for nothing", new Require(Fee, Requirement.Optional) },
        { "/moves", "needed for every move", new Require(Fee, Requirement.ToSave) { Moves = ["ask"] } },
        { "/moves/0", "There is no move “fly”", new Require(Fee) { Moves = ["fly"] } },
        { "/to/value", "Fee", new SetValue("fee", new Literal(new Text("much"))) },
        { "/from/expression", "gives text", new Calculate("fee", new ExpressionComparand("string(fee)")) },
        { "/to/subject", "cannot be compared", new SetValue("fee", new SubjectComparand(new FieldSubject("glazing"))) },
        { "/note", "There is no text", new EndForm("") },
        { "/reason", "There is no text", new Suggest("fee", Three, "") },
    };

    [Theory]
    [MemberData(nameof(Mistakes))]
    public void A_mistake_in_an_effect_has_a_place_and_a_mend(string place, string what, Effect effect)
    {
        var definition = new Definition(LoanFile.Type, [new Rule("r", "Rule") { Cases = [new([effect])] }]);

        var problems = DefinitionCheck.Of(definition);

        Assert.Contains(problems, p => p.Place.StartsWith($"/rules/0/cases/0/effects/0{place}", StringComparison.Ordinal)
            && p.What.Contains(what, StringComparison.Ordinal) && p.Mend.Length > 0);
    }

    [Fact]
    public void One_case_does_not_say_two_things_of_the_same()
    {
        var definition = new Definition(LoanFile.Type, [new Rule("r", "Rule") { Cases = [new([new Show(Fee), new Hide(Fee)]), new([])] }]);

        Assert.Contains("/rules/0/cases/0/effects/1/targets/0", DefinitionCheck.Of(definition).Select(p => p.Place));
        Assert.Contains("/rules/0/cases/1/effects", DefinitionCheck.Of(definition).Select(p => p.Place));
    }
}
