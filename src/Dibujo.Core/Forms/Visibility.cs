using System.Text.Json.Serialization;

namespace Dibujo.Core.Forms;

/// <summary>Whether an element is to be seen. A chain: what encloses it must be shown too.</summary>
[JsonConverter(typeof(CamelCaseEnum<Visibility>))]
public enum Visibility
{
    /// <summary>Seen, as far as this element itself is concerned.</summary>
    Shown,

    /// <summary>Not seen; asks for nothing and cannot be changed.</summary>
    Hidden,
}
