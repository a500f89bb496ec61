using System.Text.Json.Serialization;

namespace Dibujo.Core.Records;

/// <summary>What a person does with a record at the moment.</summary>
/// <remarks>Only what is filled in can be saved: the server judges every submission as filling in, whatever is shown to readers.</remarks>
[JsonConverter(typeof(CamelCaseEnum<Use>))]
public enum Use
{
    /// <summary>It is open on a form, in a list, or taken in from elsewhere.</summary>
    [JsonStringEnumMemberName("filling-in")]
    FillingIn,

    /// <summary>It is read or printed, and nothing can be typed.</summary>
    Reading,
}
