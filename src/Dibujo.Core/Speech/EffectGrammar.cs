using System.Collections.Immutable;
using Dibujo.Core.Conditions;
using Dibujo.Core.Forms;
using Dibujo.Core.Records;
using Dibujo.Core.Rules;
using Dibujo.Core.Values;

namespace Dibujo.Core.Speech;

/// <summary>How verbs, states and what they are about make effects.</summary>
internal sealed class EffectGrammar(RecordType type, Comparison comparison)
{
    /// <summary>What is said by a message that was given no words, until it is known when it is said.</summary>
    internal const string NoWords = "";

    private static readonly Dictionary<Cue, Doing> Verbs = new()
    {
        [Cue.Show] = Doing.Show,
        [Cue.Hide] = Doing.Hide,
        [Cue.Require] = Doing.Require,
        [Cue.Optional] = Doing.MakeOptional,
        [Cue.Lock] = Doing.Lock,
        [Cue.Unlock] = Doing.Unlock,
        [Cue.Clear] = Doing.Clear,
        [Cue.Reset] = Doing.Reset,
    };

    private static readonly Dictionary<Cue, Doing> States = new()
    {
        [Cue.IsShown] = Doing.Show,
        [Cue.IsHidden] = Doing.Hide,
        [Cue.IsRequired] = Doing.Require,
        [Cue.IsOptional] = Doing.MakeOptional,
        [Cue.IsLocked] = Doing.Lock,
        [Cue.IsOpen] = Doing.Unlock,
        [Cue.IsCleared] = Doing.Clear,
        [Cue.IsReset] = Doing.Reset,
    };

    private static readonly Dictionary<Cue, Severity> Messages = new()
    {
        [Cue.Warn] = Severity.Warning,
        [Cue.Tell] = Severity.Note,
        [Cue.StopSaving] = Severity.StopsSaving,
        [Cue.StopMoving] = Severity.StopsMoving,
    };

