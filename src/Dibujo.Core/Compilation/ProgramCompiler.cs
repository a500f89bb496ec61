using System.Collections.Immutable;
using System.Globalization;
using Dibujo.Core.Checking;
using Dibujo.Core.Conditions;
using Dibujo.Core.Forms;
using Dibujo.Core.Rules;
using Dibujo.Core.Values;

namespace Dibujo.Core.Compilation;

/// <summary>From the model to the program: claims by element, then variants by field, then the order of fields.</summary>
internal static class ProgramCompiler
{
    /// <summary>The facets on which a field's own value depends.</summary>
    private static readonly Facet[] ValueFacets = [Facet.Visibility, Facet.Access, Facet.Value];

    internal static RuleProgram Compile(Definition definition, ImmutableArray<Problem> problems)
    {
        var program = new RuleProgram(definition);
        var broken = problems.Select(RuleOf).ToHashSet();
        Array.Fill(program.VariantOfRule, -1);
        foreach (var (rank, rule) in definition.Rules.Index())
        {
            if (rule.On && !broken.Contains(rank))
            {
                program.Cases[rank] = rule.AllCases();
                program.VariantOfRule[rank] = program.Rules.Add(rank, program.Cases[rank], Limit(rule.Where, definition.RecordType.Forms));
                AddClaims(program, rank);
            }
        }

        for (var field = 0; field < program.Fields.Count; field++)
        {
            ReadByOwnSavedValue(program, field);
        }

        program.Layout.Freeze();
        // Slots last: clauses and values may have added some.
        program.Slots.Freeze();
        program.Clauses.Freeze();
        program.Groups.Freeze();
        program.Effects.Freeze();
        program.Rules.Freeze();
        program.Claims.Freeze(program.Layout.Count, program.Rules.Count);
        program.ElementsUnder = ElementsUnder(program.Layout);
        OrderFields(program);
        return program;
    }

    private static int RuleOf(Problem problem) =>
        problem.Place.Split('/') is [_, "rules", var number, ..] ? int.Parse(number, CultureInfo.InvariantCulture) : -1;

    /// <summary>A rule that is limited to forms or channels looks at those before anything else.</summary>
    private static Condition? Limit(Scope? where, ImmutableArray<Form> forms)
    {
        ImmutableArray<Condition> limits =
        [
            .. where is null || forms.All(form => where.Covers(form.Key)) ? [] : new[] { OneOf(new FormSubject(), where.Forms) },
            .. where is null || where.Channels.IsEmpty ? [] : new[] { OneOf(new ChannelSubject(), where.Channels.Select(SubjectTypes.KeyOf)) },
        ];
        return limits.Length > 1 ? new Group(Quantifier.AllOf, limits) : limits.FirstOrDefault();
    }

    private static Clause OneOf(Subject subject, IEnumerable<string> keys) =>
        new(subject, Test.OneOf) { Comparands = [.. keys.Select(key => new Literal(new Text(key)))] };

    private static void AddClaims(RuleProgram program, int rank)
    {
        if (program.Cases[rank].Any(c => c.Effects.Any(e => e is Message or EndForm)))
        {
            program.Speaking.Add(rank);
        }

        foreach (var (number, @case) in program.Cases[rank].Index())
        {
            foreach (var effect in @case.Effects)
            {
                if (effect is Suggest { Field: var key, Value: var value, Reason: var reason })
                {
                    var field = program.Fields[key];
                    program.Advice.Add(new(rank, number, field, program.Effects.ValueOf(field, value), reason));
                }

                if (effect is JumpAhead or EndForm)
                {
                    AddSkipped(program, rank, number, effect);
                }
                else if (Facets.Of(effect) is { } facet)
                {
                    var claim = new ClaimCode(program.VariantOfRule[rank], number, program.Effects.Says(effect));
                    foreach (var element in Targets(program, effect))
                    {
                        program.Claims.Add(element, facet, claim);
                    }
                }
            }
        }
    }

    private static IEnumerable<int> Targets(RuleProgram program, Effect effect) => effect switch
    {
        StateEffect state => state.Targets.SelectMany(program.Layout.Find),
        FieldEffect { Field: var key } => [program.Fields[key]],
        _ => [],
    };

    /// <summary>What is skipped is hidden at one form alone: at each one where the condition's fields stand, by a variant for it.</summary>
    private static void AddSkipped(RuleProgram program, int rank, int number, Effect effect)
    {
        var variant = program.VariantOfRule[rank];
        foreach (var door in program.Layout.Doors.Where(door => program.Definition.Rules[rank].Where?.Covers(door.Form.Key) ?? true))
        {
            var start = LastDriver(program, door, program.Cases[rank][number]);
            var end = effect is JumpAhead { To: var to } ? door.Place(program.Layout.Find(to, door)) : door.End;
            if (start < 0 || end < start)
            {
                continue;
            }

            var claim = new ClaimCode(
                program.Layout.Doors.Length == 1 ? variant : program.Rules.AddAt(door.Form.Key, variant), number, program.Effects.Says(effect));
            foreach (var element in door.Between(start, end))
            {
                program.Claims.Add(element, Facet.Visibility, claim);
            }
        }
    }

