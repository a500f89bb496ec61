using System.Text.Json.Serialization;

namespace Dibujo.Core.Forms;

/// <summary>How strongly an element asks to be filled in.</summary>
/// <remarks>
/// Ordered by strength. Says whether <em>anyone</em> must fill the element in; whether <em>this person</em> may is
/// <see cref="Access"/>. While an element is hidden its requirement is suspended, whatever its strength.
/// </remarks>
[JsonConverter(typeof(CamelCaseEnum<Requirement>))]
public enum Requirement
{
    /// <summary>May stay blank for good.</summary>
    Optional,

    /// <summary>The record may be saved without it, but not moved to another stage.</summary>
    ToMoveOn,

    /// <summary>The record may not be saved without it.</summary>
    ToSave,
}