    internal IEnumerable<Node> Of(Node left, Node right) => (left, right) switch
    {
        (Node.Targets one, Node.Joined(Cue.And or Cue.Or or Cue.Comma or Cue.Nor, Node.Targets other) joined) when !other.IsNegated =>
            Costly((joined.By == Cue.Comma && !other.IsListed ? 0.3 : 0) + (IsPlace(one) != IsPlace(other) ? 0.6 : 0), [one with { Of = [.. one.Of.Union(other.Of)], IsListed = true }]),
        (Node.Said(Cue.Neither), Node.Targets { Of.Length: > 1 } targets) => [targets with { IsNegated = true }],
        (Node.Said(Cue.Both or Cue.EverythingIn), Node.Targets targets) when left is Node.Said { Cue: Cue.Both } || targets.Of.All(one => one.Kind is ElementKind.Section or ElementKind.Tab or ElementKind.Form) => [targets],
        (Node.Said(Cue.NothingIn), Node.Targets { IsNegated: false } targets) when targets.Of.All(one => one.Kind is ElementKind.Section or ElementKind.Tab or ElementKind.Form) => [targets with { IsNegated = true }],
        (Node.Does { Effects: [Require] } does, Node.Said(Cue.Blank)) => [does],
        (Node.Said(Cue.Warn or Cue.Tell) said, Node.Holds { Condition: Clause { Subject: RoleSubject or PersonSubject } } who) => Costly(0.3, [new Node.Does([new Message(Messages[said.Cue], NoWords)], who.Condition)]),
        // Verbs.
        (Node.Said(Cue.Not or Cue.Nobody), Node.Verb verb) when Opposite(verb.Of) is { } opposite => [new Node.Verb(opposite)],
        (Node.Said(Cue.May or Cue.Modal) said, Node.Verb verb) when said.Cue == Cue.May || verb.Of != Doing.Unlock => [verb],
        (Node.Verb verb, Node.Targets targets) => Done(verb.Of, targets.Of, targets.IsNegated),
        (Node.Verb verb, Node.Said(Cue.Itself)) => Costly(0.05, Done(verb.Of, [], false)),
        (Node.Verb one, Node.Joined(Cue.And or Cue.Comma, Node.Verb other)) => [new Node.Verbs([one.Of, other.Of])],
        (Node.Verbs verbs, Node.Targets targets) => Costly(0.05, Done(verbs.Of, targets.Of)),
        (Node.Verbs verbs, Node.Said(Cue.Itself)) => Costly(0.15, Done(verbs.Of, [])),
        // States.
        (Node.Said(Cue.Not or Cue.Nobody), Node.State { Of: [var state] }) when Opposite(state) is { } opposite => [new Node.State([opposite])],
        // What has to be written is required, not open.
        (Node.Said(Cue.Modal or Cue.Be or Cue.May) said, Node.State state) when said.Cue != Cue.Modal || !state.Of.Contains(Doing.Unlock) => [state],
        (Node.Said(Cue.May), Node.Said(Cue.Filled)) => Costly(0.05, [new Node.State([Doing.Unlock])]),
        (Node.Said(Cue.Only), Node.Said(Cue.Filled)) => Costly(0.1, [new Node.State([Doing.Unlock], IsOnly: true)]),
        (Node.Said(Cue.May), Node.Targets { IsNegated: false } targets) => Costly(0.55, Done([Doing.Unlock], targets.Of)),
        // "No fee for museums": which of the two is asked.
        (Node.Said(Cue.No), Node.Targets { IsNegated: false } targets) => Costly(0.8, [.. Done([Doing.Hide], targets.Of), .. Done([Doing.MakeOptional], targets.Of)]),
        (Node.Choices choices, Node.Said(Cue.IsNarrow)) => Costly(0.25, Filled(choices.Field.Key, Doing.Narrow, choices)),
        (Node.Said(Cue.Only), Node.Does { Effects: [Narrow], If: null }) => Costly(-0.2, [right]),
        (Node.Said(Cue.Only), Node.Does { If: null, Effects: [Show or Require] } does) => Costly(0.1, [does with { IsOnly = true }]),
        (Node.Said(Cue.Modal), Node.Said(Cue.Filled)) => [new Node.State([Doing.Require])],
        (Node.Said(Cue.MustNotBe), Node.Said(Cue.Blank)) => [new Node.State([Doing.Require])],
        (Node.Said(Cue.Only), Node.State state) => [state with { IsOnly = true }],
        (Node.State one, Node.Joined(Cue.And or Cue.Comma, Node.State other)) => [new Node.State([.. one.Of, .. other.Of], one.IsOnly || other.IsOnly)],
        (Node.Targets targets, Node.State state) => Costly(0.02, targets.IsNegated ? state.Of is [var one] && Opposite(one) is { } opposite ? Done([opposite], targets.Of) : [] : Done(state.Of, targets.Of, state.IsOnly)),
        (Node.Said(Cue.Itself), Node.State state) => Costly(0.1, Done(state.Of, [], state.IsOnly)),
        (Node.Does { Effects: [.., StateEffect last], If: null } does, Node.Joined(Cue.Nor, Node.Targets more)) => Costly(0.2, [does with { Effects = does.Effects.SetItem(does.Effects.Length - 1, last with { Targets = [.. last.Targets.Union(more.Of)] }) }]),
        // "The fee is hidden, and the waiver reason as well."
        (Node.Does { Effects: [.., StateEffect last], If: null } does, Node.Joined(Cue.And, Node.Targets { IsNegated: false } more)) =>
            Costly(0.5, [does with { Effects = does.Effects.SetItem(does.Effects.Length - 1, last with { Targets = [.. last.Targets.Union(more.Of)] }) }]),
        (Node.Said(Cue.NotEven), Node.Settings or Node.Targets or Node.Choices) => [new Node.Aside()],
        (Node.Does does, Node.Aside or Node.Joined(Cue.Comma, Node.Aside)) => [does],
        (Node.Said(Cue.Polite), Node.Does or Node.Verb or Node.Targets or Node.When) => [right],
        // "We want sensitivity filled in."
        (Node.Targets targets, Node.Said(Cue.Filled)) => Costly(0.7, Done([Doing.Require], targets.Of)),
        (Node.Said(Cue.Modal or Cue.Require), Node.Does { Effects: [Require, ..] } does) => Costly(-0.4, [does]),
        (Node.Said(Cue.No), Node.Does { If: null, Effects: [Require or Show] } does) => Costly(0.1, Done(does.Effects[0] is Require ? Doing.MakeOptional : Doing.Hide, ((StateEffect)does.Effects[0]).Targets, false)),
        (Node.Said(Cue.Not), Node.Does { If: null, Effects: [StateEffect { Targets.IsEmpty: false } state] } does) when Undone(state) is { } undone => Costly(0.3, [does with { Effects = [undone] }]),
        // How strongly, for what, with which words.
        (Node.Does does, Node.Said(Cue.ToSave)) when IsRequiring(does.Effects) => [does with { Effects = Requiring(does.Effects, require => require with { Level = Requirement.ToSave }) }],
        (Node.Does does, Node.Said(Cue.ToMoveOn)) when IsRequiring(does.Effects) => [does],
        (Node.Said(Cue.MoveTo or Cue.Before), Node.Settings { Subject: MoveSubject, IsNegated: false } moves) => [new Node.For(moves.Keys)],
        (Node.Does does, Node.For moves) when IsRequiring(does.Effects) => Costly(-0.15, [does with { Effects = Requiring(does.Effects, moves.Moves) }]),
        (Node.For moves, Node.Does does) when IsRequiring(does.Effects) => Costly(-0.1, [does with { Effects = Requiring(does.Effects, moves.Moves) }]),
        (Node.For moves, Node.Joined(Cue.Comma, Node.Does does)) when IsRequiring(does.Effects) => Costly(-0.1, [does with { Effects = Requiring(does.Effects, moves.Moves) }]),
        (Node.Said(Cue.Saying), Node.Quoted quoted) => [new Node.Words(quoted.Text)],
        (Node.Joined(_, Node.Said(Cue.Saying)), Node.Quoted quoted) => [new Node.Words(quoted.Text)],
        (Node.Does does, Node.Words words) => Said(does, words.Text),
        (Node.Does does, Node.Joined(Cue.Comma or Cue.And or Cue.Then, Node.Words words)) => Said(does, words.Text),
        (Node.Does does, Node.Quoted quoted) => Costly(0.1, Said(does, quoted.Text)),
        (Node.Does does, Node.Joined(Cue.Comma or Cue.Then, Node.Quoted quoted)) => Costly(0.1, Said(does, quoted.Text)),
        (Node.Said(var cue), Node.Quoted quoted) when cue is Cue.EndForm || Messages.ContainsKey(cue) => Quoted(cue, quoted.Text),
        (Node.Said(Cue.Show), Node.Quoted quoted) => Costly(0.1, Quoted(Cue.Tell, quoted.Text)),
        (Node.Said(var cue), Node.Joined(Cue.Then or Cue.Comma, Node.Quoted quoted)) when cue is Cue.EndForm || Messages.ContainsKey(cue) => Quoted(cue, quoted.Text),
        // A move that is stopped, or that something is needed for.
        (Node.Said(Cue.StopMoving), Node.Settings { Subject: MoveSubject } moves) => [new Node.Does([new Message(Severity.StopsMoving, NoWords)], Is(moves))],
        (Node.Settings { Subject: MoveSubject } moves, Node.Said(Cue.StopSaving or Cue.StopMoving)) => [new Node.Does([new Message(Severity.StopsMoving, NoWords)], Is(moves))],
        (Node.Said(Cue.CannotWithout), Node.Settings { Subject: MoveSubject, IsNegated: false } moves) => [new Node.Stopped(moves.Keys)],
        (Node.Said(Cue.Not or Cue.No), Node.Settings { Subject: MoveSubject, IsNegated: false } moves) => [new Node.Stopped(moves.Keys)],
        (Node.Said(Cue.Without), Node.Targets targets) => [new Node.Without(targets.Of)],
        (Node.Without without, Node.Stopped stopped) => Costly(0.05, [new Node.Does([new Require(without.Of) { Moves = stopped.Moves }])]),
        (Node.Stopped stopped, Node.Without without) => [new Node.Does([new Require(without.Of) { Moves = stopped.Moves }])],
        (Node.Said(Cue.StopSaving), Node.Without without) => [new Node.Does([new Require(without.Of, Requirement.ToSave)])],
        (Node.Said(Cue.StopMoving), Node.Without without) => [new Node.Does([new Require(without.Of)])],
        // "The fee for museums is hidden", "the language of the drawing class is English".
        (Node.Targets { IsNegated: false } targets, Node.When { IsElse: false } when) => [.. Only(targets, when), .. Costly(0.25, [new Node.Qualified(targets, when)])],
        (Node.Targets { IsNegated: false } targets, Node.Joined(Cue.Then, Node.When { IsElse: false } when)) => Costly(0.3, [new Node.Qualified(targets, when)]),
        (Node.Qualified of, Node.Verb verb) => Costly(0.1, Done([verb.Of], of.Of.Of).OfType<Node.Does>().Select(does => does with { If = of.In.Condition, IsOnly = of.In.IsOnly })),
        (Node.Qualified of, Node.State state) => Done(state.Of, of.Of.Of, state.IsOnly).OfType<Node.Does>().Select(does => does with { If = of.In.Condition, IsOnly = does.IsOnly || of.In.IsOnly }),
        (Node.Qualified { Of.Of: [{ Kind: ElementKind.Field, Key: var key }] } of, Node.Said(Cue.IsSet)) => [new Node.Given(key, Doing.Set) { If = of.In.Condition }],
        // Values.
        (Node.Said(Cue.SetTo), Node.Targets { Of: [{ Kind: ElementKind.Field, Key: var key }] }) => [new Node.Given(key, Doing.Set)],
        (Node.Said(Cue.Calculate), Node.Targets { Of: [{ Kind: ElementKind.Field, Key: var key }] }) => [new Node.Given(key, Doing.Calculate)],
        (Node.Said(Cue.Narrow), Node.Targets { Of: [{ Kind: ElementKind.Field, Key: var key }] }) => [new Node.Given(key, Doing.Narrow)],
        (Node.Said(Cue.Suggest), Node.Targets { Of: [{ Kind: ElementKind.Field, Key: var key }] }) => [new Node.Given(key, Doing.Suggest)],
        (Node.Targets { Of: [{ Kind: ElementKind.Field, Key: var key }] }, Node.Said(Cue.IsSet)) => [new Node.Given(key, Doing.Set)],
        (Node.Given { How: Doing.Set } given, _) when IsValue(right) => Costly(0.05, Given(given, right)),
        (Node.Given { How: Doing.Set } given, Node.Subjects) => Costly(0.1, Given(given, right)),
        // Where the message stands.
        (Node.Does { Effects: [Message { At: null, Text: not NoWords } message] } does, Node.Joined(Cue.For or Cue.To, Node.Targets { Of: [var place] })) => Costly(0.1, [does with { Effects = [message with { At = place }] }]),
        (Node.Does { Effects: [Message] } does, Node.State { Of: [Doing.Show] }) => Costly(0.1, [does]),
        (Node.Given given, Node.Joined(Cue.Into or Cue.To or Cue.For or Cue.Comma, var value)) => Given(given, value),
        (Node.Said(Cue.SetTo), _) when IsValue(right) => [new Node.Giving(right, Doing.Set)],
        (Node.Said(Cue.Suggest), _) when IsValue(right) => right is Node.Choices { Keys.Length: 1 } choices ? [new Node.Giving(right, Doing.Suggest), .. Costly(0.2, Filled(choices.Field.Key, Doing.Suggest, right))] : [new Node.Giving(right, Doing.Suggest)],
        (Node.Said(Cue.Narrow), Node.Choices choices) => Costly(0.1, Filled(choices.Field.Key, Doing.Narrow, right)),
        (Node.Giving giving, Node.Joined(Cue.Into or Cue.For, Node.Targets { Of: [{ Kind: ElementKind.Field, Key: var key }] })) => Filled(key, giving.How, giving.Value),
        (Node.Does { Effects: [Narrow narrow] } does, Node.Joined(Cue.Into or Cue.For, Node.Targets { Of: [{ Kind: ElementKind.Field, Key: var key }] })) when narrow.Field == key => [does],
        (Node.Targets { Of: [{ Kind: ElementKind.Field, Key: var key }] }, Node.Said(Cue.Narrow)) => [new Node.Given(key, Doing.Narrow)],
        (Node.Given { How: Doing.Narrow } given, Node.Choices) => Costly(0.05, Filled(given.Field, given.How, right)),
        (Node.Targets { Of: [{ Kind: ElementKind.Field, Key: var key }] }, _) when IsValue(right) => Costly(0.75, Filled(key, Doing.Set, right)),
        // "They can read the price but not change it."
        (Node.Does { If: null, Effects: [Show show] }, Node.Joined(Cue.But, Node.Does { If: null, Effects: [Lock @lock] } other)) when @lock.Targets.IsEmpty || @lock.Targets.SequenceEqual(show.Targets) => [new Node.Does([new Lock(show.Targets)])],
        (Node.Does { If: null } one, Node.Joined(Cue.And or Cue.Comma or Cue.But, Node.Does { If: null } other)) => Costly(0.05, Merged(one, other)),
        (Node.Does { If: null } one, Node.Does { If: null } other) => Costly(0.5, Merged(one, other)),
        _ => [],
    };

