using System.Collections.Immutable;
using Dibujo.Core.Conditions;
using Dibujo.Core.Forms;
using Dibujo.Core.Programs;
using Dibujo.Core.Records;
using Dibujo.Core.Rules;
using Dibujo.Core.Values;

namespace Dibujo.Core.Compilation;

/// <summary>Compiles one sound rule against its frame, without regard to any other rule.</summary>
internal sealed class RuleCompiler
{
    /// <summary>The facets on which a field's own value depends.</summary>
    internal static readonly Facet[] ValueFacets = [Facet.Visibility, Facet.Access, Facet.Value];

    private readonly Frame frame;
    private readonly Rule rule;
    private readonly ImmutableArray<Case> cases;
    private readonly UsedParts used;
    private readonly SortedSet<int> mentioned = [];
    private readonly List<CompiledVariant> variants = [];
    private readonly List<CompiledClaim> claims = [];
    private readonly List<ValueCode> values = [];
    private readonly List<RequirementCode> requirements = [];
    private readonly List<ImmutableArray<string>> choices = [];
    private readonly List<AdviceCode> advice = [];
    private readonly Dictionary<(int Variant, int Field), int> own = [];
    private readonly SortedSet<int> shadowed = [];

    private RuleCompiler(Frame frame, Rule rule)
    {
        (this.frame, this.rule) = (frame, rule);
        used = new(frame.Slots, frame.Clauses);
        cases = rule.AllCases();
    }

    internal static CompiledRule Compile(Frame frame, Rule rule) => new RuleCompiler(frame, rule).Compile();

    private CompiledRule Compile()
    {
        AddVariant(-1, null, Limit());
        foreach (var slot in used.Clauses.SelectMany(clause => frame.Clauses.ComparandsOf(clause).ToArray().Where(slot => slot >= 0).Append(frame.Clauses.SlotOf(clause))))
        {
            frame.Slots.AddFieldsOf(slot, mentioned);
        }

        foreach (var (number, @case) in cases.Index())
        {
            foreach (var effect in @case.Effects)
            {
                AddEffect(number, effect);
            }
        }

        foreach (var field in mentioned)
        {
            SeeAsSaved(field);
        }

        return new()
        {
            Cases = cases,
            Slots = used.Slots,
            Clauses = used.Clauses,
            Groups = used.Groups,
            Variants = [.. variants],
            Claims = [.. claims],
            Mentioned = [.. mentioned],
            Shadowed = [.. shadowed],
            Own = own,
            Values = [.. values],
            Requirements = [.. requirements],
            Choices = [.. choices],
            Advice = [.. advice],
            Speaks = cases.Any(c => c.Effects.Any(e => e is Message or EndForm or JumpAhead)),
        };
    }

    /// <summary>A rule that is limited to forms or channels looks at those before anything else.</summary>
    private Condition? Limit()
    {
        var where = rule.Where;
        ImmutableArray<Condition> limits =
        [
            .. where is null || frame.Type.Forms.All(form => where.Covers(form.Key)) ? [] : new[] { OneOf(new FormSubject(), where.Forms) },
            .. where is null || where.Channels.IsEmpty ? [] : new[] { OneOf(new ChannelSubject(), where.Channels.Select(SubjectTypes.KeyOf)) },
        ];
        return limits.Length > 1 ? new Group(Quantifier.AllOf, limits) : limits.FirstOrDefault();
    }

    private static Clause OneOf(Subject subject, IEnumerable<string> keys) =>
        new(subject, Test.OneOf) { Comparands = [.. keys.Select(key => new Literal(new Text(key)))] };

    private int AddVariant(int ownField, string? form, Condition? limit)
    {
        var conditions = new int[cases.Length];
        for (var i = 0; i < conditions.Length; i++)
        {
            var condition = limit is null ? cases[i].While
                : cases[i].While is not { } own ? limit
                : new Group(Quantifier.AllOf, [limit, own]);
            conditions[i] = frame.Groups.Add(condition, ownField, used);
        }

        variants.Add(new(ownField, form, limit, conditions));
        return variants.Count - 1;
    }

    /// <summary>The variant that holds at that form alone.</summary>
    private int VariantAt(string form)
    {
        var found = variants.FindIndex(variant => variant.OwnField < 0 && variant.Form == form);
        if (found >= 0)
        {
            return found;
        }

        var atForm = new Clause(new FormSubject(), Test.Is) { Comparands = [new Literal(new Text(form))] };
        var limit = variants[0].Limit;
        return AddVariant(-1, form, limit is null ? atForm : new Group(Quantifier.AllOf, [limit, atForm]));
    }

