using System.Collections.Immutable;
using Dibujo.Core.Conditions;
using Dibujo.Core.Operands;
using Dibujo.Core.Programs;
using Dibujo.Core.Rules;

namespace Dibujo.Core.Compilation;

/// <summary>Lays compiled rules into one program, by counting and giving integers other numbers; it compares no text.</summary>
/// <remarks>
/// Slots, clauses and groups are numbered by their first use in the list of rules, so that a program does not show what was
/// compiled before it.
/// </remarks>
internal sealed class Linker
{
    private readonly Frame frame;
    private readonly ImmutableArray<CompiledRule?> rules;

    /// <summary>For each derived slot, clause and group of the frame its number in the program; -1 where it is not in it.</summary>
    private readonly int[] slotNumbers;
    private readonly int[] clauseNumbers;
    private readonly int[] groupNumbers;

    /// <summary>For each rule the numbers of its first variant, value, requirement and list of choices.</summary>
    private readonly int[] firstVariants;
    private readonly int[] firstValues;
    private readonly int[] firstRequirements;
    private readonly int[] firstChoices;

    private Linker(Frame frame, ImmutableArray<CompiledRule?> rules)
    {
        (this.frame, this.rules) = (frame, rules);
        slotNumbers = new int[frame.Slots.DerivedCount];
        clauseNumbers = new int[frame.Clauses.Count];
        groupNumbers = new int[frame.Groups.Count];
        firstVariants = new int[rules.Length];
        firstValues = new int[rules.Length];
        firstRequirements = new int[rules.Length];
        firstChoices = new int[rules.Length];
    }

    /// <summary>The program.</summary>
    /// <param name="frame">Against which the rules were compiled.</param>
    /// <param name="definition">What was compiled.</param>
    /// <param name="rules">By rank; null for one that is left out.</param>
    internal static RuleProgram Link(Frame frame, Definition definition, ImmutableArray<CompiledRule?> rules) => new Linker(frame, rules).Link(definition);

    private RuleProgram Link(Definition definition)
    {
        var slots = LinkSlots();
        var clauses = LinkClauses(slots);
        var groups = LinkGroups(clauses.Codes.Length);
        var variants = LinkVariants(groups.Count);
        var effects = LinkEffects(slots);
        var layout = frame.LayoutWith([.. rules.SelectMany(rule => rule?.Shadowed ?? []).Distinct().Order()]);
        var claims = ClaimLinker.Link(rules, firstVariants, Said, variants, layout);
        return new(definition, new()
        {
            Fields = frame.Fields,
            Layout = layout,
            Slots = slots,
            Clauses = clauses,
            Groups = groups,
            Variants = variants,
            Claims = claims,
            Effects = effects,
            Order = new OrderLinker(layout, rules, variants, groups, claims, effects).Link(),
            Cases = [.. rules.Select(rule => rule?.Cases ?? [])],
            Speaking = [.. Enumerable.Range(0, rules.Length).Where(rank => rules[rank]?.Speaks == true)],
            Advice = [.. rules.SelectMany((rule, rank) => (rule?.Advice ?? []).Select(advice => advice with { Rule = rank, Value = Placed(advice.Value) }))],
            VariantOfRule = [.. rules.Select((rule, rank) => rule is null ? -1 : firstVariants[rank])],
        });
    }

    private int Slot(int slot) => slot < frame.Slots.FirstDerived ? slot : slotNumbers[slot - frame.Slots.FirstDerived];

    private int Condition(int condition)
    {
        var number = condition < 0 ? ~condition : condition;
        var now = (number & 1) == 0 ? clauseNumbers[number >> 1] : groupNumbers[number >> 1];
        return condition < 0 ? ~now : now;
    }

    private ValueCode Placed(ValueCode code) => code.Slot < 0 ? code : code with { Slot = Slot(code.Slot) };

