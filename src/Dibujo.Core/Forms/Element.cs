using System.Text.Json.Serialization;
using Dibujo.Core.Exchange;

namespace Dibujo.Core.Forms;

/// <summary>What a rule can act on.</summary>
[JsonConverter(typeof(CamelCaseEnum<ElementKind>))]
public enum ElementKind
{
    /// <summary>One field, wherever it stands.</summary>
    Field,

    /// <summary>A section with all its fields.</summary>
    Section,

    /// <summary>A tab with all its sections.</summary>
    Tab,
}

/// <summary>Points at an element by kind and key.</summary>
[method: JsonConstructor]
public readonly record struct Element(ElementKind Kind, string Key)
{
    /// <summary>The field of that key.</summary>
    public static Element Field(string key) => new(ElementKind.Field, key);

    /// <summary>The section of that key.</summary>
    public static Element Section(string key) => new(ElementKind.Section, key);

    /// <summary>The tab of that key.</summary>
    public static Element Tab(string key) => new(ElementKind.Tab, key);
}