    private static bool IsPlace(Node.Targets targets) => targets.Of.Any(one => one.Kind is ElementKind.Section or ElementKind.Tab or ElementKind.Form);

    private static IEnumerable<Node> Only(Node.Targets targets, Node.When when) => when.IsOnly ? Costly(0.5, [new Node.Does([new Show(targets.Of)], when.Condition, IsOnly: true)]) : [];

    private IEnumerable<Node> Given(Node.Given given, Node value) => Filled(given.Field, given.How, value is Node.Subjects { Of: [var other], IsNegated: false } ? new Node.Other(new SubjectComparand(other)) : value).Select(node => node is Node.Does does ? does with { If = given.If } : node);

    /// <summary>What a cue alone is.</summary>
    internal static IEnumerable<Node> ByItself(Node node) => node switch
    {
        Node.Said(var cue) when Verbs.TryGetValue(cue, out var verb) => [new Node.Verb(verb)],
        Node.Said(var cue) when States.TryGetValue(cue, out var state) => [new Node.State([state])],
        Node.Said(var cue) when Messages.TryGetValue(cue, out var severity) => Costly(0.3, [new Node.Does([new Message(severity, NoWords)])]),
        _ => [],
    };

    private static bool IsValue(Node node) => node is Node.Amount or Node.Choices { Keys.Length: 1, IsNegated: false } or Node.Other or Node.Quoted or Node.Said { Cue: Cue.ItsDefault or Cue.Yes or Cue.NoAnswer };

