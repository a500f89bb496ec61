using System.Text.Json.Serialization;
using Dibujo.Core.Exchange;

namespace Dibujo.Core.Rules;

/// <summary>One of the three things that a rule can say of an element.</summary>
[JsonConverter(typeof(CamelCaseEnum<Facet>))]
public enum Facet
{
    /// <summary>Shown or hidden.</summary>
    Visibility,

    /// <summary>Open or locked.</summary>
    Access,

    /// <summary>Optional, needed to move on, or needed to save.</summary>
    Requirement,
}

/// <summary>Which facet an effect speaks about.</summary>
public static class Facets
{
    /// <summary>The one facet on which the effect makes a claim.</summary>
    public static Facet Of(Effect effect) => effect switch
    {
        Show or Hide => Facet.Visibility,
        Lock or Unlock => Facet.Access,
        Require or MakeOptional => Facet.Requirement,
        _ => throw new ArgumentOutOfRangeException(nameof(effect)),
    };
}
