using System.Collections.Immutable;
using Dibujo.Core.Forms;
using Dibujo.Core.Rules;

namespace Dibujo.Core.Speech;

/// <summary>Something that can be done to elements, whichever they are.</summary>
internal sealed class Deed
{
    internal static readonly Deed Show = new(targets => new Show(targets), "show", "display", "reveal", "bring up", "do not hide");
    internal static readonly Deed Hide = new(targets => new Hide(targets), "hide", "conceal", "suppress", "do not show", "no need for", "leave out");
    internal static readonly Deed HideAndClear = new(targets => new Hide(targets, HiddenValue.Clear), "hide and clear", "hide and empty");
    internal static readonly Deed HideAndReset = new(targets => new Hide(targets, HiddenValue.Reset), "hide and reset");
    internal static readonly Deed Require = new(targets => new Require(targets), "require", "demand", "ask for", "insist on", "request", "we need", "need");

    internal static readonly Deed MakeOptional =
        new(targets => new MakeOptional(targets), "make optional", "do not require", "do not ask for", "do not demand", "no longer require");

    internal static readonly Deed Lock =
        new(targets => new Lock(targets), "lock", "freeze", "protect", "do not allow", "do not let anyone change", "forbid", "close", "fix", "disable", "make read only");

    internal static readonly Deed Unlock = new(targets => new Unlock(targets), "unlock", "open", "enable", "allow", "do not lock");
    internal static readonly Deed Clear = new(field => new ClearValue(field), "empty", "clear", "blank", "wipe");
    internal static readonly Deed Reset = new(field => new ResetValue(field), "reset", "put back", "restore");

    private static readonly Deed[] All = [Show, Hide, HideAndClear, HideAndReset, Require, MakeOptional, Lock, Unlock, Clear, Reset];

    private readonly Func<ImmutableArray<Element>, ImmutableArray<Effect>> effects;
    private readonly string[] verbs;

    private Deed(Func<ImmutableArray<Element>, Effect> effect, params string[] verbs)
        => (effects, this.verbs) = (targets => [effect(targets)], verbs);

    private Deed(Func<string, Effect> effect, params string[] verbs)
        => (effects, this.verbs) = (targets => targets.All(target => target.Kind == ElementKind.Field) ? [.. targets.Select(target => effect(target.Key))] : [], verbs);

    /// <summary>The deed whose verb comes next; null where none does.</summary>
    internal static Deed? Taken(Listener listener)
    {
        foreach (var verb in All.SelectMany(deed => deed.verbs).OrderByDescending(verb => verb.Length))
        {
            if (listener.Take(verb))
            {
                return All.First(deed => deed.verbs.Contains(verb, StringComparer.Ordinal));
            }
        }

        return null;
    }

    /// <summary>The effects that do it to those elements; none where it cannot be done to them.</summary>
    internal ImmutableArray<Effect> On(ImmutableArray<Element> targets) => effects(targets);
}