    private static Doing? Opposite(Doing doing) => doing switch
    {
        Doing.Show => Doing.Hide,
        Doing.Hide => Doing.Show,
        Doing.Require => Doing.MakeOptional,
        Doing.MakeOptional => Doing.Require,
        Doing.Lock => Doing.Unlock,
        Doing.Unlock => Doing.Lock,
        _ => null,
    };

    private static StateEffect? Undone(StateEffect effect) => effect switch
    {
        Unlock unlock => new Lock(unlock.Targets),
        Show show => new Hide(show.Targets),
        _ => null,
    };

    private static IEnumerable<Node> Done(Doing doing, ImmutableArray<Element> targets, bool isNegated) =>
        isNegated ? Opposite(doing) is { } opposite ? Done([opposite], targets) : [] : Done([doing], targets);

    private static IEnumerable<Node> Done(ImmutableArray<Doing> doings, ImmutableArray<Element> targets, bool isOnly = false)
    {
        var effects = doings.SelectMany(doing => EffectsOf(doing, targets)).ToImmutableArray();
        return effects.Length >= doings.Length ? [new Node.Does(effects, IsOnly: isOnly)] : [];
    }

    /// <summary>That, done to those; to "it" where there are none.</summary>
    internal static IEnumerable<Effect> EffectsOf(Doing doing, ImmutableArray<Element> targets) => doing switch
    {
        Doing.Show => [new Show(targets)],
        Doing.Hide => [new Hide(targets)],
        Doing.Require => [new Require(targets)],
        Doing.MakeOptional => [new MakeOptional(targets)],
        Doing.Lock => [new Lock(targets)],
        Doing.Unlock => [new Unlock(targets)],
        Doing.Clear when targets.All(one => one.Kind == ElementKind.Field) => targets.IsEmpty ? [new ClearValue("")] : targets.Select(one => new ClearValue(one.Key)),
        Doing.Reset when targets.All(one => one.Kind == ElementKind.Field) => targets.IsEmpty ? [new ResetValue("")] : targets.Select(one => new ResetValue(one.Key)),
        _ => [],
    };