    private void AddEffect(int number, Effect effect)
    {
        switch (effect)
        {
            case Suggest { Field: var key, Value: var value, Reason: var reason }:
                advice.Add(new(0, number, frame.Fields[key], ValueOf(frame.Fields[key], value, isHeld: false), reason));
                break;
            case JumpAhead or EndForm:
                AddSkipped(number, effect);
                break;
            case StateEffect state when Facets.Of(effect) is { } facet:
                var says = Says(effect);
                foreach (var element in state.Targets.SelectMany(frame.Layout.Find))
                {
                    claims.Add(new(element, facet, 0, number, says));
                }

                break;
            case FieldEffect { Field: var key } when Facets.Of(effect) is { } facet:
                claims.Add(new(frame.Fields[key], facet, 0, number, Says(effect)));
                break;
        }
    }

    /// <summary>What is skipped is hidden at one form alone: at each one where the condition's fields stand, by a variant for it.</summary>
    private void AddSkipped(int number, Effect effect)
    {
        foreach (var (door, elements) in SkippedElements.Of(rule, cases[number], effect, frame.Layout, frame.Fields))
        {
            var variant = frame.Layout.Doors.Length == 1 ? 0 : VariantAt(door.Form.Key);
            claims.AddRange(elements.Select(element => new CompiledClaim(element, Facet.Visibility, variant, number, (int)HidingCode.Hidden)));
        }
    }

    /// <summary>What a claim by that effect says; a value effect finds its value as seen from the field itself.</summary>
    private int Says(Effect effect) => effect switch
    {
        Show => (int)HidingCode.Shown,
        Hide { Value: HiddenValue.Clear } => (int)HidingCode.HiddenAndCleared,
        Hide { Value: HiddenValue.Reset } => (int)HidingCode.HiddenAndReset,
        Hide => (int)HidingCode.Hidden,
        Unlock => (int)Access.Open,
        Lock => (int)Access.Locked,
        Require require => Add(requirements, new(require.Level, require.Moves, require.Message)),
        MakeOptional => Add(requirements, new(Requirement.Optional, [], null)),
        SetValue set => Add(values, ValueOf(frame.Fields[set.Field], set.To, isHeld: false)),
        ClearValue => Add(values, new(IsHeld: false, -1, Value.Blank)),
        ResetValue reset => Add(values, DefaultOf(frame.Fields[reset.Field])),
        Calculate calculate => Add(values, ValueOf(frame.Fields[calculate.Field], calculate.From, isHeld: true)),
        Narrow narrow => Add(choices, narrow.Options),
        _ => throw new ArgumentOutOfRangeException(nameof(effect)),
    };

    /// <summary>Where a value for the field is found, seen from the field itself: its own value is the saved one.</summary>
    private ValueCode ValueOf(int field, Comparand from, bool isHeld)
    {
        if (from is Literal literal)
        {
            return new(isHeld, -1, frame.Fields.Type(field).FitGiven(literal.Value));
        }

        var slot = frame.Slots.Of(from, frame.Fields.Type(field), field);
        used.AddSlot(slot);
        return new(isHeld, slot, Value.Blank);
    }

    private ValueCode DefaultOf(int field)
    {
        Comparand? from = frame.Type.Fields[field].Default switch
        {
            FixedDefault { Value: var value } => new Literal(value),
            TodayDefault => frame.Fields.Type(field) is DateTimeType ? new SubjectComparand(new NowSubject()) : new RelativeDay(0),
            CreatorDefault => new SubjectComparand(new PersonSubject()),
            _ => null,
        };
        return from is null ? new(IsHeld: false, -1, Value.Blank) : ValueOf(field, from, isHeld: false);
    }

    /// <summary>A field's own lock, hiding or value looks at its own saved value, also where the effect is on a container.</summary>
    private void SeeAsSaved(int field)
    {
        for (var i = 0; i < claims.Count; i++)
        {
            var claim = claims[i];
            if (!ValueFacets.Contains(claim.Facet))
            {
                continue;
            }

            if (claim.Element < frame.Layout.FirstContainer)
            {
                if (frame.Layout.FieldOf(claim.Element) == field)
                {
                    claims[i] = claim with { Variant = Own(claim.Variant, field) };
                }
            }
            else if (frame.Layout.Reach[field].Contains(claim.Element))
            {
                shadowed.Add(field);
                Own(claim.Variant, field);
            }
        }
    }

    private int Own(int variant, int field)
    {
        if (!own.TryGetValue((variant, field), out var found))
        {
            own[(variant, field)] = found = AddVariant(field, variants[variant].Form, variants[variant].Limit);
        }

        return found;
    }

    private static int Add<T>(List<T> list, T item)
    {
        list.Add(item);
        return list.Count - 1;
    }
}
