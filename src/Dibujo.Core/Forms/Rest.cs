namespace Dibujo.Core.Forms;

/// <summary>An element's state when no rule speaks.</summary>
/// <remarks>
/// A field takes a container's resting requirement and access where its own are the ordinary ones (optional, open).
/// </remarks>
public sealed record Rest(
    Visibility Visibility = Visibility.Shown,
    Requirement Requirement = Requirement.Optional,
    Access Access = Access.Open)
{
    /// <summary>Shown, optional and open.</summary>
    public static readonly Rest Ordinary = new();
}
