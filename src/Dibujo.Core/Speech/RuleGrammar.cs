using System.Collections.Immutable;
using Dibujo.Core.Conditions;
using Dibujo.Core.Forms;
using Dibujo.Core.Rules;

namespace Dibujo.Core.Speech;

/// <summary>How conditions and effects make a rule.</summary>
internal sealed class RuleGrammar(Lexicon lexicon, Comparison comparison)
{
    /// <summary>So many that are called by the same word are everything about it, and not a list.</summary>
    private const int FewestAbout = 3;

    /// <summary>What it costs that something is hidden for being blank.</summary>
    private const double Circular = 2;

    private static readonly Cue[] Joints = [Cue.And, Cue.Or, Cue.OrElse, Cue.Comma, Cue.But, Cue.Nor, Cue.Then, Cue.Into, Cue.To, Cue.For];

    internal IEnumerable<Node> Of(Node left, Node right) => (left, right) switch
    {
        (Node.Said(var cue), not Node.Joined) when Joints.Contains(cue) && IsJoined(cue, right) => [new Node.Joined(cue, right)],
        // What has to be, or must not be: what breaks it is stopped.
        (Node.Subjects { Of: [var subject], IsNegated: false }, Node.Said(Cue.MustNotBe)) => [new Node.Bound(subject, IsForbidden: true)],
        (Node.Subjects { Of: [var subject], IsNegated: false }, Node.Said(Cue.MustBe)) => [new Node.Bound(subject, IsForbidden: false)],
        (Node.Bound bound, Node.Tail tail) => Stopped(bound, comparison.Of(bound.Subject, tail)),
        (Node.Bound bound, Node.Said(Cue.InPast or Cue.InFuture) said) => Stopped(bound, comparison.Of(bound.Subject, new Node.Tail(said.Cue == Cue.InPast ? Test.Before : Test.After, [new Node.Other(new RelativeDay(0))]))),
        (Node.Bound { Subject: var subject } bound, Node.Holds { Condition: Clause { Subject: var same } clause }) when same == subject => Costly(-0.1, Stopped(bound, clause)),
        (Node.Said(Cue.MustNotBe), Node.Holds { Condition: Clause { Subject: FieldSubject subject } clause }) => Costly(0.3, Stopped(new Node.Bound(subject, IsForbidden: true), clause)),
        (Node.Said(Cue.MustBe), Node.Holds { Condition: Clause { Subject: FieldSubject subject } clause }) => Costly(0.5, Stopped(new Node.Bound(subject, IsForbidden: false), clause)),
        // "It can't be dispatched as long as the weight is missing."
        (Node.Stopped stopped, Node.When when) => Stopped(stopped, when.Condition),
        (Node.Stopped stopped, Node.Joined(Cue.Comma, Node.When when)) => Costly(0.1, Stopped(stopped, when.Condition)),
        (Node.When when, Node.Stopped stopped) => Stopped(stopped, when.Condition),
        (Node.When when, Node.Joined(Cue.Comma or Cue.Then, Node.Stopped stopped)) => Stopped(stopped, when.Condition),
        // Condition and effects, in either order.
        (Node.When when, Node.Does does) => Made(when, does),
        (Node.When when, Node.Joined(Cue.Comma or Cue.Then, Node.Does does)) => Made(when, does),
        (Node.When when, Node.Joined(Cue.But, Node.Does does)) => Costly(0.5, Made(when, does)),
        (Node.Does does, Node.When when) => Made(when, does),
        (Node.Does does, Node.Joined(Cue.Comma or Cue.But or Cue.And, Node.When when)) => Costly(0.1, Made(when, does)),
        (Node.Holds holds, Node.Joined(Cue.Then, Node.Does does)) => Costly(0.1, Made(new(holds.Condition), does)),
        (Node.Holds holds, Node.Joined(Cue.Comma, Node.Does does)) => Costly(0.5, Made(new(holds.Condition), does)),
        (Node.Holds { Condition: Clause { Subject: RoleSubject or PersonSubject } } holds, Node.Does does) => Costly(0.1, Made(new(holds.Condition), does)),
        (Node.Holds holds, Node.Does does) => Costly(0.4, Made(new(holds.Condition), does)),
        (Node.Does { Effects: [Message, ..] } does, Node.Holds holds) => Costly(0.4, Made(new(holds.Condition), does)),
        // In a telegram: "sensitivity high => remarks!".
        (Node.Holds holds, Node.Joined(Cue.Then, Node.Targets targets)) => Costly(0.7, Made(new(holds.Condition), new([new Require(targets.Of)]))),
        (Node.Targets targets, Node.When { IsOnly: false, Condition: Clause { Subject: RoleSubject or PersonSubject } } when) => Costly(1.3, Made(when, new([new Show(targets.Of)]))),
        (Node.When when, Node.Whole { Cases: [var only, ..] } whole) when !when.IsElse => Costly(0.1, Also(when, only, whole)),
        (Node.When when, Node.Joined(Cue.Comma or Cue.Then, Node.Whole { Cases: [var only, ..] } whole)) when !when.IsElse => Costly(0.1, Also(when, only, whole)),
        (Node.Whole { Cases: [var only] } whole, Node.When when) when !when.IsElse => Costly(0.15, Also(when, only, whole)),
        (Node.Whole { Cases: [var only] } whole, Node.Joined(Cue.And or Cue.But or Cue.Comma, Node.When when)) when !when.IsElse => Costly(0.2, Also(when, only, whole)),
        (Node.Whole { Cases: [var only] } whole, Node.Joined(Cue.And or Cue.Comma or Cue.But, Node.Does { If: null } does)) => Costly(0.35, More(only, whole, does)),
        // "Require it by sea before it can be dispatched."
        (Node.Whole { Cases: [var only] } whole, Node.For moves) when EffectGrammar.IsRequiring(only.Effects) => Costly(-0.15, [whole with { Cases = [only with { Effects = EffectGrammar.Requiring(only.Effects, moves.Moves) }] }]),
        (Node.Whole { Cases: [var only] } whole, Node.Words words) => Costly(-0.2, Worded(whole, only, words.Text)),
        (Node.Whole { Cases: [var only] } whole, Node.Joined(Cue.And or Cue.Comma or Cue.Then, Node.Words words)) => Costly(-0.2, Worded(whole, only, words.Text)),
        (Node.Whole { Cases: [var only] } whole, Node.Joined(Cue.Comma or Cue.Then, Node.Quoted quoted)) => Worded(whole, only, quoted.Text),
        (Node.Whole { Cases: [var only] } whole, Node.Quoted quoted) => Costly(0.1, Worded(whole, only, quoted.Text)),
        (Node.Whole whole, Node.Said(Cue.NobodyElse)) => Reserved(whole),
        (Node.Whole whole, Node.Joined(_, Node.Said(Cue.NobodyElse))) => Reserved(whole),
        (Node.Amount or Node.Choices { Keys.Length: 1 } or Node.Other, Node.When { IsElse: false } when) => [new Node.Another(left, when.Condition)],
        (Node.Whole { Cases: [.., { Effects: [SetValue set], While: not null }] } whole, Node.Joined(Cue.And or Cue.Comma or Cue.But, Node.Another another)) => More(whole, set, another),
        (Node.Whole whole, Node.Aside or Node.Joined(Cue.Comma, Node.Aside)) => [whole],
        (Node.Said(Cue.Polite), Node.Whole) => [right],
        // What is so otherwise.
        (Node.Said(Cue.Otherwise), Node.Does { If: null } does) => [new Node.Else(does.Effects)],
        (Node.Said(Cue.Otherwise), Node.Joined(Cue.Comma or Cue.Then, Node.Does { If: null } does)) => [new Node.Else(does.Effects)],
        (Node.Said(Cue.Otherwise), Node.State state) => [new Node.Else([.. state.Of.SelectMany(doing => EffectGrammar.EffectsOf(doing, []))])],
        (Node.Said(Cue.Otherwise), Node.Said(Cue.Not or Cue.No)) => [new Node.Else([])],
        (Node.Whole whole, Node.Else other) => Otherwise(whole, other),
        (Node.Whole whole, Node.Joined(Cue.Comma or Cue.And or Cue.But, Node.Else other)) => Otherwise(whole, other),
        (Node.Whole one, Node.Whole other) => Costly(0.6, Cases(one, other)),
        (Node.Whole one, Node.Joined(Cue.Comma or Cue.And or Cue.But, Node.Whole other)) => Costly((other.IsElse ? 0.05 : 0.3) + (other.Cases[^1].While is null ? 0.3 : 0), Cases(one, other)),
        _ => [],
    };

