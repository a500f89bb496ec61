using System.Collections.Immutable;
using Dibujo.Core.Conditions;
using Dibujo.Core.Evaluation;
using Dibujo.Core.Forms;
using Dibujo.Core.Programs;
using Dibujo.Core.Rules;
using Dibujo.Core.Sentences;
using Dibujo.Core.Values;

namespace Dibujo.Core.Explanation;

/// <summary>Answers why, for a session as it is now.</summary>
public sealed class Explainer(Session session)
{
    private readonly RuleProgram program = session.Program;
    private readonly Labels labels = new(session.Program.Definition.RecordType);
    private readonly SentenceWriter writer = new(Names.Of(session.Program.Definition.RecordType));

    /// <summary>Why the element is as it is; throws where the form has no such element.</summary>
    public ElementExplanation Explain(Element element)
    {
        var number = session.NumberOf(element);
        ArgumentOutOfRangeException.ThrowIfNegative(number, nameof(element));
        return new(element, labels.Of(element), [.. FacetsOf(element.Kind).Select(facet => Explain(number, facet))]);
    }

    /// <summary>The rule that decides over the facet, with what it is for as far as its author says it; null where the resting state decides.</summary>
    public (string Key, string? Reason)? Decider(Element element, Facet facet) =>
        Deciding(session.NumberOf(element), facet) is { } claim && RuleOf(claim.Claim) is var rule ? (rule.Key, rule.Reason) : null;

    /// <summary>Every clause of the rule at that place in the list, with its truth; none for a rule that is off or has problems.</summary>
    public ImmutableArray<ClauseExplanation> Clauses(int rule)
    {
        var variant = program.VariantOfRule[rule];
        return variant < 0
            ? []
            : [.. Enumerable.Range(0, program.Variants.Codes[variant].CaseCount).SelectMany(@case => Clauses(variant, @case))];
    }

    private FacetExplanation Explain(int element, Facet facet)
    {
        var winner = Deciding(element, facet);
        var state = State(element, facet);
        var losers = Speaking(element, facet).Where(other => other != winner).Select(other => Explain(other, facet)).ToImmutableArray();
        if (winner is not { } decisive)
        {
            return new(facet, state, $"{Capital(state)} at rest: no rule in force says otherwise.{Suspended(element, facet)}", null, losers);
        }

        var claim = Explain(decisive, facet);
        var because = claim.Clauses.IsEmpty
            ? Otherwise(decisive.Claim)
            : "because " + string.Join(" and ", claim.Clauses.Where(c => c.Holds).DefaultIfEmpty(claim.Clauses[0])
                .Select(c => c.Holds ? c.Sentence : $"not: {c.Sentence}"));
        var with = claim.On == program.ElementAt(element) ? "" : $" with {labels.Of(claim.On)}";
        return new(facet, state, $"{Capital(state)}{with} by {Words(decisive.Claim)}: {because}.{Chain(claim)}{Suspended(element, facet)}", claim, losers);
    }

    /// <summary>Why a case without a condition is in force: always, or since no case before it is.</summary>
    private string Otherwise(ClaimCode claim)
    {
        string[] failing = [.. Enumerable.Range(0, claim.Case).SelectMany(before => Clauses(claim.Variant, before)).Where(clause => !clause.Holds).Select(clause => $"not: {clause.Sentence}").Distinct(StringComparer.Ordinal)];
        return claim.Case == 0 ? "always" : failing.Length > 0 ? $"because {string.Join(" and ", failing)}" : "because none of its cases before holds";
    }

    private string Suspended(int element, Facet facet) => (facet, session.StateOf(element)) switch
    {
        (Facet.Requirement, { IsSuspended: true, IsVisible: false }) => " This counts for nothing while it is hidden.",
        (Facet.Requirement, { IsSuspended: true }) => " This counts for nothing while it is locked for you.",
        _ => "",
    };

    /// <summary>Values and choices are of fields only.</summary>
    private static Facet[] FacetsOf(ElementKind kind) => kind == ElementKind.Field
        ? Enum.GetValues<Facet>()
        : [Facet.Visibility, Facet.Access, Facet.Requirement];

