using System.Collections.Immutable;
using Dibujo.Core.Forms;
using Dibujo.Core.Programs;
using Dibujo.Core.Rules;
using Dibujo.Core.Values;

namespace Dibujo.Core.Evaluation;

/// <content>From claims to facets, along the chain of what encloses an element.</content>
public sealed partial class Session
{
    private static readonly RequirementCode[] AtRest =
        [.. Enum.GetValues<Requirement>().Select(level => new RequirementCode(level, [], null))];

    /// <summary>Keys of the moves for which the element of that number is needed; empty: any move, or none is in question.</summary>
    public ImmutableArray<string> MovesAskingFor(int element) => RequirementOn(element).Moves;

    /// <summary>Keys of the choices that the field of that number offers now; null: all that it has.</summary>
    public ImmutableArray<string>? Offers(int field) =>
        WinnerOn(field, Facet.Choices) is >= 0 and var winner ? effects.Choices[claims.Claims[winner].Says] : null;

    /// <summary>The claim that won on the element itself, as an index into the claims; -1 where no rule speaks.</summary>
    internal int WinnerOn(int element, Facet facet)
    {
        Contest();
        return winners[ClaimTable.Cell(element, facet)];
    }

    internal bool IsInForce(ClaimCode claim) => inForce[claim.Variant] == claim.Case;

    internal Value ValueIn(int slot) => values[slot];

    internal Value SavedValueOf(int field) => values[slots.Saved(field)];

    /// <summary>Whether the element or something that encloses it is hidden, and what that does to values in it.</summary>
    internal (bool Hidden, HidingCode Value) Hiding(int element)
    {
        var hidden = false;
        var value = HidingCode.Hidden;
        var parents = door.Parents;
        for (var e = element; e >= 0; e = parents[e])
        {
            var winner = WinnerOn(e, Facet.Visibility);
            var says = winner >= 0 ? (HidingCode)claims.Claims[winner].Says : (HidingCode)layout.Rest(e).Visibility;
            hidden |= says != HidingCode.Shown;
            // The innermost that does something to the value decides what.
            value = value == HidingCode.Hidden && says > HidingCode.Hidden ? says : value;
        }

        return (hidden, value);
    }

    /// <summary>Access by the nearest claim from the element outwards, else by the nearest rest that is not the ordinary one.</summary>
    /// <remarks>A field whose value is held by a rule is locked, whatever else is said.</remarks>
    internal Access AccessTo(int element)
    {
        if (element < layout.FieldCount && ValueClaim(element) is { IsHeld: true })
        {
            return Access.Locked;
        }

        return Deciding(element, Facet.Access) is >= 0 and var claim ? (Access)claims.Claims[claim].Says : door.Rests[element].Access;
    }

    /// <summary>Requirement by the nearest claim from the element outwards, else by the nearest rest that is not the ordinary one.</summary>
    /// <remarks>A part that is optional by its type asks for nothing where only what encloses it is asked for.</remarks>
    internal RequirementCode RequirementOn(int element) => Deciding(element, Facet.Requirement) is >= 0 and var claim
        ? effects.Requirements[claims.Claims[claim].Says]
        : AtRest[(int)door.Rests[element].Requirement];

    /// <summary>
    /// The claim that decides over access or requirement, as an index into the claims; -1 where no rule speaks. From the
    /// element outwards: a part, its field, the sections that the field stands in on whatever form (the highest rule first),
    /// their tabs, the form at hand, the record.
    /// </summary>
    internal int Deciding(int element, Facet facet)
    {
        var e = element;
        if (e < layout.FirstContainer)
        {
            if (layout.IsPart(e))
            {
                var onPart = WinnerOn(e, facet);
                if (onPart >= 0 || (facet == Facet.Requirement && layout.IsOptionalPart(e)))
                {
                    return onPart;
                }

                e = layout.FieldOf(e);
            }

            var onField = WinnerOn(e, facet);
            if (onField >= 0)
            {
                return onField;
            }

            foreach (var group in layout.Groups[e])
            {
                var highest = Highest(group, facet);
                if (highest >= 0)
                {
                    return highest;
                }
            }

            // A field that does not stand on the form at hand is none of that form's affair.
            e = door.Has(e) ? layout.FormAround(e, door) : Nobody;
        }

        for (; e >= 0; e = door.Parents[e])
        {
            var winner = WinnerOn(e, facet);
            if (winner >= 0)
            {
                return winner;
            }
        }

        return Nobody;
    }

