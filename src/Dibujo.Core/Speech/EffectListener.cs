using System.Collections.Immutable;
using Dibujo.Core.Conditions;
using Dibujo.Core.Forms;
using Dibujo.Core.Records;
using Dibujo.Core.Rules;
using Dibujo.Core.Sentences;

namespace Dibujo.Core.Speech;

/// <summary>Hears effects, said as orders ("require Fee") or as facts ("the fee is mandatory").</summary>
internal sealed class EffectListener(Listener listener, Lexicon lexicon, NameListener names, ValueListener values)
{
    private static readonly string[] Modals =
    [
        "must be", "has to be", "have to be", "needs to be", "need to be", "should be", "shall be", "ought to be", "will be", "is", "are", "be", "becomes", "become", "gets",
        "get", "stays", "stay", "remains", "remain", "can be", "may be",
    ];

    /// <summary>What the effects before this one acted on: "hide Fee and clear it".</summary>
    private ImmutableArray<Element> last = [];
    private ImmutableArray<Element> mentioned = [];

    /// <summary>Whether something was said to be so only under the condition: "is only relevant if".</summary>
    internal bool SaidOnly { get; private set; }

    /// <summary>One effect or more, with "and" or a comma between them; null where none comes next.</summary>
    internal ImmutableArray<Effect>? Effects()
    {
        if (One() is not { } first)
        {
            return null;
        }

        var all = first;
        while (listener.Try<object>(() => (listener.Take(",") | listener.TookAny("and", "also", "and also", "but")) && One() is { } next ? next : null) is ImmutableArray<Effect> more)
        {
            all = all.AddRange(more);
        }

        return Merged(all);
    }

    /// <summary>One effect; several where several verbs have the same targets.</summary>
    private ImmutableArray<Effect>? One() => (ImmutableArray<Effect>?)(listener.Try<object>(() => Special()) ?? listener.Try<object>(() => Order()) ?? listener.Try<object>(() => Fact()));

    private ImmutableArray<Effect>? Special()
    {
        foreach (var hint in (string[])["require", "show", "hide", "lock", "unlock", "set", "empty", "reset", "warn with", "tell", "stop saving with", "end the form with", "jump ahead to"])
        {
            listener.Expect(hint);
        }

        var verb = listener.TakeAny(
            "set", "put", "fill in", "warn with", "warn that", "warn", "warning", "stop saving with", "stop saving", "block saving with", "block saving", "refuse saving with", "do not save", "error",
            "refuse to save", "stop moving with", "stop moving", "block moving on with", "block moving on", "tell", "note", "say", "show message", "show note", "inform", "suggest setting", "suggest", "advise", "recommend",
            "jump ahead to", "jump to", "skip to", "skip ahead to", "go to", "end form with", "end form early with", "end form", "end form early", "form ends", "form ends with", "stop here", "stop here with", "end here", "end here with", "end with note",
            "narrow", "offer only", "only offer", "calculate");
        return verb switch
        {
            null => null,
            "set" or "put" or "fill in" => Given() is var (field, to) ? [new SetValue(field, to)] : null,
            "calculate" => Given() is var (field, from) ? [new Calculate(field, from)] : null,
            "suggest setting" or "suggest" or "advise" or "recommend" => Suggested(),
            "narrow" or "offer only" or "only offer" => Narrowed(),
            "jump ahead to" or "jump to" or "skip to" or "skip ahead to" or "go to" => names.Targets() is [var to] ? [new JumpAhead(to)] : null,
            _ when verb.StartsWith("end", StringComparison.Ordinal) || verb.StartsWith("form ends", StringComparison.Ordinal) || verb.StartsWith("stop here", StringComparison.Ordinal)
                => Quoted("a closing note in quotation marks") is { } note ? [new EndForm(note)] : null,
            _ => Said(verb.StartsWith("warn", StringComparison.Ordinal) ? Severity.Warning
                : verb.Contains("sav", StringComparison.Ordinal) || verb == "error" ? Severity.StopsSaving
                : verb.Contains("mov", StringComparison.Ordinal) ? Severity.StopsMoving
                : Severity.Note),
        };
    }