    /// <summary>Where the last field at which the condition looks stands at that door; -1 where none of them stands there.</summary>
    private static int LastDriver(RuleProgram program, Door door, Case @case) =>
        Drivers.Of(@case.While).Select(key => door.Place(program.Fields[key])).DefaultIfEmpty(-1).Max();

    /// <summary>A field's own lock, hiding or value looks at its own saved value, also where the effect is on a container.</summary>
    private static void ReadByOwnSavedValue(RuleProgram program, int field)
    {
        if (program.Layout.Reach(field).Skip(1).Any(container => ValueFacets.Any(facet => program.Claims.On(container, facet).Any(Mentions))))
        {
            foreach (var (shadow, container) in program.Layout.AddShadows(field))
            {
                foreach (var facet in ValueFacets)
                {
                    program.Claims.Replace(shadow, facet, program.Claims.On(container, facet).Select(ForField));
                }

                program.Claims.Replace(shadow, Facet.Requirement, program.Claims.On(container, Facet.Requirement));
            }
        }

        foreach (var element in program.Layout.PartsOfField[field].Select(p => p.Element).Append(field))
        {
            foreach (var facet in ValueFacets)
            {
                if (program.Claims.On(element, facet).Any(Mentions))
                {
                    program.Claims.Replace(element, facet, program.Claims.On(element, facet).Select(ForField));
                }
            }
        }

        bool Mentions(ClaimCode claim) => program.Rules.Mentions(program.VariantOfRule[program.Rules.RankOf(claim.Variant)], field);

        ClaimCode ForField(ClaimCode claim) => claim with { Variant = program.Rules.AddFor(field, claim.Variant) };
    }

    private static int[][] ElementsUnder(Layout layout)
    {
        var under = new List<int>[layout.Count];
        for (var i = 0; i < under.Length; i++)
        {
            under[i] = [];
        }

        for (var inner = 0; inner < layout.Count; inner++)
        {
            foreach (var element in layout.Reach(inner))
            {
                under[element].Add(inner);
            }
        }

        return [.. under.Select(u => u.ToArray())];
    }

    private static void OrderFields(RuleProgram program)
    {
        var fieldCount = program.Fields.Count;
        var deciding = new int[fieldCount][];
        var dependsOn = new int[fieldCount][];
        for (var field = 0; field < fieldCount; field++)
        {
            var elements = program.Layout.Reach(field).Concat(program.Layout.PartsOfField[field].Select(p => p.Element));
            deciding[field] = [.. elements
                .SelectMany(e => ValueFacets.SelectMany(facet => program.Claims.On(e, facet)))
                .Select(claim => claim.Variant).Distinct()];
            // What it looks at of itself is its saved value, which depends on nothing.
            dependsOn[field] = [.. deciding[field].SelectMany(program.Rules.FieldsOf).Concat(program.Effects.Sources[field]).Distinct().Where(f => f != field)];
        }

        var components = Compilation.Cycles.Order(dependsOn);
        program.CycleOfField = new int[fieldCount];
        program.Cycles = new Cycle[components.Count];
        program.CycleOfVariant = new int[program.Rules.Count];
        Array.Fill(program.CycleOfVariant, -1);
        var cyclesUnder = new List<int>[program.Rules.Count];
        for (var i = 0; i < cyclesUnder.Length; i++)
        {
            cyclesUnder[i] = [];
        }

        var cyclesOfClause = new SortedSet<int>[program.Groups.First];
        for (var i = 0; i < cyclesOfClause.Length; i++)
        {
            cyclesOfClause[i] = [];
        }

        foreach (var (i, members) in components.Index())
        {
            foreach (var member in members)
            {
                program.CycleOfField[member] = i;
            }

            int[] over = members.Length == 1 ? [] : [.. members.SelectMany(m => deciding[m]).Distinct()];
            int[] within = [.. over.Where(r => members.Any(program.Rules.FieldsOf(r).Contains)).OrderBy(program.Rules.RankOf).ThenBy(r => r)];
            program.Cycles[i] = new(members, within);
            foreach (var variant in over)
            {
                cyclesUnder[variant].Add(i);
            }

            foreach (var variant in within)
            {
                program.CycleOfVariant[variant] = i;
                foreach (var clause in program.Rules.ConditionsOf(variant).SelectMany(program.Groups.ClausesUnder))
                {
                    cyclesOfClause[clause].Add(i);
                }
            }
        }

        program.IsGivenValues = [.. program.Cycles.Select(cycle => cycle.Fields.Any(field => IsGivenValues(program, field)))];
        program.CyclesOfClause = [.. cyclesOfClause.Select(c => c.ToArray())];
        program.CyclesUnderVariant = [.. cyclesUnder.Select(c => c.ToArray())];
    }

    /// <summary>Whether some claim sets, calculates or clears the field's value or a part of it, or does so while hiding it.</summary>
    private static bool IsGivenValues(RuleProgram program, int field) =>
        program.Claims.On(field, Facet.Value).Count > 0
        || program.Layout.Reach(field).Concat(program.Layout.PartsOfField[field].Select(p => p.Element))
            .Any(element => program.Claims.On(element, Facet.Visibility).Any(claim => claim.Says > (int)HidingCode.Hidden));
}