    /// <summary>
    /// Of the claims that won on each of several elements, that of the highest rule, and of what one rule says of two of
    /// them the stricter; -1 for none.
    /// </summary>
    private int Highest(int[] group, Facet facet)
    {
        var highest = Nobody;
        foreach (var element in group)
        {
            var winner = WinnerOn(element, facet);
            if (winner >= 0 && (highest < 0 || (RankOf(winner), -Strictness(winner)).CompareTo((RankOf(highest), -Strictness(highest))) < 0))
            {
                highest = winner;
            }
        }

        return highest;

        int RankOf(int claim) => variants[claims.Claims[claim].Variant].Rule;

        int Strictness(int claim) => facet == Facet.Access ? claims.Claims[claim].Says : (int)effects.Requirements[claims.Claims[claim].Says].Level;
    }

    internal bool IsOpen(int field) => door.Has(field) && !Hiding(field).Hidden && AccessTo(field) == Access.Open;

    /// <summary>Whether a change is held that does not count now: its field is hidden, locked, or was not reached in its cycle.</summary>
    internal bool IsSetAside(int field) =>
        changes[field] is { } change && !isTaken[field] && !(IsOpen(field) && values[field].Equals(change));

    /// <summary>What a rule says of the field's value now; null where none does.</summary>
    internal ValueCode? ValueClaim(int field) =>
        WinnerOn(field, Facet.Value) is >= 0 and var winner ? effects.Values[claims.Claims[winner].Says] : null;

    /// <summary>The value that the field has, given the person's change to it (null: none) and the claims now in force.</summary>
    private Value Offered(int field, Value? change)
    {
        var (hidden, hiding) = Hiding(field);
        if (hidden && hiding != HidingCode.Hidden)
        {
            return hiding == HidingCode.HiddenAndReset ? DefaultOf(field) : Value.Blank;
        }

        var claim = ValueClaim(field);
        if (claim is { IsHeld: true } held)
        {
            return Found(held, field);
        }

        if (change is not null && isTaken[field])
        {
            return change;
        }

        if (change is not null && door.Has(field) && !hidden && AccessTo(field) == Access.Open)
        {
            return ByParts(field, change);
        }

        return ByParts(field, claim is { } given ? Found(given, field) : SavedValueOf(field));
    }

    private Value Found(ValueCode code, int field) =>
        code.Slot >= 0 ? Program.Fields.Type(field).FitGiven(values[code.Slot]) : code.Fixed;

    private Value DefaultOf(int field) => Program.Fields[field] is { Default: { } @default, Type: var type } ? @default.In(Setting, type) : Value.Blank;

    /// <summary>The value with those parts that are hidden or locked as they were saved, or cleared, whatever stands in it.</summary>
    private Value ByParts(int field, Value value)
    {
        if (layout.PartsOfField[field].Length == 0)
        {
            return value;
        }

        var before = SavedValueOf(field) as Compound ?? Compound.Empty;
        var whole = value as Compound ?? Compound.Empty;
        foreach (var (part, key) in layout.PartsOfField[field])
        {
            if (WinnerOn(part, Facet.Visibility) < 0 && WinnerOn(part, Facet.Access) < 0)
            {
                continue;
            }

            var (hidden, hiding) = Hiding(part);
            whole = hidden && hiding != HidingCode.Hidden ? whole.With(key, Value.Blank)
                : hidden || AccessTo(part) == Access.Locked ? whole.With(key, before[key])
                : whole;
        }

        return whole.IsBlank ? Value.Blank : whole;
    }
}