    private ImmutableArray<Effect>? Said(Severity severity)
    {
        listener.TookAny("with", "that", "user", "person", "saying", ":");
        if (Quoted("the message in quotation marks") is not { } text)
        {
            return null;
        }

        return [new Message(severity, text, listener.TookAny("at", "beside", "next to", "on") && names.Targets() is [var at] ? at : null)];
    }

    private ImmutableArray<Effect>? Suggested()
    {
        if (Given() is not var (field, value))
        {
            return null;
        }

        listener.Take(",");
        return listener.TookAny("because", "since", "as") && Quoted("the reason in quotation marks") is { } reason ? [new Suggest(field, value, reason)] : null;
    }

    private ImmutableArray<Effect>? Narrowed() =>
        Field() is { } field && field.Type is IOffersOptions && listener.TookAny("to", "as", ":") && values.Choices(field.Type) is { } choices
            ? [new Narrow(field.Key, [.. choices.Select(choice => ((Literal)choice).Value.Plain)])]
            : null;

    private (string Field, Comparand Value)? Given() =>
        Field() is { } field && listener.TookAny("to", "=", "as", "with", ":", "is", "be") && values.Comparand(field.Type) is { } value ? (field.Key, value) : null;

    private Field? Field() => names.Targets() is [{ Kind: ElementKind.Field, Key: var key }] ? lexicon.Type.Find(key) : null;

    private string? Quoted(string hint)
    {
        listener.Expect(hint, isHint: true);
        if (listener.Next is not { Kind: WordKind.Quoted, Text: var text })
        {
            return null;
        }

        listener.At++;
        return new ValueReader(new SentenceReader(""), lexicon.Names).WithKeys(text, '{', '}');
    }

    /// <summary>"Reset and lock Fee": verbs, and what they act on.</summary>
    private ImmutableArray<Effect>? Order()
    {
        if (listener.TookAny("make", "keep"))
        {
            return ObjectOf() is { } made && StateWords.Of(listener, isDemanded: false)?.On(made) is { IsEmpty: false } state ? Detailed(state, made) : null;
        }

        if (listener.TookAny("can not save without", "can not be saved without", "record can not be saved without", "do not save without", "no saving without", "do not allow saving without"))
        {
            return names.Targets() is { } missing ? [new Require(missing, Requirement.ToSave)] : null;
        }

        var verbs = new List<Deed>();
        do
        {
            if (Verb() is not { } verb)
            {
                return null;
            }

            verbs.Add(verb);
        }
        while (listener.Try(() => listener.TookAny("and", ",") && Verb(isPeek: true) is not null ? "" : null) is not null);
        return ObjectOf() is { } targets && verbs.SelectMany(verb => verb.On(targets)).ToImmutableArray() is { IsEmpty: false } done ? Detailed(done, targets) : null;
    }

    private Deed? Verb(bool isPeek = false)
    {
        var at = listener.At;
        var found = Deed.Taken(listener);
        if (isPeek)
        {
            listener.At = at;
        }

        return found;
    }

    private ImmutableArray<Element>? ObjectOf()
    {
        if (!last.IsEmpty && listener.TookAny("it", "them", "this", "that", "these", "its value", "value", "their values"))
        {
            return last;
        }

        listener.TookAny("changing", "changes to", "changes of", "editing");
        if (names.Targets() is not { } targets)
        {
            return null;
        }

        last = targets;
        mentioned = [.. mentioned.Union(targets)];
        return targets;
    }

    /// <summary>From here on "them" is everything that was spoken of, as in "otherwise hide them".</summary>
    internal void MeanAll() => last = mentioned;

    /// <summary>Words of one's own that come after the condition: "require Fee if Mode is Air saying “…”".</summary>
    internal ImmutableArray<Effect> Said(ImmutableArray<Effect> effects) =>
        effects.Any(effect => effect is Require { Message: null }) && Message() is { } message
            ? [.. effects.Select(effect => effect is Require { Message: null } require ? require with { Message = message } : effect)]
            : effects;

    private string? Message() => listener.Try(() =>
        listener.TookAny("saying", "with message", "message", "with words", "because") ? Quoted("the message in quotation marks") : null);

