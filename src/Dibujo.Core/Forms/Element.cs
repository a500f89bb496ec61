using System.Text.Json.Serialization;

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

    /// <summary>A whole form.</summary>
    Form,

    /// <summary>A part of a field with a compound value.</summary>
    Part,

    /// <summary>The record as a whole, which encloses every form.</summary>
    Record,
}

/// <summary>Points at an element by kind and key.</summary>
/// <param name="Kind">Of which kind.</param>
/// <param name="Key">Its key; for a part, the field's key, a point and the part's key.</param>
[method: JsonConstructor]
public readonly record struct Element(ElementKind Kind, string Key)
{
    /// <summary>The record as a whole; there is one, and its key is <c>record</c>.</summary>
    public static readonly Element Record = new(ElementKind.Record, "record");

    /// <summary>The field of that key.</summary>
    public static Element Field(string key) => new(ElementKind.Field, key);

    /// <summary>The part of that key of a field.</summary>
    public static Element Part(string field, string part) => new(ElementKind.Part, $"{field}.{part}");

    /// <summary>The section of that key.</summary>
    public static Element Section(string key) => new(ElementKind.Section, key);

    /// <summary>The tab of that key.</summary>
    public static Element Tab(string key) => new(ElementKind.Tab, key);

    /// <summary>The form of that key.</summary>
    public static Element Form(string key) => new(ElementKind.Form, key);
}
