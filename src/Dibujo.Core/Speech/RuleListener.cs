using System.Collections.Immutable;
using Dibujo.Core.Conditions;
using Dibujo.Core.Forms;
using Dibujo.Core.Rules;

namespace Dibujo.Core.Speech;

/// <summary>Hears a whole rule: effects before or after their condition, what holds only then, exceptions, and otherwise.</summary>
internal sealed class RuleListener
{
    private static readonly string[] Ifs =
    [
        "if", "when", "whenever", "while", "as long as", "so long as", "in case", "in case that", "provided", "provided that", "where", "given that", "given", "then when", "because",
    ];

    private static readonly string[] OnlyIfs = ["only if", "only when", "only while", "only as long as", "only where", "only once", "just when", "exactly when", "if and only if"];

    private static readonly string[] Unlesses =
        ["unless", "except if", "except when", "except while", "except for", "except", "but not for", "but not if", "but not when", "apart from", "not if", "not when", "other than for", "other than"];

    private readonly Listener listener;
    private readonly Lexicon lexicon;
    private readonly NameListener names;
    private readonly ConditionListener conditions;
    private readonly EffectListener effects;

    internal RuleListener(Listener listener, Lexicon lexicon)
    {
        (this.listener, this.lexicon) = (listener, lexicon);
        names = new(listener, lexicon);
        var values = new ValueListener(listener, lexicon, names);
        conditions = new(listener, lexicon, names, values);
        effects = new(listener, lexicon, names, values);
    }

    /// <summary>The rule that was said; null where nothing can be made of the words.</summary>
    internal Rule? Rule(Rule like)
    {
        var where = listener.Try(Scope);
        var cases = listener.First<object>(() => ConditionFirst(), () => Reserved(), () => ReservedTo(), () => EffectsFirst(), () => WithoutVerb());
        if (cases is not ImmutableArray<Case> heard)
        {
            return null;
        }

        where ??= listener.Try(Scope);
        listener.TookAny(".", "!");
        return listener.IsAtEnd ? like with { Where = where, Table = null, Cases = heard } : null;
    }

    private Scope? Scope()
    {
        listener.TookAny("only on", "on", "only for");
        if (!listener.TookAny("form") && listener.At == 0)
        {
            return null;
        }

        return names.Name(lexicon.Forms, "a form", Closeness.Shortened) is { } form && listener.TookAny("form", ":", ",") | true && listener.TookAny(":", ",") | true
            ? new() { Forms = [form.Thing] }
            : null;
    }

    private ImmutableArray<Case>? ConditionFirst()
    {
        var isOnly = listener.TookAny(OnlyIfs);
        var isUnless = !isOnly && listener.TookAny(Unlesses);
        if (!isOnly && !isUnless)
        {
            foreach (var word in (string[])["if", "while", "unless"])
            {
                listener.Expect(word);
            }

            if (!listener.TookAny(Ifs) && !listener.IsAhead("from") && !listener.IsAhead("after") && !listener.IsAhead("before") && !listener.IsAhead("until")
                && !listener.IsAhead("during") && !listener.IsAhead("in") && !listener.IsAhead("for") && !listener.IsAhead("on") && !listener.IsAhead("without") && !listener.IsAhead("since") && !listener.IsAhead("once") && !listener.IsAhead("with"))
            {
                return null;
            }
        }

        if (conditions.Condition() is not { } heard)
        {
            return null;
        }

        var condition = isUnless ? Negation.Of(heard) : heard;
        Separate();
        if (effects.Effects() is not { } done)
        {
            return null;
        }

        var (all, onlyLater) = Suffixes(condition);
        return WithOthers(all!, effects.Said(done), isOnly || onlyLater || effects.SaidOnly);
    }

    private ImmutableArray<Case>? EffectsFirst()
    {
        var isAlways = listener.TookAny("always", "in every case");
        var isOnly = listener.Take("only");
        if (effects.Effects() is not { } done)
        {
            return null;
        }

        var (condition, onlyLater) = Suffixes(null);
        done = effects.Said(done);
        isAlways |= condition is null && listener.TookAny("always", "in every case");
        return condition is null && !isAlways && !listener.IsAtEnd && !listener.IsAhead(".") ? null : WithOthers(condition, done, isOnly || onlyLater || effects.SaidOnly);
    }

    /// <summary>"Only directors may change the fee": whoever is not may not.</summary>
    private ImmutableArray<Case>? Reserved()
    {
        listener.TookAny("nobody but", "no one but", "only", "nobody except", "no one except");
        if (listener.At == 0 || names.List(() => names.Name(lexicon.Roles, "a role", Closeness.Shortened)) is not { } roles)
        {
            return null;
        }

        var deed = listener.TookAny("may change", "can change", "may edit", "can edit", "may fill in", "can fill in", "may alter", "changes", "change", "may touch", "is allowed to change", "are allowed to change") ? "change"
            : listener.TookAny("may see", "can see", "may view", "can view", "sees", "see") ? "see" : null;
        if (deed is null || names.Targets() is not { } targets)
        {
            return null;
        }

        var (condition, _) = Suffixes(ConditionListener.OfRoles(roles, isNegated: true));
        return [new([deed == "see" ? new Hide(targets) : new Lock(targets)], condition)];
    }

