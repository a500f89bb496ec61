using System.Collections.Immutable;
using System.Globalization;
using Dibujo.Core.Checking;
using Dibujo.Core.Forms;
using Dibujo.Core.Rules;

namespace Dibujo.Core.Compilation;

/// <summary>From the model to the program: claims by element, then readings by field, then the order of fields.</summary>
internal static class ProgramCompiler
{
    private static readonly Facet[] ValueFacets = [Facet.Visibility, Facet.Access];

    internal static RuleProgram Compile(Definition definition, Form form, ImmutableArray<Problem> problems)
    {
        var program = new RuleProgram(definition, form);
        var broken = problems.Select(RuleOf).ToHashSet();
        program.ReadingOfRule = new int[definition.Rules.Length];
        Array.Fill(program.ReadingOfRule, -1);
        foreach (var (rank, rule) in definition.Rules.Index())
        {
            if (rule.On && !broken.Contains(rank))
            {
                program.ReadingOfRule[rank] = program.Rules.Add(rank, rule);
                AddClaims(program, rule, program.ReadingOfRule[rank]);
            }
        }

        for (var field = 0; field < program.Fields.Count; field++)
        {
            ReadByOwnSavedValue(program, field);
        }

        program.Clauses.Freeze();
        program.Rules.Freeze();
        program.Claims.Freeze(program.Layout.Count, program.Rules.Count);
        program.ElementsUnder = ElementsUnder(program.Layout);
        OrderFields(program);
        return program;
    }

    private static int RuleOf(Problem problem) =>
        problem.Place.Split('/') is [_, "rules", var number, ..] ? int.Parse(number, CultureInfo.InvariantCulture) : -1;

    private static void AddClaims(RuleProgram program, Rule rule, int reading)
    {
        foreach (var (number, @case) in rule.Cases.Index())
        {
            foreach (var effect in @case.Effects)
            {
                foreach (var target in effect.Targets)
                {
                    if (program.Layout.Find(target) is >= 0 and var element)
                    {
                        program.Claims.Add(element, Facets.Of(effect), new(reading, number, ClaimTable.Says(effect)));
                    }
                }
            }
        }
    }

    /// <summary>A field's own lock or hiding looks at its own saved value, also where the effect is on a container.</summary>
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

        foreach (var facet in ValueFacets)
        {
            if (program.Claims.On(field, facet).Any(Mentions))
            {
                program.Claims.Replace(field, facet, program.Claims.On(field, facet).Select(ForField));
            }
        }

        bool Mentions(ClaimCode claim)
        {
            var rank = RankOf(program, claim);
            return program.Rules.Mentions(rank, program.Definition.Rules[rank], field);
        }

        ClaimCode ForField(ClaimCode claim)
        {
            var rank = RankOf(program, claim);
            return claim with { Reading = program.Rules.AddFor(field, rank, program.Definition.Rules[rank]) };
        }
    }

    private static int RankOf(RuleProgram program, ClaimCode claim) => program.Rules.RankOf(claim.Reading);

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
        var readFields = new int[program.Rules.Count][];
        for (var reading = 0; reading < readFields.Length; reading++)
        {
            readFields[reading] = [.. program.Rules.SlotsOf(reading).Where(slot => slot < fieldCount)];
        }

        var deciding = new int[fieldCount][];
        for (var field = 0; field < fieldCount; field++)
        {
            deciding[field] = [.. program.Layout.Chain(field)
                .SelectMany(e => ValueFacets.SelectMany(facet => program.Claims.On(e, facet)))
                .Select(claim => claim.Reading).Distinct()];
        }

        var components = Circles.Order([.. deciding.Select(readings => readings.SelectMany(r => readFields[r]).Distinct().ToArray())]);
        program.CircleOfField = new int[fieldCount];
        program.Circles = new Circle[components.Count];
        program.CircleOfReading = new int[program.Rules.Count];
        Array.Fill(program.CircleOfReading, -1);
        var circlesUnder = new List<int>[program.Rules.Count];
        for (var i = 0; i < circlesUnder.Length; i++)
        {
            circlesUnder[i] = [];
        }

        foreach (var (i, members) in components.Index())
        {
            foreach (var member in members)
            {
                program.CircleOfField[member] = i;
            }

            int[] over = members.Length == 1 ? [] : [.. members.SelectMany(m => deciding[m]).Distinct()];
            int[] within = [.. over.Where(r => readFields[r].Any(members.Contains)).OrderBy(program.Rules.RankOf).ThenBy(r => r)];
            program.Circles[i] = new(members, within);
            foreach (var reading in over)
            {
                circlesUnder[reading].Add(i);
            }

            foreach (var reading in within)
            {
                program.CircleOfReading[reading] = i;
            }
        }

        program.CirclesUnderReading = [.. circlesUnder.Select(c => c.ToArray())];
    }
}
