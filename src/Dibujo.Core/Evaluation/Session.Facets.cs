using Dibujo.Core.Compilation;
using Dibujo.Core.Rules;
using Dibujo.Core.Values;

namespace Dibujo.Core.Evaluation;

/// <content>From claims to facets, along the chain of what encloses an element.</content>
public sealed partial class Session
{
    /// <summary>The claim that won on the element itself, as an index into the claims; -1 where no rule speaks.</summary>
    internal int WinnerOn(int element, Facet facet) => winners[ClaimTable.Cell(element, facet)];

    internal bool IsInForce(ClaimCode claim) => inForce[claim.Reading] == claim.Case;

    internal bool Truth(int clause) => truth[clause];

    /// <summary>Whether the element or something that encloses it is hidden, and whether values in it are cleared thereby.</summary>
    internal (bool Hidden, bool Cleared) Hiding(int element)
    {
        var hidden = false;
        var cleared = false;
        for (var e = element; e >= 0; e = layout.Parent(e))
        {
            var winner = WinnerOn(e, Facet.Visibility);
            var says = winner >= 0 ? claims.Claims[winner].Says : (byte)layout.Rest(e).Visibility;
            hidden |= says != ClaimTable.Shown;
            cleared |= says == ClaimTable.HiddenAndCleared;
        }

        return (hidden, cleared);
    }

    /// <summary>Access by the nearest claim from the element outwards, else by the nearest rest that is not the ordinary one.</summary>
    internal Access AccessTo(int element)
    {
        var rest = Access.Open;
        for (var e = element; e >= 0; e = layout.Parent(e))
        {
            var winner = WinnerOn(e, Facet.Access);
            if (winner >= 0)
            {
                return (Access)claims.Claims[winner].Says;
            }

            rest = rest == Access.Open ? layout.Rest(e).Access : rest;
        }

        return rest;
    }

    /// <summary>Requirement by the nearest claim from the element outwards, else by the nearest rest that is not the ordinary one.</summary>
    internal Requirement RequirementOn(int element)
    {
        var rest = Requirement.Optional;
        for (var e = element; e >= 0; e = layout.Parent(e))
        {
            var winner = WinnerOn(e, Facet.Requirement);
            if (winner >= 0)
            {
                return (Requirement)claims.Claims[winner].Says;
            }

            rest = rest == Requirement.Optional ? layout.Rest(e).Requirement : rest;
        }

        return rest;
    }

    internal bool IsOpen(int field) => layout.OnForm[field] && !Hiding(field).Hidden && AccessTo(field) == Access.Open;

    internal Value SavedValueOf(int field) => saved[field];

    /// <summary>Whether a change is held that does not count now: its field is hidden, locked, or was not reached in its circle.</summary>
    internal bool IsSetAside(int field) => changes[field] is { } change && !(IsOpen(field) && live[field].Equals(change));
}
