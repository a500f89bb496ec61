using System.Text.Json.Serialization;

namespace Dibujo.Core.Rules;

/// <summary>What becomes of a field's saved value while the field is hidden.</summary>
[JsonConverter(typeof(CamelCaseEnum<HiddenValue>))]
public enum HiddenValue
{
    /// <summary>Stays, unseen; conditions still see it.</summary>
    Keep,

    /// <summary>Counts as blank at once, is blank after the next save, and returns if the field shows before that.</summary>
    Clear,

    /// <summary>As <see cref="Clear"/>, with the field's default in place of blank.</summary>
    Reset,
}