    private static bool IsJoined(Cue cue, Node node) => cue switch
    {
        Cue.Into or Cue.To or Cue.For => node is Node.Targets or Node.Amount or Node.Choices or Node.Other or Node.Quoted or Node.Subjects or Node.Said { Cue: Cue.ItsDefault or Cue.Yes or Cue.NoAnswer },
        Cue.Then => node is Node.Targets or Node.Does or Node.Quoted or Node.Whole or Node.Words or Node.State,
        Cue.And or Cue.Or or Cue.OrElse or Cue.Nor => node is not Node.Said { Cue: not (Cue.Blank or Cue.Filled or Cue.NobodyElse or Cue.Saying) },
        Cue.But => node is Node.When or Node.Does or Node.Holds or Node.Whole or Node.Else or Node.Said { Cue: Cue.NobodyElse },
        _ => node is not Node.Said { Cue: not (Cue.NobodyElse or Cue.Saying) },
    };

    private static IEnumerable<Node> Stopped(Node.Bound bound, Condition? condition) => condition is null ? []
        : [new Node.Whole([new([new Message(Severity.StopsSaving, EffectGrammar.NoWords)], bound.IsForbidden ? condition : Comparison.Broken(condition))])];

    /// <summary>What is missing is needed for the move; with all else the move is stopped.</summary>
    private static IEnumerable<Node> Stopped(Node.Stopped stopped, Condition condition)
    {
        ImmutableArray<Condition> parts = condition is Group { Quantifier: Quantifier.AllOf or Quantifier.AnyOf } group ? group.Members : [condition];
        var missing = parts.Select(part => part is Clause { Test: Test.Blank, Subject: FieldSubject { Part: null, Saved: false, Field: not "" } field } ? Element.Field(field.Field) : (Element?)null).ToList();
        yield return missing.TrueForAll(one => one is not null) && (parts.Length == 1 || condition is Group { Quantifier: Quantifier.AnyOf })
            ? new Node.Whole([new([new Require([.. missing.Select(one => one!.Value)]) { Moves = stopped.Moves }])])
            : new Node.Whole([new([new Message(Severity.StopsMoving, EffectGrammar.NoWords)], ConditionGrammar.All(EffectGrammar.Is(new(new MoveSubject(), stopped.Moves)), condition))]);
    }

