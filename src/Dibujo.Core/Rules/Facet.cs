using System.Text.Json.Serialization;

namespace Dibujo.Core.Rules;

/// <summary>One of the things that rules can disagree about: for each element the highest claim on each facet wins.</summary>
[JsonConverter(typeof(CamelCaseEnum<Facet>))]
public enum Facet
{
    /// <summary>Shown or hidden.</summary>
    Visibility,

    /// <summary>Open or locked.</summary>
    Access,

    /// <summary>Optional, needed to move on, or needed to save.</summary>
    Requirement,

    /// <summary>A value that a rule gives to a field.</summary>
    Value,

    /// <summary>Which of a field's choices are offered.</summary>
    Choices,
}

/// <summary>Which facet an effect speaks about.</summary>
public static class Facets
{
    /// <summary>How many facets there are.</summary>
    public const int Count = 5;

    /// <summary>The one facet on which the effect makes a claim; null for one that contests nothing, such as a message.</summary>
    public static Facet? Of(Effect effect) => effect switch
    {
        Show or Hide => Facet.Visibility,
        Lock or Unlock => Facet.Access,
        Require or MakeOptional => Facet.Requirement,
        SetValue or ClearValue or ResetValue or Calculate => Facet.Value,
        Narrow => Facet.Choices,
        _ => null,
    };
}