    /// <summary>What a rule's claim says, where the rules' lists stand one after another.</summary>
    private int Said(int rank, CompiledClaim claim) => claim.Says + claim.Facet switch
    {
        Facet.Value => firstValues[rank],
        Facet.Requirement => firstRequirements[rank],
        Facet.Choices => firstChoices[rank],
        _ => 0,
    };

    /// <summary>Numbers what the rules use by first use; the order comes back.</summary>
    private List<int> Number(int[] numbers, int first, Func<CompiledRule, int[]> used)
    {
        Array.Fill(numbers, -1);
        var order = new List<int>();
        foreach (var rule in rules)
        {
            if (rule is not null)
            {
                foreach (var part in used(rule))
                {
                    if (numbers[part] < 0)
                    {
                        numbers[part] = first + order.Count;
                        order.Add(part);
                    }
                }
            }
        }

        return order;
    }

    private SlotTable LinkSlots()
    {
        var order = Number(slotNumbers, frame.Slots.FirstDerived, rule => rule.Slots);
        var derived = new DerivedSlot[order.Count];
        for (var i = 0; i < derived.Length; i++)
        {
            derived[i] = frame.Slots[order[i]].At(Slot);
        }

        return new(frame.Fields, frame.Subjects, derived);
    }

    private ClauseTable LinkClauses(SlotTable slots)
    {
        var pool = frame.Clauses;
        var used = Number(clauseNumbers, 0, rule => rule.Clauses);
        var bySlot = new Adjacency.Pairs(slots.Count);
        foreach (var clause in used)
        {
            if (pool.IsFixed(clause))
            {
                bySlot.Add(Slot(pool.SlotOf(clause)), clause);
            }
        }

        var order = new List<int>(used.Count);
        var dispatches = new Dispatch?[slots.Count];
        var firstOf = new int[slots.Count];
        var most = 0;
        var isTaken = new bool[pool.Count];
        var fixedOfSlot = bySlot.ToAdjacency();
        for (var slot = 0; slot < slots.Count; slot++)
        {
            if (fixedOfSlot[slot].IsEmpty)
            {
                continue;
            }

            var (dispatch, taken) = frame.Dispatches.Of(pool.SlotOf(fixedOfSlot[slot][0]), fixedOfSlot[slot]);
            (dispatches[slot], firstOf[slot]) = (dispatch, order.Count);
            most = Math.Max(most, taken.Length);
            foreach (var clause in taken)
            {
                isTaken[clause] = true;
                order.Add(clause);
            }
        }

        var firstSingle = order.Count;
        foreach (var clause in used)
        {
            if (!isTaken[clause])
            {
                order.Add(clause);
            }
        }

        return Write(order, firstSingle, slots.Count, dispatches, firstOf, most);
    }

    private ClauseTable Write(List<int> order, int firstSingle, int slotCount, Dispatch?[] dispatches, int[] firstOf, int most)
    {
        var pool = frame.Clauses;
        var codes = new ClauseCode[order.Count];
        var comparands = new List<int>(2 * order.Count);
        var literals = new List<Operand>(order.Count);
        var singles = new Adjacency.Pairs(slotCount);
        var lastSingle = new int[slotCount];
        for (var i = 0; i < codes.Length; i++)
        {
            var clause = order[i];
            clauseNumbers[clause] = i;
            codes[i] = new(pool.OpOf(clause), Slot(pool.SlotOf(clause)), comparands.Count, pool.ComparandsOf(clause).Length);
            Note(codes[i].Slot, i);
            foreach (var comparand in pool.ComparandsOf(clause))
            {
                if (comparand < 0)
                {
                    comparands.Add(~literals.Count);
                    literals.Add(pool.Literal(~comparand));
                }
                else
                {
                    comparands.Add(Slot(comparand));
                    Note(Slot(comparand), i);
                }
            }
        }

        return new()
        {
            Codes = codes,
            Comparands = [.. comparands],
            Literals = [.. literals],
            Dispatches = dispatches,
            FirstOfDispatch = firstOf,
            MostDecidedAtOnce = most,
            FirstSingle = firstSingle,
            SinglesOfSlot = singles.ToAdjacency(),
            Stages = [.. pool.Stages],
        };

        void Note(int slot, int clause)
        {
            if (clause >= firstSingle && lastSingle[slot] != clause + 1)
            {
                lastSingle[slot] = clause + 1;
                singles.Add(slot, clause);
            }
        }
    }