    private string State(int element, Facet facet)
    {
        var state = session.StateOf(element);
        return (facet, state) switch
        {
            (Facet.Value, _) => session.ValueClaim(element) switch
            {
                { IsHeld: true } => "calculated",
                { } => "given by a rule",
                null => "the person's own",
            },
            (Facet.Choices, _) => session.Offers(element) is null ? "all choices" : "fewer choices",
            (Facet.Visibility, { IsVisible: true }) => "shown",
            (Facet.Visibility, _) => "hidden",
            (Facet.Access, { Access: Access.Open }) => "open",
            (Facet.Access, _) => "locked",
            (_, { Requirement: Requirement.Optional }) => "optional",
            (_, { Requirement: Requirement.ToMoveOn, IsForSomeMoves: true }) => $"required for {string.Join(" or ", session.MovesAskingFor(element).Select(Move))}",
            (_, { Requirement: Requirement.ToMoveOn }) => "required to move on",
            _ => "required to save",
        };
    }

    /// <summary>The move's label between marks; moves of several workflows may have the same.</summary>
    private string Move(string key) => $"“{program.Definition.RecordType.Workflows.SelectMany(workflow => workflow.Moves).FirstOrDefault(move => move.Key == key)?.Label ?? key}”";

    /// <summary>The claim behind a facet: for a hidden element the innermost hiding one, else the nearest.</summary>
    private (int Element, ClaimCode Claim)? Deciding(int element, Facet facet)
    {
        if (element < 0)
        {
            return null;
        }

        if (facet is Facet.Access or Facet.Requirement)
        {
            // What holds a value locks the field, whatever else is said of it.
            var held = facet == Facet.Access && element < program.Layout.FieldCount && session.ValueClaim(element) is { IsHeld: true };
            var claim = held ? session.WinnerOn(element, Facet.Value) : session.Deciding(element, facet);
            return claim < 0 ? null : (program.Claims.CellOf[claim] / Facets.Count, program.Claims.Claims[claim]);
        }

        foreach (var e in Chain(element))
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

        bool Decides(ClaimCode claim) => (claim.Says != (int)HidingCode.Shown) == session.Hiding(element).Hidden;
    }

    /// <summary>The element and what encloses it on the form at hand, from the inside out.</summary>
    private IEnumerable<int> Chain(int element)
    {
        for (var e = element; e >= 0; e = session.Door.Parents[e])
        {
            yield return e;
        }
    }

    private IEnumerable<(int Element, ClaimCode Claim)> Speaking(int element, Facet facet) =>
        from e in facet is Facet.Access or Facet.Requirement ? program.Layout.Reach.Of(element) : Chain(element)
        let cell = ClaimTable.Cell(e, facet)
        from i in Enumerable.Range(program.Claims.Starts[cell], program.Claims.Starts[cell + 1] - program.Claims.Starts[cell])
        let claim = program.Claims.Claims[i]
        where session.IsInForce(claim)
        select (e, claim);

    private ClaimExplanation Explain((int Element, ClaimCode Claim) decisive, Facet facet)
    {
        var (element, claim) = decisive;
        var rule = RuleOf(claim);
        var on = program.Layout[element];
        var effect = EffectOf(claim, on, facet);
        return new(rule.Key, RankOf(claim) + 1, rule.Name, rule.Reason, on, claim.Case,
            Sentence.Plain(writer.Effect(effect)), [.. Clauses(claim.Variant, claim.Case)], Sources(claim, effect));
    }

    private Effect EffectOf(ClaimCode claim, Element on, Facet facet)
    {
        var effects = program.Cases[RankOf(claim)][claim.Case].Effects;
        // A calculation locks, and what is skipped is hidden, without saying so.
        return effects.FirstOrDefault(e => ActsOn(e, on) && Facets.Of(e) == facet)
            ?? effects.FirstOrDefault(e => ActsOn(e, on) && e is Calculate)
            ?? effects.First(e => e is JumpAhead or EndForm);
    }

    private static bool ActsOn(Effect effect, Element element) => effect switch
    {
        StateEffect state => state.Targets.Contains(element),
        FieldEffect { Field: var key } => element == Element.Field(key),
        _ => false,
    };

