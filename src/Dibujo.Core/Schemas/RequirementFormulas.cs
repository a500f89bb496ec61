using Dibujo.Core.Checking;
using Dibujo.Core.Conditions;
using Dibujo.Core.Evaluation;
using Dibujo.Core.Forms;
using Dibujo.Core.Programs;
using Dibujo.Core.Records;
using Dibujo.Core.Rules;
using Dibujo.Core.Sentences;
using Formula = Dibujo.Core.Logic.Formula<System.Text.Json.Nodes.JsonObject>;

namespace Dibujo.Core.Schemas;

/// <summary>When a field is needed to save, as a formula over stored values.</summary>
internal sealed class RequirementFormulas(RuleProgram program, Setting setting)
{
    private readonly Session inSetting = new(program, Values.RecordValues.Empty, setting);
    private readonly Labels labels = new(program.Definition.RecordType);

    /// <summary>Throws <see cref="UnsayableException"/> where a schema cannot say it.</summary>
    internal Formula NeededToSave(Field field)
    {
        var number = program.Fields[field.Key];
        if (program.Layout.PartsOfField[number].Any(part => Enum.GetValues<Facet>().Any(facet => program.Claims.On(part.Element, facet).Count > 0)))
        {
            throw new UnsayableException("rules act on its parts.");
        }

        var rest = inSetting.Door.Rests[number];
        return Formula.And(
            Nearest(number, Facet.Requirement, says => program.Effects.Requirements[says].Level == Requirement.ToSave, rest.Requirement == Requirement.ToSave),
            Formula.And([.. Chain(number).Select(IsShown)]),
            Formula.Not(Formula.Or(
                Nearest(number, Facet.Access, says => (Access)says == Access.Locked, rest.Access == Access.Locked),
                Formula.Or([.. program.Claims.On(number, Facet.Value).Where(c => program.Effects.Values[c.Says].IsHeld).Select(InForce)]))));
    }

    private Formula IsShown(int element) => Highest(
        [element], Facet.Visibility, says => says == (int)HidingCode.Shown, Formula.Of(program.Layout.Rest(element).Visibility == Visibility.Shown));

    /// <summary>The nearest claim decides; else the resting state.</summary>
    private Formula Nearest(int field, Facet facet, Func<int, bool> says, bool rest)
    {
        IEnumerable<int[]> levels = [[field], .. program.Layout.Groups[field], .. Chain(program.Layout.FormAround(field, inSetting.Door)).Select(e => new[] { e })];
        return levels.Reverse().Aggregate(Formula.Of(rest), (outer, level) => Highest(level, facet, says, outer));
    }

    private IEnumerable<int> Chain(int element)
    {
        for (var e = element; e >= 0; e = inSetting.Door.Parents[e])
        {
            yield return e;
        }
    }

    /// <summary>What the highest claim in force says; where none is, something else.</summary>
    private Formula Highest(int[] level, Facet facet, Func<int, bool> says, Formula otherwise) =>
        level.SelectMany(element => program.Claims.On(element, facet)).OrderByDescending(claim => program.Variants.RankOf(claim.Variant)).ThenBy(claim => says(claim.Says)).Aggregate(otherwise, (lower, claim) =>
        {
            var inForce = InForce(claim);
            return Formula.Or(
                Formula.And(inForce, Formula.Of(says(claim.Says))),
                Formula.And(Formula.Not(inForce), lower));
        });

    private Formula InForce(ClaimCode claim)
    {
        var cases = program.Cases[program.Variants.RankOf(claim.Variant)];
        return Formula.And([Holds(program.Variants.LimitOf(claim.Variant)), .. cases.Take(claim.Case).Select(c => Formula.Not(Holds(c.While))), Holds(cases[claim.Case].While)]);
    }

    private Formula Holds(Condition? condition) => condition switch
    {
        null => Formula.True,
        Group { Quantifier: Quantifier.AllOf } all => Formula.And([.. all.Members.Select(Holds)]),
        Group { Quantifier: Quantifier.AnyOf } any => Formula.Or([.. any.Members.Select(Holds)]),
        Group none => Formula.Not(Formula.Or([.. none.Members.Select(Holds)])),
        Clause clause => Holds(clause),
        _ => throw new ArgumentOutOfRangeException(nameof(condition)),
    };

    private Formula Holds(Clause clause)
    {
        switch (clause.Subject)
        {
            case FieldSubject { Part: null } field when clause.Test is Test.Changed or Test.Unchanged:
                // A record as it was saved has no change.
                return Formula.Of(clause.Test == Test.Unchanged);
            case FieldSubject { Part: null } field:
                DemandStored(field.Field);
                return clause.Comparands.All(c => c is Literal)
                    ? ValueSchema.Test(program.Definition.RecordType.Find(field.Field)!, clause)
                    : throw new UnsayableException($"{labels.Of(clause.Subject)} is compared with something that is not fixed.");
            case FieldSubject or LinkedSubject or TodaySubject or NowSubject:
                throw new UnsayableException($"it depends on {labels.Of(clause.Subject)}.");
            default:
                // The setting is fixed, so what is asked of it is decided already.
                if (clause.Comparands.Any(c => c is not Literal))
                {
                    throw new UnsayableException($"{labels.Of(clause.Subject)} is compared with something that is not fixed.");
                }

                var subjects = program.Slots.Subjects;
                var test = new FixedTest(clause.Subject, subjects.Of(clause.Subject)!, clause.Test, clause.Comparands);
                return Formula.Of(test.Holds(new(
                    inSetting.ValueIn(program.Slots.Of(clause.Subject, -1)), program.Definition.RecordType.FindWorkflow(setting.Workflow))));
        }
    }

    /// <summary>What rules do to a value counts for conditions at once, but is not stored yet.</summary>
    private void DemandStored(string key)
    {
        var field = program.Fields[key];
        var clears = program.Layout.Reach.Of(field).SelectMany(e => program.Claims.On(e, Facet.Visibility)).Any(c => c.Says > (int)HidingCode.Hidden);
        if (clears || program.Claims.On(field, Facet.Value).Count > 0)
        {
            throw new UnsayableException($"rules give {labels.Field(key)} its value.");
        }
    }
}
