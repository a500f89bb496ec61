using System.Collections.Immutable;
using System.Globalization;
using Dibujo.Core.Checking;
using Dibujo.Core.Conditions;
using Dibujo.Core.Forms;
using Dibujo.Core.Rules;
using Dibujo.Core.Values;

namespace Dibujo.Core.Compilation;

/// <summary>From the model to the program: claims by element, then readings by field, then the order of fields.</summary>
internal static class ProgramCompiler
{
    /// <summary>The facets on which a field's own value depends.</summary>
    private static readonly Facet[] ValueFacets = [Facet.Visibility, Facet.Access, Facet.Value];

    internal static RuleProgram Compile(Definition definition, Form form, ImmutableArray<Problem> problems)
    {
        var program = new RuleProgram(definition, form);
        var broken = problems.Select(RuleOf).ToHashSet();
        Array.Fill(program.ReadingOfRule, -1);
        foreach (var (rank, rule) in definition.Rules.Index())
        {
            if (rule.On && !broken.Contains(rank) && (rule.Where?.Covers(form.Key) ?? true))
            {
                program.Cases[rank] = [.. rule.AllCases().Select(c => LimitedTo(rule.Where, c))];
                program.ReadingOfRule[rank] = program.Rules.Add(rank, program.Cases[rank]);
                AddClaims(program, rank);
            }
        }

        for (var field = 0; field < program.Fields.Count; field++)
        {
            ReadByOwnSavedValue(program, field);
        }

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

    /// <summary>A rule that is limited to channels looks at the channel before anything else.</summary>
    private static Case LimitedTo(Scope? where, Case @case)
    {
        if (where is null || where.Channels.IsEmpty)
        {
            return @case;
        }

        var channel = new Clause(new ChannelSubject(), Test.OneOf)
        {
            Comparands = [.. where.Channels.Select(c => new Literal(new Text(SubjectTypes.KeyOf(c))))],
        };
        return @case with { While = @case.While is null ? channel : new Group(Quantifier.AllOf, [channel, @case.While]) };
    }

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

                foreach (var (element, facet) in Cells(program, @case, effect))
                {
                    program.Claims.Add(element, facet, new(program.ReadingOfRule[rank], number, program.Effects.Says(effect)));
                }
            }
        }
    }

    /// <summary>The elements of this form on which the effect makes a claim, with the facet.</summary>
    private static IEnumerable<(int Element, Facet Facet)> Cells(RuleProgram program, Case @case, Effect effect)
    {
        var elements = effect switch
        {
            StateEffect state => state.Targets.Select(program.Layout.Find),
            FieldEffect { Field: var key } => [program.Fields[key]],
            JumpAhead jump when program.Layout.Find(jump.To) is >= 0 and var to => program.Layout.Between(LastDriver(program, @case), to),
            EndForm => program.Layout.Between(LastDriver(program, @case), -1),
            _ => [],
        };
        var facet = Facets.Of(effect) ?? Facet.Visibility;
        return elements.Where(e => e >= 0).Select(e => (e, facet));
    }

    /// <summary>The last field of this form at which the condition looks; -1 where it looks at none.</summary>
    private static int LastDriver(RuleProgram program, Case @case)
    {
        var fields = Subjects(@case.While)
            .Select(subject => subject switch
            {
                FieldSubject { Saved: false } field => field.Field,
                LinkedSubject linked => linked.Via[0],
                _ => null,
            })
            .OfType<string>().Select(key => program.Fields[key]).Where(field => program.Layout.OnForm[field]).ToList();
        return fields.Count == 0 ? -1 : fields.MaxBy(program.Layout.Place);
    }

    private static IEnumerable<Subject> Subjects(Condition? condition) => condition switch
    {
        Group group => group.Members.SelectMany(Subjects),
        Clause clause => [clause.Subject],
        _ => [],
    };

    /// <summary>A field's own lock, hiding or value looks at its own saved value, also where the effect is on a container.</summary>
    private static void ReadByOwnSavedValue(RuleProgram program, int field)
    {
        var chain = program.Layout.Chain(field).ToList();
        if (chain.Skip(1).Any(container => ValueFacets.Any(facet => program.Claims.On(container, facet).Any(Mentions))))
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

        bool Mentions(ClaimCode claim) => program.Rules.Mentions(program.ReadingOfRule[program.Rules.RankOf(claim.Reading)], field);

        ClaimCode ForField(ClaimCode claim)
        {
            var rank = program.Rules.RankOf(claim.Reading);
            return claim with { Reading = program.Rules.AddFor(field, rank, program.Cases[rank]) };
        }
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
            foreach (var element in layout.Chain(inner))
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
            var elements = program.Layout.Chain(field).Concat(program.Layout.PartsOfField[field].Select(p => p.Element));
            deciding[field] = [.. elements
                .SelectMany(e => ValueFacets.SelectMany(facet => program.Claims.On(e, facet)))
                .Select(claim => claim.Reading).Distinct()];
            // What it looks at of itself is its saved value, which depends on nothing.
            dependsOn[field] = [.. deciding[field].SelectMany(program.Rules.FieldsOf).Concat(program.Effects.Sources[field]).Distinct().Where(f => f != field)];
        }

        var components = Compilation.Circles.Order(dependsOn);
        program.CircleOfField = new int[fieldCount];
        program.Circles = new Circle[components.Count];
        program.CircleOfReading = new int[program.Rules.Count];
        Array.Fill(program.CircleOfReading, -1);
        var circlesUnder = new List<int>[program.Rules.Count];
        for (var i = 0; i < circlesUnder.Length; i++)
        {
            circlesUnder[i] = [];
        }

        var circlesOfClause = new SortedSet<int>[program.Groups.First];
        for (var i = 0; i < circlesOfClause.Length; i++)
        {
            circlesOfClause[i] = [];
        }

        foreach (var (i, members) in components.Index())
        {
            foreach (var member in members)
            {
                program.CircleOfField[member] = i;
            }

            int[] over = members.Length == 1 ? [] : [.. members.SelectMany(m => deciding[m]).Distinct()];
            int[] within = [.. over.Where(r => members.Any(program.Rules.FieldsOf(r).Contains)).OrderBy(program.Rules.RankOf).ThenBy(r => r)];
            program.Circles[i] = new(members, within);
            foreach (var reading in over)
            {
                circlesUnder[reading].Add(i);
            }

            foreach (var reading in within)
            {
                program.CircleOfReading[reading] = i;
                foreach (var clause in program.Rules.ConditionsOf(reading).SelectMany(program.Groups.ClausesUnder))
                {
                    circlesOfClause[clause].Add(i);
                }
            }
        }

        program.IsGivenValues = [.. program.Circles.Select(circle => circle.Fields.Any(field => IsGivenValues(program, field)))];
        program.CirclesOfClause = [.. circlesOfClause.Select(c => c.ToArray())];
        program.CirclesUnderReading = [.. circlesUnder.Select(c => c.ToArray())];
    }

    /// <summary>Whether some claim sets, calculates or clears the field's value or a part of it, or does so while hiding it.</summary>
    private static bool IsGivenValues(RuleProgram program, int field) =>
        program.Claims.On(field, Facet.Value).Count > 0
        || program.Layout.Chain(field).Concat(program.Layout.PartsOfField[field].Select(p => p.Element))
            .Any(element => program.Claims.On(element, Facet.Visibility).Any(claim => claim.Says > (int)HidingCode.Hidden));
}