    /// <summary>A rule of a condition and effects. "It" is what the condition looks at, or what is acted on.</summary>
    private IEnumerable<Node> Made(Node.When when, Node.Does does)
    {
        var acted = does.Effects.SelectMany(TargetsOf).ToImmutableArray();
        var condition = Resolved(when.Condition, acted);
        var looked = LookedAt(when.Condition) is { } field ? ImmutableArray.Create(Element.Field(lexicon.SpokenOf(field))) : [];
        ImmutableArray<Effect> effects = EffectGrammar.Together(does.Effects.Select(effect => WithoutAsking(EffectGrammar.On(effect, acted.IsEmpty ? looked : [.. acted.Distinct()]), when.Condition)));
        // Nobody asks for an answer that was just given.
        var isAnswered = acted.IsEmpty && looked is [{ Key: var it }] && when.Condition is Clause { Subject: FieldSubject { Field: var asked }, Comparands: [Literal { Value: Values.YesNo }] } && asked == it && effects.All(effect => effect is Require or MakeOptional);
        if (condition is null || isAnswered || effects.Any(IsUnfinished))
        {
            yield break;
        }

        if (does.If is { } own)
        {
            condition = ConditionGrammar.All(condition, own);
        }

        yield return Of(condition, effects, when.IsOnly || does.IsOnly) with { IsElse = when.IsElse, Cost = IsOfItself(condition, effects) ? Circular : 0 };
    }

    /// <summary>"Hide everything about the crate unless a crate is needed" leaves the question there: hidden, nobody could answer it.</summary>
    private Effect WithoutAsking(Effect effect, Condition condition) =>
        effect is StateEffect { Targets: { Length: >= FewestAbout } targets } state and (Hide or Show) && LookedAt(condition) is { } looked && targets.Contains(Element.Field(looked)) && targets.All(target => IsAbout(target, looked))
            ? state with { Targets = targets.Remove(Element.Field(looked)) }
            : effect;

    /// <summary>Whether both are called by the same first word: "Crate length" and "Crate needed".</summary>
    private bool IsAbout(Element one, string field) => one.Kind == ElementKind.Field && FirstWord(one.Key) is { } word && word == FirstWord(field);

