using Dibujo.Core.Analysis;
using Dibujo.Core.Checking;
using Dibujo.Core.Conditions;
using Dibujo.Core.Rules;
using Dibujo.Core.Values;

namespace Dibujo.Core.Tests.Checking;

/// <summary>What does not fit together in a clause is found while it is written.</summary>
public class ComparandCheckTests
{
    public static TheoryData<string, string, Clause> Mistakes => new()
    {
        { "/comparands/0/value", "Material", Clause("material", Test.Is, new Literal(new Text("wax"))) },
        { "/comparands/0/value", "Insured value", Clause("insuredValue", Test.Is, new Literal(new Text("dear"))) },
        { "/comparands/0/subject", "cannot be compared with each other", Clause("insuredValue", Test.Is, Field("title")) },
        { "/comparands/0/subject", "has no value to compare with", Clause("title", Test.Is, new SubjectComparand(new StageSubject())) },
        { "/comparands/0/subject/field", "vault", Clause("title", Test.Is, Field("vault")) },
        { "/comparands/0", "cannot be compared with a day", Clause("title", Test.Is, new RelativeDay(3, DayUnit.Days)) },
        { "/comparands/0/expression", "empty", Clause("fee", Test.AtLeast, new ExpressionComparand(" ")) },
        { "/comparands/0/expression", "gives text", Clause("fee", Test.AtLeast, new ExpressionComparand("\"a\"")) },
        { "/comparands/0/expression", "At character 5", Clause("fee", Test.AtLeast, new ExpressionComparand("1 + vault")) },
        { "/comparands/0/expression", "At character 4", Clause("fee", Test.AtLeast, new ExpressionComparand("1 +")) },
        { "/comparands", "", Clause("fee", Test.Between, new Literal(new Number(1))) },
        { "/comparands", "", Clause("fee", Test.Blank, new Literal(new Number(1))) },
        { "/test", "does not fit Fee", Clause("fee", Test.StartsWith, new Literal(new Text("1"))) },
        { "/test", "does not fit Borrower contact", Clause("borrowerContact", Test.Is, new Literal(new Text("Mara"))) },
        { "/subject/field", "vault", Clause("vault", Test.FilledIn) },
        { "/subject/part", "has no part “middle”", new(new FieldSubject("borrowerContact", "middle"), Test.FilledIn) },
        { "/subject/part", "has no part", new(new FieldSubject("title", "given"), Test.FilledIn) },
        { "/subject", "do not lead to a field", new(new LinkedSubject(["object"], "owner"), Test.FilledIn) },
        { "/subject", "do not lead to a field", new(new LinkedSubject(["title"], "title"), Test.FilledIn) },
        { "/subject/via", "links can be followed", new(new LinkedSubject([], "title"), Test.FilledIn) },
        { "/comparands/0/value", "nowhere", new(new StageSubject(), Test.Is) { Comparands = [new Literal(new Text("nowhere"))] } },
        { "/comparands/0/value", "gardener", new(new RoleSubject(), Test.Is) { Comparands = [new Literal(new Text("gardener"))] } },
    };

    [Theory]
    [MemberData(nameof(Mistakes))]
    public void A_mistake_in_a_clause_has_a_place_and_a_mend(string place, string what, Clause clause)
    {
        var problems = DefinitionCheck.Of(new(LoanFile.Type, [new Rule("r", "Rule") { Cases = [new([new Hide([Forms.Element.Field("fee")])], clause)] }]));

        Assert.Contains(problems, p => p.Place.StartsWith($"/rules/0/cases/0/while{place}", StringComparison.Ordinal)
            && p.What.Contains(what, StringComparison.OrdinalIgnoreCase) && p.Mend.Length > 0);
    }

    [Theory]
    [InlineData("ina", true)]
    [InlineData("Ina", false)]
    [InlineData("somebody-else", false)]
    public void Who_is_named_can_sign_in(string account, bool canSignIn)
    {
        var clause = new Clause(new PersonSubject(), Test.OneOf) { Comparands = [new Literal(new Text("theo")), new Literal(new Text(account))] };
        var definition = new Definition(LoanFile.Type, [new Rule("r", "Rule") { Cases = [new([new Hide([Forms.Element.Field("fee")])], clause)] }]);

        Assert.Empty(PublicationCheck.Of(definition).All());
        var problems = PublicationCheck.Of(definition, new HashSet<string>(["ina", "theo"], StringComparer.Ordinal)).All();
        Assert.Equal(canSignIn ? [] : ["/rules/0/cases/0/while/comparands/1/value"], problems.Select(problem => problem.Place));
        Assert.All(problems, problem => Assert.Contains(account, problem.What, StringComparison.Ordinal));
    }

    private static Clause Clause(string field, Test test, params Comparand[] comparands) => new(new FieldSubject(field), test) { Comparands = [.. comparands] };

    private static SubjectComparand Field(string key) => new(new FieldSubject(key));
}
