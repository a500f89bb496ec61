using System.Text.Json.Serialization;

namespace Dibujo.Core.Records;

/// <summary>A way by which values come into a record.</summary>
[JsonConverter(typeof(CamelCaseEnum<Channel>))]
public enum Channel
{
    /// <summary>A person fills in a form.</summary>
    Form,

    /// <summary>A person edits records in a list.</summary>
    List,

    /// <summary>A file is imported.</summary>
    Import,

    /// <summary>Another program calls the interface for programs.</summary>
    Api,
}