    private string? FirstWord(string field) => lexicon.Type.Find(field)?.Label.Split(' ')[0];

    /// <summary>Whether what is hidden is hidden only while it is blank, beside something else: "museums have no fee, hide it" says no such thing.</summary>
    private static bool IsOfItself(Condition condition, ImmutableArray<Effect> effects) => condition is Group { Quantifier: Quantifier.AllOf, Members: var members }
        && members.Any(member => member is Clause { Subject: FieldSubject { Part: null, Field: var blank }, Test: Test.Blank } && effects.OfType<Hide>().Any(hide => hide.Targets.Contains(Element.Field(blank))));

    /// <summary>A rule of one case. Who alone may open something is whom it is not locked for.</summary>
    internal static Node.Whole Of(Condition condition, ImmutableArray<Effect> effects, bool isOnly) => isOnly && effects.All(effect => effect is Unlock)
        ? new([new([.. effects.Select(effect => new Lock(((Unlock)effect).Targets))], Others(condition))])
        : new([new(effects, condition)], isOnly);

    /// <summary>Whom it is not open for. "From Approval on only the director" speaks of that stage alone.</summary>
    private static Condition Others(Condition condition)
    {
        if (condition is Group { Quantifier: Quantifier.AllOf, Members: var members } && members.Where(IsWho).ToList() is [var who] && members.Length > 1)
        {
            return members.Remove(who).Add(Negation.Of(who)) is [var first, var second] ? ConditionGrammar.All(first, second) : new Group(Quantifier.AllOf, members.Remove(who).Add(Negation.Of(who)));
        }

        return Negation.Of(condition);
    }

    private static bool IsWho(Condition condition) => condition switch
    {
        Clause { Subject: RoleSubject or PersonSubject } => true,
        Group { Members: var members } => members.All(IsWho),
        _ => false,
    };

    private static IEnumerable<Element> TargetsOf(Effect effect) => effect switch
    {
        StateEffect state => state.Targets,
        FieldEffect { Field: not "" } field => [Element.Field(field.Field)],
        _ => [],
    };

    private static bool IsUnfinished(Effect effect) => effect is StateEffect { Targets.IsEmpty: true } or FieldEffect { Field: "" };

    private static string? LookedAt(Condition condition) => condition switch
    {
        Clause { Subject: FieldSubject { Field: not "" } field } => field.Field,
        Group { Members: var members } => members.Select(LookedAt).LastOrDefault(one => one is not null),
        _ => null,
    };

    /// <summary>The condition with what is acted on in the place of "it"; null where nothing is.</summary>
    private static Condition? Resolved(Condition condition, ImmutableArray<Element> acted) => condition switch
    {
        Clause { Subject: FieldSubject { Field: "" } } clause => acted is [{ Kind: ElementKind.Field, Key: var key }, ..] ? clause with { Subject = new FieldSubject(key) } : null,
        Group group => group.Members.Select(member => Resolved(member, acted)).ToList() is var members && members.TrueForAll(one => one is not null) ? group with { Members = [.. members.Select(one => one!)] } : null,
        _ => condition,
    };

    private static IEnumerable<Node> Also(Node.When when, Case only, Node.Whole whole)
    {
        var condition = Resolved(when.Condition, [.. only.Effects.SelectMany(TargetsOf)]);
        if (condition is null)
        {
            return [];
        }

        var both = only.While is null ? condition : ConditionGrammar.All(condition, only.While);
        return [whole with { Cases = whole.Cases.SetItem(0, only with { While = both }), IsOnly = whole.IsOnly || when.IsOnly }];
    }

    private IEnumerable<Node> More(Node.Whole whole, SetValue set, Node.Another another) =>
        lexicon.Type.Find(set.Field) is { } field && comparison.Value(another.Value, field.Type) is { } value
            ? [whole with { Cases = whole.Cases.Add(new([set with { To = value }], another.Condition)) }]
            : [];

    private static IEnumerable<Node> More(Case only, Node.Whole whole, Node.Does does)
    {
        var it = only.Effects.SelectMany(TargetsOf).Distinct().ToImmutableArray();
        ImmutableArray<Effect> effects = [.. only.Effects, .. does.Effects.Select(effect => EffectGrammar.On(effect, it)).Except(only.Effects)];
        return effects.Any(IsUnfinished) ? [] : [whole with { Cases = [only with { Effects = effects }] }];
    }