    /// <summary>"The fee can only be changed by directors."</summary>
    private ImmutableArray<Case>? ReservedTo()
    {
        if (names.Targets() is not { } targets
            || !listener.TookAny("can only be changed by", "may only be changed by", "can only be edited by", "may only be edited by", "is only open to", "is only editable by", "is only for")
            || names.List(() => names.Name(lexicon.Roles, "a role", Closeness.Shortened)) is not { } roles)
        {
            return null;
        }

        var (condition, _) = Suffixes(ConditionListener.OfRoles(roles, isNegated: true));
        return [new([new Lock(targets)], condition)];
    }

    /// <summary>"Light limit only for textiles": what is only there then is shown only then. "Textiles need a light limit."</summary>
    private ImmutableArray<Case>? WithoutVerb() => (ImmutableArray<Case>?)(listener.Try<object>(() =>
    {
        if (names.Targets() is not { } targets || !listener.IsAhead("only"))
        {
            return null;
        }

        var from = listener.At;
        var (condition, isOnly) = Suffixes(null);
        if (condition is null || !isOnly)
        {
            return null;
        }

        GuessShown(from);
        return WithOthers(condition, [new Show(targets)], isOnly: true);
    }) ?? listener.Try<object>(() =>
        conditions.Member() is { } condition && listener.TookAny("needs", "need", "requires", "require", "means", "asks for") && names.Targets() is { } targets
            ? WithOthers(condition, [new Require(targets)], isOnly: false)
            : null));

    private void GuessShown(int from)
    {
        var at = listener.At;
        listener.At = from + 1;
        listener.Guess(from, "show … only while", [new("require … only while", "required only"), new("open … only while", "open only")]);
        listener.At = at;
    }

    /// <summary>Conditions after the effects, all of which have to hold with the one before; and whether one of them said "only".</summary>
    private (Condition? Condition, bool IsOnly) Suffixes(Condition? before)
    {
        var all = new List<Condition>();
        if (before is not null)
        {
            all.Add(before);
        }

        var isOnly = false;
        while (listener.Try<object>(() =>
        {
            listener.TookAny(",", "and", "but");
            if (listener.TookAny(Unlesses))
            {
                listener.TookAny("for", "if", "when");
                return conditions.Condition() is { } exception ? Negation.Of(exception) : null;
            }

            var only = listener.TookAny(OnlyIfs);
            if (!only && listener.Take("only"))
            {
                only = true;
                listener.TookAny(Ifs);
            }
            else if (!only && !listener.TookAny(Ifs) && !IsTimeAhead())
            {
                return null;
            }

            if (conditions.Condition() is not { } condition)
            {
                return null;
            }

            isOnly |= only;
            return condition;
        }) is Condition next)
        {
            all.Add(next);
        }

        return (all.Count switch
        {
            0 => null,
            1 => all[0],
            _ => new Group(Quantifier.AllOf, [.. all.SelectMany(one => one is Group { Quantifier: Quantifier.AllOf } group ? group.Members : [one])]),
        }, isOnly);
    }

    private bool IsTimeAhead() => Array.Exists(
        (string[])["from", "after", "before", "until", "till", "during", "in", "at", "on", "for", "since", "past", "by", "without", "with", "up to", "once"], listener.IsAhead);

    private ImmutableArray<Case>? WithOthers(Condition? condition, ImmutableArray<Effect> done, bool isOnly)
    {
        var cases = ImmutableArray.CreateBuilder<Case>();
        cases.Add(new(done, condition));
        while (listener.Try<object>(() => ElseIf()) is Case another)
        {
            cases.Add(another);
        }

        if (listener.Try<object>(() => Otherwise()) is ImmutableArray<Effect> otherwise)
        {
            cases.Add(new(otherwise));
        }
        else if (condition is not null && cases.Count == 1)
        {
            isOnly = isOnly || TakenAsOnly(done);
            if (isOnly && OnlyWhile.Otherwise(done) is { IsEmpty: false } opposite)
            {
                cases.Add(new(opposite));
            }
        }

        return cases.ToImmutable();
    }

    /// <summary>Showing what is shown anyway does nothing, so it is taken as "only while", and said so.</summary>
    private bool TakenAsOnly(ImmutableArray<Effect> done)
    {
        var isIdle = done.Any(effect => effect is Show { Targets: var shown } && shown.All(target => lexicon.RestOf(target).Visibility == Visibility.Shown))
            || done.Any(effect => effect is Unlock { Targets: var opened } && opened.All(target => lexicon.RestOf(target).Access == Access.Open));
        if (isIdle)
        {
            var at = listener.At;
            listener.Guess(0, "only while, since otherwise it is so at rest", []);
            listener.At = at;
        }

        return isIdle;
    }

    private Case? ElseIf()
    {
        listener.TookAny(";", ",", ".");
        if (!listener.TookAny("else if", "else when", "else while", "otherwise if", "otherwise when", "but if", "but when") || conditions.Condition() is not { } condition)
        {
            return null;
        }

        Separate();
        return effects.Effects() is { } done ? new Case(done, condition) : null;
    }

    private ImmutableArray<Effect>? Otherwise()
    {
        listener.TookAny(";", ",", ".");
        if (!listener.TookAny("otherwise", "else", "if not", "or else"))
        {
            return null;
        }

        listener.Take(",");
        effects.MeanAll();
        return effects.Effects();
    }

    private void Separate()
    {
        listener.TookAny(",", ":");
        listener.TookAny("then", "we", "please");
    }
}
