using System.Text.Json.Serialization;

namespace Dibujo.Core.Forms;

/// <summary>Whether this person may change an element that is shown.</summary>
[JsonConverter(typeof(CamelCaseEnum<Access>))]
public enum Access
{
    /// <summary>May be changed.</summary>
    Open,

    /// <summary>May be read only.</summary>
    Locked,
}
