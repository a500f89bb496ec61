namespace Dibujo.Core.Speech;

/// <summary>What elements are said to be, and which deed makes them so.</summary>
internal static class StateWords
{
    private static readonly (Deed Deed, string[] Words)[] Adjectives =
    [
        (Deed.Require, ["required", "mandatory", "compulsory", "obligatory", "needed", "necessary", "not optional", "must", "asked for"]),
        (Deed.MakeOptional, ["optional", "not required", "not mandatory", "not needed", "not necessary", "voluntary"]),
        (Deed.Hide, ["hidden", "invisible", "not visible", "not shown", "not relevant", "irrelevant", "not applicable", "not displayed", "gone"]),
        (Deed.Show, ["shown", "visible", "displayed", "relevant", "applicable", "there"]),
        (Deed.Lock, ["locked", "read only", "readonly", "fixed", "frozen", "closed", "protected", "not editable", "uneditable", "greyed out", "not changeable", "not open"]),
        (Deed.Unlock, ["open", "unlocked", "editable", "changeable", "not locked"]),
        (Deed.Clear, ["emptied", "cleared"]),
        (Deed.Reset, ["reset"]),
        (Deed.HideAndClear, ["hidden and cleared", "hidden and emptied"]),
        (Deed.HideAndReset, ["hidden and reset"]),
    ];

    /// <summary>What somebody has to do to it makes it required; said as a fact it would be a condition.</summary>
    private static readonly string[] Demands = ["filled in", "filled out", "filled", "given", "entered", "completed", "provided", "answered", "set", "specified", "known", "complete", "present"];

    private static readonly (Deed Deed, string[] Words)[] Verbs =
    [
        (Deed.Show, ["appears", "appear", "shows up", "show up", "applies", "apply", "matters", "matter", "comes up", "shows"]),
        (Deed.Hide,
        [
            "disappears", "disappear", "vanishes", "vanish", "goes away", "go away", "does not apply", "do not apply", "does not matter", "do not matter", "does not appear", "do not appear",
            "does not show", "do not show",
        ]),
        (Deed.Require, ["needs filling in", "need filling in", "needs value", "need value", "needs to be there", "needs", "need", "must not be empty", "must not be blank", "can not be empty", "can not be blank"]),
        (Deed.Lock,
        [
            "can not be changed", "can not be edited", "can not be modified", "can not change", "may not be changed", "may not be edited", "must not be changed", "must not change",
            "can no longer be changed", "can no longer be edited", "may no longer be changed", "should not be changed", "locks", "lock",
        ]),
        (Deed.MakeOptional, ["need not be filled in", "does not need to be filled in", "do not need to be filled in", "may be left empty", "may be left blank", "can be left empty", "can be left blank", "may be empty"]),
        (Deed.Unlock, ["opens", "open up", "opens up"]),
    ];

    /// <summary>The deed that makes things so; <paramref name="isDemanded"/>: after "must be" and the like.</summary>
    internal static Deed? Of(Listener listener, bool isDemanded) =>
        Find(listener, Adjectives) ?? (isDemanded && listener.TookAny(Demands) ? Deed.Require : null);

    /// <summary>Whether a state comes next.</summary>
    internal static bool IsAhead(Listener listener)
    {
        var at = listener.At;
        var found = Of(listener, isDemanded: false) is not null;
        listener.At = at;
        return found;
    }

    /// <summary>As <see cref="Of"/>, said by a verb: "disappears".</summary>
    internal static Deed? OfVerb(Listener listener) => Find(listener, Verbs);

    private static Deed? Find(Listener listener, (Deed Deed, string[] Words)[] states)
    {
        var word = listener.TakeAny([.. states.SelectMany(state => state.Words)]);
        return word is null ? null : states.First(state => state.Words.Contains(word, StringComparer.Ordinal)).Deed;
    }
}