    /// <summary>The fields that the effect's value is made of, and behind those and behind the clauses every value that a rule makes.</summary>
    private ImmutableArray<SourceExplanation> Sources(ClaimCode claim, Effect effect)
    {
        var found = new Dictionary<int, SourceExplanation>();
        Follow(claim, effect);
        return [.. found.Values];

        void Follow(ClaimCode claim, Effect effect)
        {
            var made = program.Variants.FieldsOf(claim.Variant).Where(field => session.ValueClaim(field) is not null);
            foreach (var field in Ingredients(effect).Concat(made.Order()))
            {
                var maker = session.WinnerOn(field, Facet.Value) is >= 0 and var winner ? program.Claims.Claims[winner] : (ClaimCode?)null;
                var (key, label) = (program.Fields[field].Key, program.Fields[field].Label);
                if (found.TryAdd(field, new(key, label, Display(field), maker is { } by ? RuleOf(by).Key : null)) && maker is { } next)
                {
                    Follow(next, EffectOf(next, Element.Field(key), Facet.Value));
                }
            }
        }
    }

    private IEnumerable<int> Ingredients(Effect effect)
    {
        var (key, from) = effect switch
        {
            SetValue set => (set.Field, set.To),
            Calculate calculate => (calculate.Field, calculate.From),
            _ => ("", null),
        };
        return from is null ? [] : program.Effects.Sources.Of(program.Fields[key]).Where(field => Mentions(from, program.Fields[field].Key));
    }

    /// <summary>The values that rules make behind a claim, in words.</summary>
    private string Chain(ClaimExplanation claim) => string.Concat(claim.Sources.Where(source => source.Rule is not null).Select(source =>
    {
        var number = program.Definition.Rules.Select(rule => rule.Key).ToList().IndexOf(source.Rule!);
        return $" {source.Label} is {source.Present} by rule {number + 1}, “{program.Definition.Rules[number].Name}”.";
    }));

    private static bool Mentions(Comparand from, string field) => from switch
    {
        SubjectComparand { Subject: FieldSubject subject } => subject.Field == field,
        SubjectComparand { Subject: LinkedSubject subject } => subject.Via[0] == field,
        ExpressionComparand { Expression: var text } =>
            Expressions.Expression.Parse(text).Expression?.Names.Any(name => name.Split('.')[0] == field) ?? false,
        _ => false,
    };

    private string Display(int field) =>
        session.ValueOf(field) is { IsBlank: false } value ? program.Fields.Type(field).Display(value) : "blank";

    private IEnumerable<ClauseExplanation> Clauses(int variant, int @case)
    {
        var code = program.Variants.Codes[variant];
        var number = program.Variants.Cases[code.CaseStart + @case];
        var (limit, condition) = (program.Variants.LimitOf(variant), program.Cases[code.Rule][@case].While);
        if (limit is not null && condition is not null)
        {
            // Both stand in a group, the limit first.
            var first = program.Groups.Codes[number - program.Groups.First].MemberStart;
            return Walk("/where", limit, program.Groups.Members[first]).Concat(Walk($"/cases/{@case}/while", condition, program.Groups.Members[first + 1]));
        }

        return limit is not null ? Walk("/where", limit, number) : condition is not null ? Walk($"/cases/{@case}/while", condition, number) : [];

        IEnumerable<ClauseExplanation> Walk(string place, Condition part, int number)
        {
            if (part is Clause clause)
            {
                var sentence = Sentence.Plain(writer.Condition(clause));
                yield return new(place, sentence, Present(clause.Subject, code.OwnField), session.Holds(number));
                yield break;
            }

            var start = program.Groups.Codes[number - program.Groups.First].MemberStart;
            foreach (var (i, member) in ((Group)part).Members.Index())
            {
                foreach (var explained in Walk($"{place}/members/{i}", member, program.Groups.Members[start + i]))
                {
                    yield return explained;
                }
            }
        }
    }

    private string Present(Subject subject, int ownField)
    {
        var type = program.Slots.Subjects.Of(subject)!;
        var value = session.ValueIn(program.Slots.Of(subject, ownField));
        return value switch
        {
            { IsBlank: true } => subject is RoleSubject ? "none" : "blank",
            Choices roles when subject is RoleSubject => string.Join(", ", roles.Keys.Select(key => type.Display(new Choice(key)))),
            _ => type.Display(value),
        };
    }

    private int RankOf(ClaimCode claim) => program.Variants.RankOf(claim.Variant);

    private Rule RuleOf(ClaimCode claim) => program.Definition.Rules[RankOf(claim)];

    private string Words(ClaimCode claim) => $"rule {RankOf(claim) + 1}, “{RuleOf(claim).Name}”";

    private static string Capital(string text) => char.ToUpperInvariant(text[0]) + text[1..];
}
