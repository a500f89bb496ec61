namespace Dibujo.Core.Tapes;

/// <summary>What kind of JSON value a node of a tape is.</summary>
public enum TapeKind
{
    /// <summary>Null, or a member that is not there.</summary>
    Null,

    /// <summary>False.</summary>
    False,

    /// <summary>True.</summary>
    True,

    /// <summary>A whole number of 32 bits.</summary>
    Integer,

    /// <summary>Text.</summary>
    Text,

    /// <summary>A list.</summary>
    List,

    /// <summary>An object.</summary>
    Object,

    /// <summary>Any other number, as text.</summary>
    Number,
}
