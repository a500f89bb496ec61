using Dibujo.Core.Conditions;
using Dibujo.Core.Evaluation;
using Dibujo.Core.Forms;
using Dibujo.Core.Rules;
using Dibujo.Core.Values;

namespace Dibujo.Core.Tests;

/// <summary>
/// The rule model read off its description as plainly as can be, for the small random worlds of <see cref="Chance"/>:
/// no indexes, no sharing, everything anew at every look. Only for definitions without circles.
/// </summary>
internal sealed class Oracle(Definition definition, RecordValues saved, IReadOnlyDictionary<string, Value> changes, Setting setting)
{
    private RecordValues live = RecordValues.Empty;

    /// <summary>The state of every field, by visibility, access and requirement, once the values stand still.</summary>
    internal Dictionary<string, (bool Visible, Access Access, Requirement Requirement, Value Value)> States()
    {
        live = saved;
        for (var round = 0; round <= definition.RecordType.Fields.Length; round++)
        {
            live = new(definition.RecordType.Fields.Aggregate(RecordValues.Empty, (next, f) => next.With(f.Key, ValueOf(f.Key))).ByField);
        }

        return definition.RecordType.Fields.ToDictionary(
            f => f.Key, f => (!Hiding(f.Key).Hidden, AccessTo(f.Key), RequirementOn(f.Key), live[f.Key]));
    }

    private Value ValueOf(string field) => Hiding(field) switch
    {
        { Cleared: true } => Value.Blank,
        { Hidden: true } => saved[field],
        _ => AccessTo(field) == Access.Open && changes.TryGetValue(field, out var change) ? change : saved[field],
    };

    private (bool Hidden, bool Cleared) Hiding(string field)
    {
        var levels = Chain(field).Select(level => (level.AtRest, Claim: Highest(level.Element, Facet.Visibility, field))).ToList();
        return (levels.Any(l => l.Claim is Hide || (l.Claim is null && l.AtRest.Visibility == Visibility.Hidden)),
            levels.Any(l => l.Claim is Hide { Value: HiddenValue.Clear }));
    }

    private Access AccessTo(string field)
    {
        var claim = Chain(field).Select(level => Highest(level.Element, Facet.Access, field)).FirstOrDefault(c => c is not null);
        return claim switch
        {
            Core.Rules.Lock => Access.Locked,
            Unlock => Access.Open,
            _ => Chain(field).Any(level => level.AtRest.Access == Access.Locked) ? Access.Locked : Access.Open,
        };
    }

    private Requirement RequirementOn(string field)
    {
        var claim = Chain(field).Select(level => Highest(level.Element, Facet.Requirement, null)).FirstOrDefault(c => c is not null);
        return claim switch
        {
            Require require => require.Level,
            MakeOptional => Requirement.Optional,
            _ => Chain(field).Select(level => level.AtRest.Requirement).FirstOrDefault(r => r != Requirement.Optional),
        };
    }

    private IEnumerable<(Element Element, Rest AtRest)> Chain(string field)
    {
        yield return (Element.Field(field), definition.RecordType.Find(field)!.Rest ?? Rest.Ordinary);
        foreach (var tab in definition.RecordType.Forms[0].Tabs)
        {
            foreach (var section in tab.Sections.Where(s => s.Fields.Contains(field)))
            {
                yield return (Element.Section(section.Key), section.Rest ?? Rest.Ordinary);
                yield return (Element.Tab(tab.Key), tab.Rest ?? Rest.Ordinary);
            }
        }
    }

    private Effect? Highest(Element element, Facet facet, string? ownField) => definition.Rules
        .Where(rule => rule.On)
        .Select(rule => rule.Cases.FirstOrDefault(c => c.While is null || Holds(c.While, ownField)))
        .SelectMany(c => c?.Effects ?? [])
        .FirstOrDefault(effect => Facets.Of(effect) == facet && effect.Targets.Contains(element));

