using System.Text.Json.Serialization;

namespace Dibujo.Core.Reshaping;

/// <summary>What becomes of a value.</summary>
[JsonConverter(typeof(CamelCaseEnum<Fate>))]
public enum Fate
{
    /// <summary>It reads as before.</summary>
    Kept,

    /// <summary>It reads otherwise, and comes back as it was if the change is undone.</summary>
    Rewritten,

    /// <summary>Something of it is left, and does not come back as it was.</summary>
    Altered,

    /// <summary>Nothing of it is left but what the history holds.</summary>
    Lost,
}