    private GroupTable LinkGroups(int clauseCount)
    {
        var order = Number(groupNumbers, clauseCount, rule => rule.Groups);
        var codes = new GroupCode[order.Count];
        var members = new List<int>(3 * order.Count);
        for (var i = 0; i < codes.Length; i++)
        {
            var inner = frame.Groups.MembersOf(order[i]);
            codes[i] = GroupCode.Of(frame.Groups.QuantifierOf(order[i]), members.Count, inner.Length);
            foreach (var member in inner)
            {
                members.Add(Condition(member));
            }
        }

        return new(clauseCount, codes, [.. members]);
    }

    private VariantTable LinkVariants(int conditionCount)
    {
        var codes = new List<VariantCode>(rules.Length);
        var cases = new List<int>(rules.Length);
        var limits = new List<Condition?>(rules.Length);
        var mentioned = new int[rules.Length][];
        for (var rank = 0; rank < rules.Length; rank++)
        {
            firstVariants[rank] = codes.Count;
            mentioned[rank] = rules[rank]?.Mentioned ?? [];
            foreach (var variant in rules[rank]?.Variants ?? [])
            {
                codes.Add(new(rank, variant.OwnField, cases.Count, variant.Conditions.Length));
                limits.Add(variant.Limit);
                foreach (var condition in variant.Conditions)
                {
                    cases.Add(Condition(condition));
                }
            }
        }

        return new([.. codes], [.. cases], [.. limits], mentioned, conditionCount);
    }

    private EffectTable LinkEffects(SlotTable slots)
    {
        var (fieldCount, hasSets) = (frame.Fields.Count, false);
        var values = new List<ValueCode>();
        var requirements = new List<RequirementCode>();
        var choices = new List<ImmutableArray<string>>();
        var isGiven = new bool[fieldCount];
        var read = new HashSet<(int Slot, int Field)>();
        for (var rank = 0; rank < rules.Length; rank++)
        {
            (firstValues[rank], firstRequirements[rank], firstChoices[rank]) = (values.Count, requirements.Count, choices.Count);
            if (rules[rank] is not { } rule)
            {
                continue;
            }

            foreach (var code in rule.Values)
            {
                values.Add(Placed(code));
            }

            requirements.AddRange(rule.Requirements);
            choices.AddRange(rule.Choices);
            foreach (var claim in rule.Claims)
            {
                if (claim.Facet == Facet.Value)
                {
                    var code = values[firstValues[rank] + claim.Says];
                    hasSets |= !code.IsHeld;
                    isGiven[claim.Element] |= !code.IsHeld;
                    if (code.Slot >= 0)
                    {
                        read.Add((code.Slot, claim.Element));
                    }
                }
            }
        }

        var fieldsOfSlot = new Adjacency.Pairs(slots.Count);
        var sources = new Adjacency.Pairs(fieldCount);
        foreach (var (slot, field) in read.Order())
        {
            fieldsOfSlot.Add(slot, field);
        }

        foreach (var ofField in read.OrderBy(pair => pair.Field).GroupBy(pair => pair.Field, pair => pair.Slot))
        {
            foreach (var source in ofField.SelectMany(slots.FieldsOf).Distinct().Order())
            {
                sources.Add(ofField.Key, source);
            }
        }

        return new()
        {
            Values = [.. values],
            Requirements = [.. requirements],
            Choices = [.. choices],
            HasSets = hasSets,
            IsGiven = isGiven,
            FieldsOfSlot = fieldsOfSlot.ToAdjacency(),
            Sources = sources.ToAdjacency(),
        };
    }
}
