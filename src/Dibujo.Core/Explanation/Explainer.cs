using System.Collections.Immutable;
using Dibujo.Core.Compilation;
using Dibujo.Core.Conditions;
using Dibujo.Core.Evaluation;
using Dibujo.Core.Forms;
using Dibujo.Core.Rules;

namespace Dibujo.Core.Explanation;

/// <summary>Answers why, for a session as it is now.</summary>
public sealed class Explainer(Session session)
{
    private readonly RuleProgram program = session.Program;
    private readonly Labels labels = new(session.Program.Definition.RecordType);

    /// <summary>Why the element is as it is; throws where the form has no such element.</summary>
    public ElementExplanation Explain(Element element)
    {
        var number = program.NumberOf(element);
        ArgumentOutOfRangeException.ThrowIfNegative(number, nameof(element));
        return new(element, labels.Of(element), [.. Enum.GetValues<Facet>().Select(facet => Explain(number, facet))]);
    }

    /// <summary>The rule that decides over the facet, as <c>rule 3, “Crate measurements”</c>; null where the resting state does.</summary>
    public (string Key, string Words)? Decider(Element element, Facet facet) =>
        Deciding(program.NumberOf(element), facet) is { } claim ? (RuleOf(claim.Claim).Key, Words(claim.Claim)) : null;

    /// <summary>Every clause of the rule at that place in the list, with its truth; none for a rule that is off or has problems.</summary>
    public ImmutableArray<ClauseExplanation> Clauses(int rule)
    {
        var reading = program.ReadingOfRule[rule];
        return reading < 0
            ? []
            : [.. Enumerable.Range(0, program.Rules.Rules[reading].CaseCount).SelectMany(@case => Clauses(reading, @case))];
    }

    private FacetExplanation Explain(int element, Facet facet)
    {
        var winner = Deciding(element, facet);
        var state = State(element, facet);
        var losers = Speaking(element, facet).Where(other => other != winner).Select(Explain).ToImmutableArray();
        if (winner is not { } decisive)
        {
            return new(facet, state, $"{Capital(state)} at rest: no rule in force says otherwise.", null, losers);
        }

        var claim = Explain(decisive);
        var because = claim.Clauses.IsEmpty
            ? "always"
            : "because " + string.Join(" and ", claim.Clauses.Where(c => c.Holds).DefaultIfEmpty(claim.Clauses[0])
                .Select(c => c.Holds ? c.Sentence : $"not: {c.Sentence}"));
        var suspended = facet == Facet.Requirement && session.StateOf(element).IsSuspended
            ? " This counts for nothing while the element is hidden or locked."
            : "";
        return new(facet, state, $"{Capital(state)} by {Words(decisive.Claim)}: {because}.{suspended}", claim, losers);
    }

    private string State(int element, Facet facet)
    {
        var state = session.StateOf(element);
        return (facet, state) switch
        {
            (Facet.Visibility, { IsVisible: true }) => "shown",
            (Facet.Visibility, _) => "hidden",
            (Facet.Access, { Access: Access.Open }) => "open",
            (Facet.Access, _) => "locked",
            (_, { Requirement: Requirement.Optional }) => "optional",
            (_, { Requirement: Requirement.ToMoveOn }) => "required to move on",
            _ => "required to save",
        };
    }

    /// <summary>The claim behind a facet: for a hidden element the innermost hiding one, else the nearest.</summary>
    private (int Element, ClaimCode Claim)? Deciding(int element, Facet facet)
    {
        foreach (var e in program.Layout.Chain(element))
        {
            var winner = session.WinnerOn(e, facet);
            if (winner >= 0 && (facet != Facet.Visibility || Decides(program.Claims.Claims[winner])))
            {
                return (e, program.Claims.Claims[winner]);
            }

            if (facet == Facet.Visibility && winner < 0 && program.Layout.Rest(e).Visibility == Visibility.Hidden)
            {
                return null;
            }
        }

        return null;

        bool Decides(ClaimCode claim) => (claim.Says != ClaimTable.Shown) == session.Hiding(element).Hidden;
    }

    private IEnumerable<(int Element, ClaimCode Claim)> Speaking(int element, Facet facet) =>
        from e in program.Layout.Chain(element)
        let cell = ClaimTable.Cell(e, facet)
        from i in Enumerable.Range(program.Claims.Starts[cell], program.Claims.Starts[cell + 1] - program.Claims.Starts[cell])
        let claim = program.Claims.Claims[i]
        where session.IsInForce(claim)
        select (e, claim);

    private ClaimExplanation Explain((int Element, ClaimCode Claim) decisive)
    {
        var (element, claim) = decisive;
        var rule = RuleOf(claim);
        var on = program.Layout[element];
        var effect = rule.Cases[claim.Case].Effects.First(e => e.Targets.Contains(on) && ClaimTable.Says(e) == claim.Says);
        var says = string.Join(' ', new[] { Wording.Verb(effect), labels.Of(on), Wording.Detail(effect) }.OfType<string>());
        return new(rule.Key, RankOf(claim) + 1, rule.Name, on, claim.Case, says, [.. Clauses(claim.Reading, claim.Case)]);
    }

    private IEnumerable<ClauseExplanation> Clauses(int reading, int @case)
    {
        var code = program.Rules.Rules[reading];
        var rule = program.Definition.Rules[code.Rule];
        var node = program.Rules.Cases[code.CaseStart + @case].Start;
        return rule.Cases[@case].While is { } condition
            ? Walk($"/cases/{@case}/while", condition)
            : [];

        // The nodes lie in the order in which the model is walked here: a group before its members.
        IEnumerable<ClauseExplanation> Walk(string place, Condition part)
        {
            var here = program.Rules.Nodes[node++];
            if (part is Clause clause)
            {
                var holds = session.Truth(here.Clause) != here.Negated;
                var sentence = Sentence.Plain(Sentence.Of(clause, program.Definition.RecordType));
                yield return new(place, sentence, Present(clause.Subject, code.OwnField), holds);
                yield break;
            }

            foreach (var (i, member) in ((Group)part).Members.Index())
            {
                foreach (var explained in Walk($"{place}/members/{i}", member))
                {
                    yield return explained;
                }
            }
        }
    }

    private string Present(Subject subject, int ownField)
    {
        switch (subject)
        {
            case FieldSubject { Field: var key }:
                var field = program.Fields[key];
                var value = field == ownField ? session.SavedValueOf(field) : session.ValueOf(field);
                return value.IsBlank ? "blank" : program.Fields.Type(field).Display(value);
            case StageSubject:
                return labels.Stage(session.Setting.Stage);
            default:
                return session.Setting.Roles.IsEmpty ? "none" : string.Join(", ", session.Setting.Roles.Select(labels.Role));
        }
    }

    private int RankOf(ClaimCode claim) => program.Rules.RankOf(claim.Reading);

    private Rule RuleOf(ClaimCode claim) => program.Definition.Rules[RankOf(claim)];

    private string Words(ClaimCode claim) => $"rule {RankOf(claim) + 1}, “{RuleOf(claim).Name}”";

    private static string Capital(string text) => char.ToUpperInvariant(text[0]) + text[1..];
}