    private bool Holds(Condition condition, string? ownField) => condition switch
    {
        Group { Quantifier: Quantifier.AllOf } all => all.Members.All(m => Holds(m, ownField)),
        Group { Quantifier: Quantifier.AnyOf } any => any.Members.Any(m => Holds(m, ownField)),
        Group none => !none.Members.Any(m => Holds(m, ownField)),
        Clause clause => Holds(clause, ownField),
        _ => throw new ArgumentOutOfRangeException(nameof(condition)),
    };

    private bool Holds(Clause clause, string? ownField)
    {
        var comparands = clause.Comparands.Select(c => c is FieldComparand f ? Look(f.Field, ownField) : ((Literal)c).Value).ToList();
        if (clause.Subject is RoleSubject)
        {
            return comparands.Any(c => setting.Roles.Contains(c.Plain)) == clause.Test is Test.Is or Test.OneOf;
        }

        if (clause.Subject is StageSubject)
        {
            return Stage(clause.Test, [.. comparands.Select(c => c.Plain)]);
        }

        var subject = Look(((FieldSubject)clause.Subject).Field, ownField);
        bool Compare(Func<int, bool> fits, int with = 0) =>
            !subject.IsBlank && !comparands[with].IsBlank && fits(Order(subject, comparands[with]));
        return clause.Test switch
        {
            Test.Blank => subject.IsBlank,
            Test.FilledIn => !subject.IsBlank,
            Test.Is or Test.OneOf => comparands.Any(c => !c.IsBlank && !subject.IsBlank && Order(subject, c) == 0),
            Test.IsNot or Test.NoneOf => !comparands.Any(c => !c.IsBlank && !subject.IsBlank && Order(subject, c) == 0),
            Test.Contains => Texts((s, c) => s.Contains(c, StringComparison.OrdinalIgnoreCase)),
            Test.DoesNotContain => !Texts((s, c) => s.Contains(c, StringComparison.OrdinalIgnoreCase)),
            Test.StartsWith => Texts((s, c) => s.StartsWith(c, StringComparison.OrdinalIgnoreCase)),
            Test.DoesNotStartWith => !Texts((s, c) => s.StartsWith(c, StringComparison.OrdinalIgnoreCase)),
            Test.LessThan => Compare(o => o < 0),
            Test.AtMost => Compare(o => o <= 0),
            Test.AtLeast => Compare(o => o >= 0),
            Test.MoreThan => Compare(o => o > 0),
            Test.Between => Compare(o => o >= 0) && Compare(o => o <= 0, 1),
            Test.NotBetween => !(Compare(o => o >= 0) && Compare(o => o <= 0, 1)),
            _ => throw new ArgumentOutOfRangeException(nameof(clause)),
        };

        bool Texts(Func<string, string, bool> fits) => !subject.IsBlank && !comparands[0].IsBlank && fits(subject.Plain, comparands[0].Plain);
    }

    private bool Stage(Test test, string[] stages)
    {
        var order = definition.RecordType.FindWorkflow(setting.Workflow)!.Stages.Select(s => s.Key).ToList();
        var here = order.IndexOf(setting.Stage);
        return test switch
        {
            Test.Is or Test.OneOf => stages.Contains(setting.Stage),
            Test.IsNot or Test.NoneOf => !stages.Contains(setting.Stage),
            Test.Before => order.IndexOf(stages[0]) is >= 0 and var there && here < there,
            Test.After => order.IndexOf(stages[0]) is >= 0 and var there && here > there,
            _ => order.IndexOf(stages[0]) is >= 0 and var there && here >= there,
        };
    }

    private Value Look(string field, string? ownField) => field == ownField ? saved[field] : live[field];

    private static int Order(Value one, Value other) => (one, other) switch
    {
        (Number a, Number b) => a.Amount.CompareTo(b.Amount),
        _ => string.Compare(one.Plain, other.Plain, StringComparison.OrdinalIgnoreCase),
    };
}