    /// <summary>Whether something is needed there, and not yet said for which moves or how strongly.</summary>
    internal static bool IsRequiring(ImmutableArray<Effect> effects) => effects.Any(effect => effect is Require { Moves.IsEmpty: true, Level: Requirement.ToMoveOn });

    /// <summary>The same, needed for those moves.</summary>
    internal static ImmutableArray<Effect> Requiring(ImmutableArray<Effect> effects, ImmutableArray<string> moves) => Requiring(effects, require => require with { Moves = moves });

    private static ImmutableArray<Effect> Requiring(ImmutableArray<Effect> effects, Func<Require, Require> change) => [.. effects.Select(effect => effect is Require require ? change(require) : effect)];

    private static IEnumerable<Node> Said(Node.Does does, string text)
    {
        var changed = does.Effects.Select(effect => effect switch
        {
            Message { Text: NoWords } message => message with { Text = text },
            Require { Message: null } require => require with { Message = text },
            Suggest { Reason: NoWords } suggest => suggest with { Reason = text },
            _ => effect,
        }).ToImmutableArray();
        return changed.SequenceEqual(does.Effects) ? [] : Costly(-0.3, [does with { Effects = changed }]);
    }

    private static IEnumerable<Node> Quoted(Cue cue, string text) =>
        Messages.TryGetValue(cue, out var severity) ? [new Node.Does([new Message(severity, text)])]
        : cue == Cue.EndForm ? [new Node.Does([new EndForm(text)])]
        : [];