    private static IEnumerable<Node> Worded(Node.Whole whole, Case only, string text)
    {
        var changed = only.Effects.Select(effect => effect switch
        {
            Message { Text: EffectGrammar.NoWords } message => message with { Text = text },
            Require { Message: null } require => require with { Message = text },
            Suggest { Reason: EffectGrammar.NoWords } suggest => suggest with { Reason = text },
            _ => effect,
        }).ToImmutableArray();
        return changed.SequenceEqual(only.Effects) ? [] : [whole with { Cases = [only with { Effects = changed }] }];
    }

    private static IEnumerable<Node> Reserved(Node.Whole whole) => whole.Cases is [{ While: { } condition } only]
        ? only.Effects.All(effect => effect is Unlock) ? [new Node.Whole([new([.. only.Effects.Select(effect => new Lock(((Unlock)effect).Targets))], Negation.Of(condition))])]
            : only.Effects.All(effect => effect is Show) ? [whole with { IsOnly = true }]
            : []
        : [];

    private IEnumerable<Node> Otherwise(Node.Whole whole, Node.Else other)
    {
        // "It must lie between 100 and 200, otherwise it cannot be saved": that is what was said already.
        if (whole.Cases is [{ Effects: [Message { Text: EffectGrammar.NoWords } said] }] && other.Effects is [Message { Text: EffectGrammar.NoWords } again])
        {
            return [whole with { Cases = [whole.Cases[0] with { Effects = [said with { Severity = again.Severity }] }] }];
        }

        return Others(whole, other);
    }

    private IEnumerable<Node> Others(Node.Whole whole, Node.Else other)
    {
        if (whole.Cases[^1].While is null)
        {
            return [];
        }

        ImmutableArray<Element> it = [.. whole.Cases.SelectMany(@case => @case.Effects).SelectMany(TargetsOf).Distinct()];
        ImmutableArray<Effect> effects = other.Effects.IsEmpty ? OnlyWhile.Otherwise(whole.Cases[^1].Effects) : EffectGrammar.Together(other.Effects.Select(effect => EffectGrammar.On(effect, it)));
        // To open what rests open and to lock it otherwise is to lock it then.
        if (whole.Cases is [{ Effects: [Unlock unlock], While: { } open }] && effects is [Lock @lock] && unlock.Targets.SequenceEqual(@lock.Targets) && unlock.Targets.All(target => lexicon.RestOf(target).Access == Access.Open))
        {
            return [new Node.Whole([new(effects, open is Clause { Subject: StageSubject } ? Comparison.Broken(open) : Negation.Of(open))])];
        }

        return effects.IsEmpty || effects.Any(IsUnfinished) ? [] : [whole with { Cases = whole.Cases.Add(new(effects)), IsOnly = false }];
    }

    /// <summary>Two rules about the same are one of several cases.</summary>
    private static IEnumerable<Node> Cases(Node.Whole one, Node.Whole other)
    {
        var targets = one.Cases.SelectMany(@case => @case.Effects).SelectMany(TargetsOf).ToHashSet();
        // "For textile it's shown": what was spoken of before, and not the material.
        if (Excludes(one.Cases[^1].While, other.Cases[0].While) && LookedAt(other.Cases[0].While!) is { } looked && other.Cases.SelectMany(@case => @case.Effects).SelectMany(TargetsOf).Contains(Element.Field(looked)))
        {
            return [];
        }

        return !one.IsOnly && !other.IsOnly && one.Cases.All(@case => @case.While is not null) && other.Cases[0].While is not null
            && (other.IsElse || Excludes(one.Cases[^1].While, other.Cases[0].While) || other.Cases.SelectMany(@case => @case.Effects).SelectMany(TargetsOf).All(targets.Contains))
            ? [one with { Cases = one.Cases.AddRange(other.Cases) }]
            : [];
    }

    /// <summary>"With air …, with sea …": of the two only one can be so.</summary>
    private static bool Excludes(Condition? one, Condition? other) => one is Clause { Test: Test.Is } first && other is Clause { Test: Test.Is } second && Negation.IsNever(new Group(Quantifier.AllOf, [first, second]));

    private static IEnumerable<Node> Costly(double more, IEnumerable<Node> nodes) => ConditionGrammar.Costly(more, nodes);
}