    /// <summary>"The fee is mandatory", "length and width must be filled in", "the section disappears".</summary>
    private ImmutableArray<Effect>? Fact()
    {
        if (ObjectOf() is not { } targets)
        {
            return null;
        }

        var modal = listener.TakeAny(Modals);
        var isOnly = modal is not null && listener.Take("only");
        var state = modal switch
        {
            null => StateWords.OfVerb(listener) ?? StateWords.Of(listener, isDemanded: false),
            "is" or "are" or "be" or "becomes" or "become" or "gets" or "get" or "stays" or "stay" or "remains" or "remain" => StateWords.Of(listener, isDemanded: false),
            "can be" or "may be" => listener.TookAny("changed", "edited", "filled in", "modified") ? Deed.Unlock : null,
            _ => StateWords.Of(listener, isDemanded: true),
        };
        if (state is null && modal is not null && targets is [{ Kind: ElementKind.Field, Key: var key }] && lexicon.Type.Find(key) is { } field
            && (modal is not ("is" or "are") || true) && listener.Try(() => listener.TookAny("set to", "to", "equal to") | true ? values.Comparand(field.Type) : null) is { } value)
        {
            return [new SetValue(key, value)];
        }

        SaidOnly |= isOnly && state is not null;
        return state?.On(targets) is { IsEmpty: false } done ? Detailed(done, targets) : null;
    }

    /// <summary>What may follow: for which move, with which words, and what becomes of the value.</summary>
    private ImmutableArray<Effect> Detailed(ImmutableArray<Effect> effects, ImmutableArray<Element> targets)
    {
        var all = effects;
        if (listener.TookAny("and clear it", "and clear them", "and empty it", "and empty them", "and clear", "and clear value", "and clear its value", "and forget it"))
        {
            all = Hiding(all, HiddenValue.Clear);
        }
        else if (listener.TookAny("and reset it", "and reset them", "and reset", "and reset value"))
        {
            all = Hiding(all, HiddenValue.Reset) is var hidden && !hidden.SequenceEqual(all) ? hidden : all.AddRange(Deed.Reset.On(targets));
        }

        if (all.Any(effect => effect is Require))
        {
            all = Requiring(all);
        }

        return all;
    }

    private static ImmutableArray<Effect> Hiding(ImmutableArray<Effect> effects, HiddenValue value) =>
        [.. effects.Select(effect => effect is Hide hide ? hide with { Value = value } : effect)];

    private ImmutableArray<Effect> Requiring(ImmutableArray<Effect> effects)
    {
        var level = Requirement.ToMoveOn;
        ImmutableArray<string> moves = [];
        if (listener.TookAny("to save", "before saving", "for saving", "at every save", "on saving"))
        {
            level = Requirement.ToSave;
        }
        else if (!listener.TookAny("to move on", "before moving on", "for moving on", "to go on", "to proceed", "for any move"))
        {
            moves = Moves();
        }

        var message = Message();
        return [.. effects.Select(effect => effect is Require require ? require with { Level = level, Moves = moves, Message = message } : effect)];
    }

    /// <summary>"For Dispatch", "to hand over": only for these moves.</summary>
    private ImmutableArray<string> Moves() => listener.Try<object>(() =>
    {
        listener.Take("only");
        return listener.TookAny("for move", "for", "to", "before", "on move", "on") && names.List(() => names.Name(lexicon.Moves, "a move", Closeness.Shortened)) is { } moves
            ? moves.Select(move => move.Thing).ToImmutableArray()
            : null;
    }) is ImmutableArray<string> heard ? heard : [];

    /// <summary>Effects that differ only in what they act on are one.</summary>
    private static ImmutableArray<Effect> Merged(ImmutableArray<Effect> effects)
    {
        var merged = new List<Effect>();
        foreach (var effect in effects)
        {
            var same = effect is StateEffect state
                ? merged.FindIndex(other => other is StateEffect before && before with { Targets = state.Targets } == state)
                : -1;
            if (same >= 0)
            {
                var before = (StateEffect)merged[same];
                merged[same] = before with { Targets = [.. before.Targets.Union(((StateEffect)effect).Targets)] };
            }
            else
            {
                merged.Add(effect);
            }
        }

        return [.. merged];
    }
}