    internal static Clause Is(Node.Settings moves) => new(new MoveSubject(), moves.Keys.Length == 1 ? Test.Is : Test.OneOf) { Comparands = [.. moves.Keys.Select(key => new Literal(new Text(key)))] };

    private IEnumerable<Node> Filled(string field, Doing how, Node value)
    {
        if (type.Find(field) is not { } of)
        {
            return [];
        }

        if (how == Doing.Narrow)
        {
            return value is Node.Choices { IsNegated: false } choices && choices.Field == of ? [new Node.Does([new Narrow(field, choices.Keys)])] : [];
        }

        if (value is Node.Said { Cue: Cue.ItsDefault })
        {
            return how == Doing.Set ? [new Node.Does([new ResetValue(field)])] : [];
        }

        return comparison.Value(value, of.Type, new FieldSubject(field)) is not { } given ? []
            : how switch
            {
                Doing.Set => [new Node.Does([new SetValue(field, given)])],
                Doing.Calculate => [new Node.Does([new Calculate(field, given)])],
                Doing.Suggest => [new Node.Does([new Suggest(field, given, NoWords)])],
                _ => [],
            };
    }

    /// <summary>Two after each other. "It" is what the one before is done to.</summary>
    private static IEnumerable<Node> Merged(Node.Does one, Node.Does other)
    {
        var last = one.Effects.OfType<StateEffect>().LastOrDefault()?.Targets ?? (one.Effects is [.., FieldEffect effect] ? [Element.Field(effect.Field)] : []);
        return [new Node.Does(Together([.. one.Effects, .. other.Effects.Select(next => On(next, last))]), null, one.IsOnly || other.IsOnly)];
    }

    /// <summary>Effects without what is said twice: those that differ only in what they act on are one, and a field that is hidden and emptied is hidden so.</summary>
    internal static ImmutableArray<Effect> Together(IEnumerable<Effect> effects)
    {
        var all = new List<Effect>();
        foreach (var next in effects)
        {
            var place = next switch
            {
                Message { Text: NoWords } message => all.FindIndex(before => before is Message its && its.Severity == message.Severity),
                ClearValue or ResetValue => all.FindIndex(before => before is Hide { Value: HiddenValue.Keep, Targets: [{ Kind: ElementKind.Field, Key: var key }] } && key == ((FieldEffect)next).Field),
                Hide { Targets: [{ Kind: ElementKind.Field, Key: var key }] } => all.FindIndex(before => before is ClearValue or ResetValue && ((FieldEffect)before).Field == key),
                _ => -1,
            };
            if (place < 0 && next is StateEffect state)
            {
                place = all.FindIndex(before => before is StateEffect its && its with { Targets = state.Targets } == state);
            }

            if (place < 0)
            {
                all.Add(next);
            }
            else
            {
                all[place] = One(all[place], next);
            }
        }

        return [.. all];
    }

    private static Effect One(Effect before, Effect next) => (before, next) switch
    {
        (Hide hide, ClearValue) => hide with { Value = HiddenValue.Clear },
        (Hide hide, ResetValue) => hide with { Value = HiddenValue.Reset },
        (ClearValue, Hide hide) => hide with { Value = HiddenValue.Clear },
        (ResetValue, Hide hide) => hide with { Value = HiddenValue.Reset },
        (StateEffect one, StateEffect other) => one with { Targets = [.. one.Targets.Union(other.Targets)] },
        _ => before,
    };

    /// <summary>The effect on those where it was on "it".</summary>
    internal static Effect On(Effect effect, ImmutableArray<Element> it) => effect switch
    {
        StateEffect { Targets.IsEmpty: true } state => state with { Targets = it },
        ClearValue { Field: "" } when it is [{ Kind: ElementKind.Field, Key: var key }] => new ClearValue(key),
        ResetValue { Field: "" } when it is [{ Kind: ElementKind.Field, Key: var key }] => new ResetValue(key),
        _ => effect,
    };

    private static IEnumerable<Node> Costly(double more, IEnumerable<Node> nodes) => ConditionGrammar.Costly(more, nodes);
}
