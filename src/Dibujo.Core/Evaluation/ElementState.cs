using Dibujo.Core.Forms;

namespace Dibujo.Core.Evaluation;

/// <summary>What an element is like at this moment, for this person.</summary>
/// <param name="IsVisible">Whether it is seen: it and all that encloses it are shown.</param>
/// <param name="Access">Whether this person may change it.</param>
/// <param name="Requirement">How strongly it asks to be filled in, were it not for <paramref name="IsSuspended"/>.</param>
/// <param name="IsSuspended">
/// Whether the requirement counts for nothing now: the element is hidden, or it is needed to save but locked for this person.
/// </param>
/// <param name="IsSetAside">Whether an unsaved change to it waits for it to show or open again.</param>
/// <param name="IsForSomeMoves">Whether it is needed for named moves only: see <see cref="Session.MovesAskingFor"/>.</param>
public readonly record struct ElementState(
    bool IsVisible,
    Access Access,
    Requirement Requirement,
    bool IsSuspended,
    bool IsSetAside,
    bool IsForSomeMoves = false)
{
    /// <summary>Whether this person may change it now.</summary>
    public bool IsEditable => IsVisible && Access == Access.Open;

    /// <summary>The requirement that counts now: <see cref="Requirement.Optional"/> while it is suspended.</summary>
    public Requirement Effective => IsSuspended ? Requirement.Optional : Requirement;

    /// <summary>
    /// The state as one integer for narrow boundaries: bit 0 visible, bit 1 locked, bits 2 and 3 the requirement, bit 4
    /// suspended, bit 5 set aside, bit 6 for some moves.
    /// </summary>
    public int Bits =>
        (IsVisible ? 1 : 0) | ((int)Access << 1) | ((int)Requirement << 2) | (IsSuspended ? 16 : 0) | (IsSetAside ? 32 : 0)
        | (IsForSomeMoves ? 64 : 0);
}
